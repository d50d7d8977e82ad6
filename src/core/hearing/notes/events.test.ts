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

describe.each(LINES)('a line on the %s', (id, names) => {
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

it('names the mode that broke in', () => {
  const { truth, heard } = played('clarinet-bb', ['E5', 'F5'], { break: 1 });
  expect(heard.events.map((event) => event.soundingMidi)).toEqual(
    truth.events.map((event) => event.soundingMidi),
  );
});
