import { thinned } from '@/core/base/thinned.testing';
import { scoreOf, type Score } from '@/core/music';
import { findInstrument } from '@/core/instruments';
import type { FaultRates } from '@/core/lab';
import { noteNumber } from '@/core/tuning';
import type { NoteEvent } from '.';
import { playAndHear } from './playAndHear.testing';

/** Notes of a second each; a name behind a `~` is slurred to. */
function figure(instrumentId: string, names: readonly string[]): Score {
  return scoreOf({
    family: 'figure',
    title: 'figure',
    instrumentId,
    tempo: 60,
    beatsPerBar: 4,
    countInBeats: 0,
    vibrato: 'free',
    notes: names.map((name, i) => ({
      written: noteNumber(name.replace('~', '')),
      startBeat: i,
      beats: 1,
      attack: name.startsWith('~') ? 'none' : 'tongued',
      dynamic: 'mf',
    })),
  });
}

function played(id: string, names: readonly string[], faults: Partial<FaultRates>, seed = 4) {
  const instrument = findInstrument(id);
  if (!instrument) throw new Error(id);
  const { performance, heard } = playAndHear(figure(id, names), instrument, seed, faults);
  return { truth: performance, heard };
}

const LINES: [string, string[]][] = [
  ['flute', ['G4', '~G5', 'D5', '~E5', 'A5', '~D6', 'D6']],
  ['clarinet-bb', ['E4', '~B5', 'A4', '~B4', 'C5', '~G5', 'G5']],
  ['oboe', ['C5', '~C#5', 'G5', '~A5', 'E5', '~D5', 'D5']],
  ['bassoon', ['F3', '~A3', 'C3', '~C4', 'G3', '~Bb3', 'Bb3']],
  ['sax-alto', ['C#5', '~D5', 'G4', '~G5', 'B5', '~A5', 'A5']],
];

describe.each(thinned(LINES, 2))('a line on the %s', (id, names) => {
  it('is heard note for note, slurred, tongued and repeated, and nothing is made up', () => {
    const { truth, heard } = played(id, names, {});
    expect(heard.notes.map((note) => note.soundingMidi)).toEqual(
      truth.notes.map((note) => note.soundingMidi),
    );
    heard.notes.forEach((note, i) =>
      expect(Math.abs(note.startSeconds - truth.notes[i]!.startSeconds)).toBeLessThan(0.03),
    );
    expect(heard.events).toEqual([]);
  });

  it.each(['break', 'squeak', 'gap', 'undertone'] as const)(
    'has each %s that happened, in its place, and no other',
    (kind) => {
      const { truth, heard } = played(id, names, { [kind]: 1 });
      const events = heard.events.filter((event) => event.kind === kind);
      const matched = (event: NoteEvent) =>
        truth.events.find(
          (each) =>
            Math.abs(each.startSeconds - event.startSeconds) < 0.03 &&
            Math.abs(each.endSeconds - event.endSeconds) < 0.05,
        );
      expect(events.filter((event) => !matched(event))).toEqual([]);
      // One may lie at the edge of what is defined as audible, or a squeak on a near multiple of its note.
      expect(events.length).toBeGreaterThanOrEqual(Math.floor(0.75 * truth.events.length));
      expect(heard.notes).toHaveLength(truth.notes.length);
    },
  );
});

it('hears blips at the start of tongued notes', () => {
  const { truth, heard } = played('oboe', ['C5', 'D5', 'E5', 'G5', 'A5', 'B5'], { blip: 1 });
  const blips = heard.events.filter((event) => event.kind === 'blip');
  expect(truth.events.length).toBe(6);
  expect(blips.length).toBeGreaterThanOrEqual(5);
  expect(heard.notes).toHaveLength(6);
});

const again = (name: string) => Array<string>(8).fill(name);

it.each(
  thinned(
    [
      ['bassoon', 'F4'],
      ['bassoon', 'Bb1'],
      ['clarinet-eb', 'C#6'],
      ['clarinet-bass', 'C3'],
      ['recorder-bass', 'C#4'],
    ],
    2,
  ),
)('hears blips that begin a note again, and the note: %s %s', (id, name) => {
  const { truth, heard } = played(id, again(name), { blip: 1 }, 3);
  const blips = heard.events.filter(({ kind }) => kind === 'blip');
  expect(truth.events.length).toBe(8);
  expect(heard.notes).toHaveLength(8);
  expect(heard.events.filter(({ kind }) => kind !== 'blip')).toEqual([]);
  expect(blips.length).toBeGreaterThanOrEqual(6);
});

it.each(
  thinned(
    [
      ['bassoon', 'Bb1', 'break'],
      ['sax-baritone', 'B3', 'break'],
      ['clarinet-bass', 'C3', 'break'],
      ['contrabassoon', 'F2', 'break'],
      ['clarinet-eb', 'A6', 'undertone'],
      ['clarinet-bb', 'C7', 'undertone'],
      ['recorder-bass', 'C#4', 'squeak'],
    ] as const,
    3,
  ),
)('keeps a note whole through what happens in it: %s %s, %s', (id, name, kind) => {
  const { truth, heard } = played(id, again(name), { [kind]: 1 }, 3);
  expect(heard.notes.map(({ soundingMidi }) => soundingMidi)).toEqual(
    truth.notes.map(({ soundingMidi }) => soundingMidi),
  );
  expect(heard.events.filter((event) => event.kind !== kind)).toEqual([]);
  // The shortest breaks of low notes are shorter than any window that could show them.
  expect(heard.events.length).toBeGreaterThanOrEqual(truth.events.length - 2);
});

it('names the mode that broke in', () => {
  const { truth, heard } = played('clarinet-bb', ['E5', 'F5'], { break: 1 });
  expect(heard.events.map((event) => event.soundingMidi)).toEqual(
    truth.events.map((event) => event.soundingMidi),
  );
});
