import { useRouter } from 'expo-router';
import { useDeferredValue, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { EVERYTHING, loudnessEffect, problemNotes, warmUpEffect, type Lens, seamTitle } from '@/core/ledger';
import { writtenRange } from '@/core/instruments';
import { sized } from '@/core/verdict';
import { Body, Button, fonts, Heading, RowLink, Screen, Soft, useNoteName, usePalette, useShape } from '@/ui';
import { BreakPane } from './BreakPane';
import { LensControls, type Looking } from './LensControls';
import { MapBore, type Chosen } from './MapBore';
import { NotePane } from './NotePane';
import { PERIODS, useMemory, useSeen, type Memory, type Seen } from './useMemory';
import { breakName, countWord, noteSentence, problemWord, STATE_WORDS } from './words';

const STEP = 17;
const LEAST_STEP = 11;
/** Problem notes that are named on the bore; all of them are in the list. */
const NAMED = 8;

/** Where notes lie and seams hold: the bore, and what is chosen on it. */
export function MapScreen() {
  const { wide, height } = useShape();
  const nameOf = useNoteName();
  const [instrumentId, setInstrumentId] = useState<string | null>(null);
  const [looking, setLooking] = useState<Looking>({ period: 'half year', part: {}, view: 'mode' });
  const [picked, setPicked] = useState<Chosen | null>(null);
  const { memory, others } = useMemory(instrumentId, looking.period);
  const lens = useMemo((): Lens => {
    const days = PERIODS[looking.period];
    return {
      ...EVERYTHING,
      ...looking.part,
      since: days === null || !memory ? null : memory.now - days,
    };
  }, [looking, memory]);
  const seen = useSeen(memory, lens, looking.view);
  const problems = useMemo(
    () => (memory && seen ? problemNotes(seen.map, memory.limits.centreCents) : []),
    [memory, seen],
  );
  if (!memory || !seen)
    return (
      <Screen caption="Map" title="Where your notes lie">
        <Soft>Opening the map …</Soft>
      </Screen>
    );
  const { instrument } = memory;
  const weakest = seen.breaks.find(({ state }) => state === 'weak' || state === 'mending');
  const first = problems[0]?.note.written;
  const chosen: Chosen | null =
    picked ?? (weakest ? { above: weakest.above } : first !== undefined ? { note: first } : null);
  const { low, high } = writtenRange(instrument);
  const step = wide ? Math.max(LEAST_STEP, Math.min(STEP, (height - 250) / (high - low))) : STEP;
  const named = new Set(problems.slice(0, NAMED).map(({ note }) => note.written));
  return (
    <Screen
      caption="Map"
      title="Where your notes lie"
      beside={
        wide ? (
          <Panel memory={memory} seen={seen} chosen={chosen} />
        ) : (
          <Findings memory={memory} seen={seen} problems={problems} />
        )
      }
      {...(!wide && chosen && { foot: <Card memory={memory} seen={seen} chosen={chosen} /> })}
    >
      <LensControls
        instruments={others}
        instrument={instrument}
        onInstrument={(id) => {
          setInstrumentId(id);
          setPicked(null);
          setLooking({ ...looking, part: {} });
        }}
        played={memory.played}
        looking={looking}
        onChange={setLooking}
      />
      {memory.played.length === 0 ? (
        <Body testID="map-empty">
          {`Nothing has been heard of the ${instrument.name} yet. What is drawn are guesses, hollow: what is usual for the instrument. Each take that you keep fills in the notes that you played.`}
        </Body>
      ) : null}
      <MapBore
        instrument={instrument}
        notes={seen.map.notes}
        breaks={seen.breaks}
        named={named}
        chosen={chosen}
        onChoose={setPicked}
        step={step}
      />
      <Soft>
        {`Left of the line is low, right is high; filled was heard, hollow is a guess. A wide mark wanders. ${chosen === null ? `Tap a note or a seam.` : `${nameOf(low)} is at the bottom.`}`}
      </Soft>
      {wide ? <Findings memory={memory} seen={seen} problems={problems} /> : null}
    </Screen>
  );
}

/** On a wide screen: everything of what is chosen. */
function Panel({ memory, seen, chosen }: { memory: Memory; seen: Seen; chosen: Chosen | null }) {
  const nameOf = useNoteName();
  if (!chosen) return <Body>Choose a note or a seam on the bore.</Body>;
  if ('note' in chosen)
    return (
      <View style={styles.block}>
        <Heading>{nameOf(chosen.note)}</Heading>
        <NotePane key={chosen.note} memory={memory} seen={seen} written={chosen.note} />
      </View>
    );
  const place = seen.breaks.find(({ above }) => above === chosen.above);
  return place ? (
    <View style={styles.block}>
      <Heading>{`${nameOf(place.below)} to ${nameOf(place.above)}, ${breakName(memory.instrument, place.above)}`}</Heading>
      <BreakPane memory={memory} place={place} />
    </View>
  ) : null;
}

/** On a phone: what is chosen in two lines, and a way to all of it. */
function Card({ memory, seen, chosen }: { memory: Memory; seen: Seen; chosen: Chosen }) {
  const palette = usePalette();
  const nameOf = useNoteName();
  const { instrument } = memory;
  const place = 'above' in chosen ? seen.breaks.find(({ above }) => above === chosen.above) : undefined;
  const note = 'note' in chosen ? seen.map.notes.find(({ written }) => written === chosen.note) : undefined;
  const weakest = place?.seams[0];
  const title = note ? nameOf(note.written) : place ? `${nameOf(place.below)} to ${nameOf(place.above)}` : '';
  const text = note
    ? noteSentence(note, title, instrument.name)
    : place && weakest
      ? `${countWord(place.reliability)} clean, ${STATE_WORDS[place.state]}. Weakest: ${seamTitle(weakest.from, weakest.to, nameOf)}, ${countWord(weakest.reliability)}.`
      : 'Not crossed yet in any take that you kept.';
  const query = `?instrument=${instrument.id}${seen.view === 'hand' ? '&view=hand' : ''}`;
  return (
    <RowLink
      href={note ? `/map/note/${note.written}${query}` : `/map/break/${place?.above ?? 0}${query}`}
      testID="map-card"
      style={[styles.card, { backgroundColor: palette.leaf, borderColor: palette.hairline }]}
    >
      <Heading>{title}</Heading>
      <Body lines={3}>{text}</Body>
      <Body style={{ color: palette.goldText }}>Open it ›</Body>
    </RowLink>
  );
}

interface FindingsProps {
  readonly memory: Memory;
  readonly seen: Seen;
  readonly problems: ReturnType<typeof problemNotes>;
}

/** What stands out, in words: problem notes, what pitch goes with, and ways on. */
function Findings({ memory, seen, problems }: FindingsProps) {
  const router = useRouter();
  const palette = usePalette();
  const nameOf = useNoteName();
  const { instrument } = memory;
  // Below the drawing, and after it: it does not keep the map waiting.
  const later = useDeferredValue(seen, null);
  const loud = useMemo(() => later && loudnessEffect(later.played), [later]);
  const warm = useMemo(() => later && warmUpEffect(later.played, instrument), [later, instrument]);
  return (
    <View style={styles.block}>
      {problems.length > 0 ? (
        <View testID="problems">
          <Heading>Notes to look after</Heading>
          {problems.slice(0, NAMED).map((problem) => (
            <RowLink
              key={problem.note.written}
              href={`/map/note/${problem.note.written}?instrument=${instrument.id}`}
              style={[styles.problem, { borderBottomColor: palette.hairline }]}
            >
              <Body style={styles.name}>{nameOf(problem.note.written)}</Body>
              <Body style={styles.grow}>{problemWord(problem)}</Body>
            </RowLink>
          ))}
        </View>
      ) : null}
      {loud ? (
        <Body>
          {Math.abs(loud.value) >= 1 && (loud.low > 0 || loud.high < 0)
            ? `Played 10 dB louder, notes ${loud.value > 0 ? 'rise' : 'fall'} by ${sized(loud.value, 'cents')}; by ${loud.sittings} days.`
            : `Loudness does not move the pitch that can be told, by ${loud.sittings} days.`}
        </Body>
      ) : null}
      {warm ? (
        <Body>
          {warm.low > 0 || warm.high < 0
            ? `Over the first twenty minutes the instrument ${warm.value > 0 ? 'rises' : 'falls'} by ${sized(warm.value, 'cents')}; by ${warm.sittings} days.`
            : `Warming up does not move the pitch that can be told, by ${warm.sittings} days.`}
        </Body>
      ) : null}
      <View style={styles.row}>
        <Button
          label="Slide and weather"
          testID="to-slide"
          onPress={() => router.push(`/map/slide?instrument=${instrument.id}`)}
        />
        <Button
          label="What has changed"
          testID="to-trends"
          onPress={() => router.push(`/map/trends?instrument=${instrument.id}`)}
        />
      </View>
      <Soft>{usualSentence(seen)}</Soft>
    </View>
  );
}

/** What slide, temperature and standard the notes were brought to. */
function usualSentence({ map: { usual } }: Seen): string {
  const parts = [
    usual.slideMm === null ? 'the slide as it was' : `slide ${sized(usual.slideMm, 'mm', 1)}`,
    usual.temperatureC === null ? 'the temperature as it was' : `${usual.temperatureC} °C`,
    `A ${usual.a4}`,
  ];
  return `Told for ${parts.join(', ')}.`;
}

const styles = StyleSheet.create({
  block: { gap: 16 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 12 },
  problem: { flexDirection: 'row', alignItems: 'center', gap: 12, borderBottomWidth: 1 },
  name: { width: 56, fontFamily: fonts.bold },
  grow: { flex: 1 },
  card: { flex: 1, borderWidth: 1, borderRadius: 18, padding: 14, gap: 2 },
});
