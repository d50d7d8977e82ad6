import { useDeferredValue, useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Midi } from '@/core/base';
import {
  changesIn,
  LOUDNESSES,
  noteMap,
  readingsOf,
  through,
  type Lens,
  type MappedNote,
  type NoteReading,
} from '@/core/ledger';
import { tendenciesOf, ventOf, writtenRange } from '@/core/instruments';
import { leaning } from '@/core/tuning';
import { plural } from '@/core/verdict';
import { capital } from '@/core/base';
import { useDrill } from '@/features/library';
import { Body, Button, Heading, Soft, useNoteName, shortDay } from '@/ui';
import { TimeChart } from '@/features/take';
import { TakeRows } from './TakeRows';
import type { Memory, Seen } from './useMemory';
import { betweenCents, noteSentence } from './words';

interface NotePaneProps {
  readonly memory: Memory;
  readonly seen: Seen;
  readonly written: Midi;
}

/** One note: where it lies and how sure that is, its history, what it goes with, its drills and its takes. */
export function NotePane({ memory, seen, written }: NotePaneProps) {
  const { instrument, limits } = memory;
  const nameOf = useNoteName();
  const name = nameOf(written);
  const note = seen.map.notes.find((each) => each.written === written);
  const readings = useMemo(
    () => readingsOf(seen.played, instrument, seen.map.usual).get(written) ?? [],
    [seen, instrument, written],
  );
  // Told besides where it lies, which is not kept waiting for it.
  const besides = useDeferredValue(true, false);
  if (!note) return null;
  const guesses = tendenciesOf(instrument, written);
  const hand = ventOf(instrument, written);
  return (
    <View style={styles.pane} testID="note-pane">
      <Body testID="note-lies">{noteSentence(note, name, instrument.name)}</Body>
      {note.heard === null && guesses.length > 0 ? (
        <Soft>{capital(guesses.map(({ about }) => about).join('; '))}</Soft>
      ) : null}
      {hand ? <Soft>{`Hand: ${hand.text}`}</Soft> : null}
      {readings.length > 1 ? (
        <View>
          <Heading>Over time</Heading>
          <TimeChart
            label={`Cents of ${name} over ${readings.length} takes, the latest ${leaning(readings.at(-1)!.cents)}`}
            points={sittingsOf(readings)}
            target={{ value: 0, within: limits.centreCents }}
            marks={changesIn(seen.played)
              .filter(({ of }) => of === 'reed')
              .map(({ day, to }) => ({ day, text: to }))}
            decimals={0}
            dateOf={shortDay}
          />
          <Soft>{`Cents from its pitch, a dot a day; the light band is your limit, ${limits.centreCents} cents each way. Slide and temperature are taken off where you told them.`}</Soft>
        </View>
      ) : null}
      {besides ? (
        <>
          <Ways memory={memory} seen={seen} note={note} />
          <Habit memory={memory} seen={seen} written={written} />
        </>
      ) : null}
      <Drills memory={memory} written={written} />
      <TakeRows
        title="Its takes"
        rows={[...readings].reverse().map(({ take, cents }) => ({ take, text: leaning(cents) }))}
      />
    </View>
  );
}

/** Takes of one sitting as one dot. */
function sittingsOf(readings: readonly NoteReading[]) {
  const sittings = new Map<number, NoteReading[]>();
  for (const each of readings)
    sittings.set(each.take.sitting, [...(sittings.get(each.take.sitting) ?? []), each]);
  return [...sittings.values()].map((same) => {
    const cents = same.map((each) => each.cents);
    return {
      day: same[0]!.take.day,
      value: cents.reduce((a, b) => a + b, 0) / cents.length,
      low: Math.min(...cents),
      high: Math.max(...cents),
    };
  });
}

/** How it lies by loudness and by the way that it is come to. */
function Ways({ memory, seen, note }: { memory: Memory; seen: Seen; note: MappedNote }) {
  const { instrument, now } = memory;
  const rows = useMemo(() => {
    const parts: (readonly [string, Partial<Lens>])[] = [
      ...LOUDNESSES.map((loudness) => [capital(loudness), { loudness }] as const),
      ['Tongued', { come: 'tongued' }],
      ['Slurred to from below', { come: 'slurred', direction: 'up' }],
      ['Slurred to from above', { come: 'slurred', direction: 'down' }],
    ];
    return parts.flatMap(([label, part]) => {
      const played = through(seen.played, { ...seen.lens, since: null, ...part });
      const found = noteMap(played, instrument, now, null, seen.map.usual).notes.find(
        ({ written }) => written === note.written,
      );
      return found?.heard ? [{ label, found, heard: found.heard }] : [];
    });
  }, [seen, instrument, now, note.written]);
  if (rows.length < 2) return null;
  return (
    <View>
      <Heading>By the way it is played</Heading>
      {rows.map(({ label, heard, found }) => (
        <View key={label} style={styles.line}>
          <Body style={styles.grow}>{label}</Body>
          <View style={styles.figure}>
            <Body>{leaning(heard.value)}</Body>
            <Soft>{found.sittings < 2 ? 'one day only' : betweenCents(heard.low, heard.high)}</Soft>
          </View>
        </View>
      ))}
    </View>
  );
}

/** Which way it goes when nothing shows it: of blind tuning only, drawn to nothing while there is little. */
function Habit({ memory, seen, written }: { memory: Memory; seen: Seen; written: Midi }) {
  const { instrument, now } = memory;
  const habit = useMemo(() => {
    const blind = seen.played.filter(({ entry }) => entry.figures['leaning'] !== undefined);
    return noteMap(blind, instrument, now, null, seen.map.usual).notes.find(
      (each) => each.written === written,
    );
  }, [seen, instrument, now, written]);
  if (!habit?.heard) return null;
  const { heard, takes, sittings } = habit;
  return (
    <View>
      <Heading>When nothing shows you</Heading>
      <Body>{`${capital(leaning(heard.value))}, by ${plural(takes, 'blind tuning')}${sittings < 2 ? '; one day only.' : `; very likely ${betweenCents(heard.low, heard.high)}.`}`}</Body>
      <Soft>A habit to know, not a score.</Soft>
    </View>
  );
}

function Drills({ memory: { instrument }, written }: { memory: Memory; written: Midi }) {
  const drill = useDrill();
  const { low, high } = writtenRange(instrument);
  const below = Math.max(low, written - instrument.step);
  const third = Math.min(high, written + 2 * instrument.step);
  return (
    <View>
      <Heading>Work on it</Heading>
      <View style={styles.row}>
        <Button
          look="strong"
          label="Hold it"
          onPress={() => drill(instrument.id, 'long-tone', { note: written })}
        />
        {below < written && third > written ? (
          <Button
            label="Match it to its neighbour"
            onPress={() =>
              drill(instrument.id, 'problem-circle', { problem: written, neighbour: below, third })
            }
          />
        ) : null}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  pane: { gap: 20 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 12 },
  line: { flexDirection: 'row', gap: 12, alignItems: 'flex-start' },
  grow: { flex: 1 },
  figure: { alignItems: 'flex-end', flexShrink: 1 },
});
