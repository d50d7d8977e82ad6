import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Line, Path, Rect } from 'react-native-svg';
import { type Cents, capital } from '@/core/base';
import {
  distanceOf,
  differenceWord,
  fixed,
  listed,
  sized,
  type JudgedNote,
  type JudgedSeam,
  type NoteWords,
} from '@/core/verdict';
import type { Note } from '@/core/hearing/notes';
import type { Trace } from '@/core/take';
import { leaning } from '@/core/tuning';
import { Body, Soft } from '@/ui';
import { usePalette } from '@/ui';

interface CloseUpProps {
  readonly judged: JudgedNote;
  readonly words: NoteWords;
  readonly note: Note | null;
  readonly seam: JudgedSeam | null;
  /** What its partials are compared with. */
  readonly reference: { readonly name: string; readonly note: Note } | null;
  readonly trace: Trace;
  /** The ways to hear the place. */
  readonly children: ReactNode;
}

const HEIGHT = 120;
const BEFORE_SECONDS = 0.4;

/** One place from near: pitch, level, partials against the reference note's, and what happened in words. */
export function CloseUp({ judged, words, note, seam, reference, trace, children }: CloseUpProps) {
  return (
    <View style={styles.closeUp} testID="close-up">
      {sentences(judged, words, note, seam).map((sentence) => (
        <Body key={sentence}>{sentence}</Body>
      ))}
      {note ? <PitchAndLevel judged={judged} note={note} trace={trace} /> : null}
      {note && note.partialsDb.length > 0 ? (
        <Partials note={note} name={words.name} reference={reference} />
      ) : null}
      {children}
    </View>
  );
}

function sentences(
  judged: JudgedNote,
  words: NoteWords,
  note: Note | null,
  seam: JudgedSeam | null,
): string[] {
  if (!note) return [`${words.name} was asked for: ${words.word}.`];
  const said: string[] = [];
  const seconds = note.endSeconds - note.startSeconds;
  said.push(
    judged.cents === null
      ? `${words.name} was asked for: ${words.word}.`
      : `${words.name} lasted ${fixed(seconds, 1)} s and sat ${leaning(judged.cents)}${note.wobbleCents === null ? '' : `, wobble ${sized(note.wobbleCents, 'cents', 1)}`}.`,
  );
  judged.marks.forEach(({ event }, i) =>
    said.push(
      `${capital(words.marks[i] ?? '')} ${Math.round(1000 * Math.max(0, event.startSeconds - note.startSeconds))} ms into it, for ${Math.round(1000 * (event.endSeconds - event.startSeconds))} ms.`,
    ),
  );
  if (seam && seam.clean !== null) {
    const { transition, errorCents } = seam;
    const figures = [
      transition?.dipDb == null ? null : `dip ${sized(transition.dipDb, 'dB', 1)}`,
      transition?.seconds == null ? null : `${Math.round(1000 * transition.seconds)} ms`,
      transition?.overshootCents == null ? null : `${sized(transition.overshootCents, 'cents')} too far`,
      transition?.levelStepDb == null ? null : `step ${fixed(transition.levelStepDb, 1)} dB`,
      errorCents === null ? null : `interval ${wideOrNarrow(errorCents)}`,
    ].filter((part) => part !== null);
    said.push(
      `The slur into it was ${seam.clean ? 'clean' : `not clean: ${[...words.slurFaults, ...(words.slurFaults.length === 0 ? words.marks : [])].join(', ')}`}${figures.length > 0 ? ` (${figures.join(', ')})` : ''}.`,
    );
  }
  return said;
}

function wideOrNarrow(cents: Cents): string {
  const whole = Math.round(Math.abs(cents));
  return whole === 0 ? 'as it should be' : `${whole} cents ${cents > 0 ? 'wide' : 'narrow'}`;
}

function PitchAndLevel({ judged, note, trace }: { judged: JudgedNote; note: Note; trace: Trace }) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const from = Math.max(0, note.startSeconds - BEFORE_SECONDS);
  const to = note.endSeconds + 0.2;
  const first = Math.floor(from / trace.stepSeconds);
  const indices = Array.from({ length: Math.ceil((to - from) / trace.stepSeconds) }, (_, i) => first + i);
  const middle = judged.match.state === 'played' ? judged.match.group.sounding : note.soundingMidi;
  const cents = (i: number) => {
    const pitch = trace.pitchMidi[i];
    return pitch == null ? NaN : 100 * (pitch - middle);
  };
  const x = scaleLinear([from, to], [0, width]);
  const at = (i: number) => x((i + 0.5) * trace.stepSeconds);
  // Not clamped: the notes on either side lie outside the picture, where nobody reads their pitch.
  const y = scaleLinear([-60, 60], [HEIGHT - 2, 2]);
  const levels = indices.map((i) => trace.levelDb[i] ?? -120);
  const loudest = Math.max(...levels);
  const reach = Math.min(40, Math.max(12, Math.ceil(loudest - Math.min(...levels)) + 2));
  const level = scaleLinear([loudest - reach, loudest], [46, 2]).clamp(true);
  const pitchPath =
    line<number>(at, (i) => y(cents(i))).defined((i) => Math.abs(cents(i)) < 1300)(indices) ?? '';
  const levelPath = line<number>(at, (i) => level(trace.levelDb[i] ?? -120))(indices) ?? '';
  return (
    <View onLayout={(event) => setWidth(event.nativeEvent.layout.width)}>
      <Soft>Pitch, 60 cents either way</Soft>
      <Svg width={width} height={HEIGHT} role="img" aria-label="Pitch over time">
        <Line x1={0} x2={width} y1={y(0)} y2={y(0)} stroke={palette.softInk} strokeDasharray="1 5" />
        <Line
          x1={x(note.startSeconds)}
          x2={x(note.startSeconds)}
          y1={0}
          y2={HEIGHT}
          stroke={palette.hairline}
        />
        <Path d={pitchPath} fill="none" stroke={palette.ink} strokeWidth={2.2} />
        {judged.marks.map(({ event }, i) => (
          <Rect
            key={i}
            x={x(event.startSeconds)}
            y={0}
            width={Math.max(3, x(event.endSeconds) - x(event.startSeconds))}
            height={HEIGHT}
            fill={palette.gold}
            fillOpacity={0.28}
          />
        ))}
      </Svg>
      <Soft>{`Level, ${reach} dB`}</Soft>
      <Svg width={width} height={48} role="img" aria-label="Level over time">
        <Path d={levelPath} fill="none" stroke={palette.slate} strokeWidth={2.2} />
      </Svg>
    </View>
  );
}

/** Partials as bars, the reference's as marks over them: both against their own strongest. */
function Partials({
  note,
  name,
  reference,
}: {
  note: Note;
  name: string;
  reference: CloseUpProps['reference'];
}) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const strongest = (each: Note) => Math.max(...each.partialsDb.map((dB) => dB ?? -200));
  const step = width / 16;
  const y = scaleLinear([-60, 0], [62, 4]).clamp(true);
  const top = strongest(note);
  const other = reference && reference.note !== note ? reference : null;
  // The same note may come several times in a take.
  const otherName = other?.name === name ? `the reference ${name}` : other?.name;
  const away = other ? distanceOf(note, other.note) : null;
  const different = away?.parts.filter((part) => Math.abs(part.steps) > 1) ?? [];
  return (
    <View onLayout={(event) => setWidth(event.nativeEvent.layout.width)}>
      <Soft>
        {other ? `Partials 1 to 16 of ${name}; marks: of ${otherName}` : `Partials 1 to 16 of ${name}`}
      </Soft>
      <Svg width={width} height={66} role="img" aria-label={`Levels of the partials of ${name}`}>
        {note.partialsDb.map((dB, k) =>
          dB === null ? null : (
            <Rect
              key={k}
              x={k * step + 2}
              y={y(dB - top)}
              width={Math.max(2, step - 6)}
              height={64 - y(dB - top)}
              fill={palette.ink}
              fillOpacity={0.75}
            />
          ),
        )}
        {other?.note.partialsDb.map((dB, k) =>
          dB === null ? null : (
            <Line
              key={k}
              x1={k * step}
              x2={k * step + step - 3}
              y1={y(dB - strongest(other.note))}
              y2={y(dB - strongest(other.note))}
              stroke={palette.gold}
              strokeWidth={2.6}
            />
          ),
        )}
      </Svg>
      {other && away?.steps != null ? (
        <Soft>
          {`${fixed(away.steps, 1)} steps from ${otherName}${different.length > 0 ? `: ${listed(different.map(differenceWord))}` : ': alike'}.`}
        </Soft>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({ closeUp: { gap: 8, paddingVertical: 10 } });
