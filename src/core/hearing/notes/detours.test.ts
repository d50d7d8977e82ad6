import type { Midi } from '@/core/base';
import { findInstrument } from '@/core/instruments';
import { separateDetours } from './detours';
import { framesOf, held, playIn } from './inRooms.testing';
import { soundingLine } from './line';
import type { Scene } from './scene';
import type { Plateau } from './plateau';

/** Bassoon notes that are held, in a living room; what is found in them is put in by hand. */
const bassoon = findInstrument('bassoon')!;
const frames = framesOf(
  playIn({ room: 'living', place: 1 }, { score: held(bassoon, 1), instrument: bassoon, seed: 1, faults: {} })
    .audio,
  bassoon,
);
const scene: Scene = {
  line: soundingLine(frames, 440),
  frames,
  instrument: bassoon,
  a4: 440,
  decaySeconds: 0.4,
  rings: true,
  due: [],
};
/** Plateaus that follow each other without a stop, each of so many frames. */
function joined(...found: readonly (readonly [pitch: Midi, frames: number])[]): Plateau[] {
  let from = 150;
  return found.map(([pitch, length], i) => {
    const plateau = { from, to: from + length, pitch, joined: i > 0 };
    from += length;
    return plateau;
  });
}
const toldIn = (plateaus: Plateau[], squeaks: Parameters<typeof separateDetours>[1] = []) => {
  const { notes, events, faint } = separateDetours(plateaus, squeaks, scene);
  return {
    notes: notes.map(({ pitch }) => pitch),
    told: [...events, ...faint].map(({ kind, soundingMidi }) => [kind, soundingMidi]),
  };
};

test('what is no mode of a note is none of it, though it is one of a period that passes as the note begins', () => {
  // The third of the note's frequency, of which that pitch would be a mode.
  expect(toldIn(joined([54.3, 5], [36, 14], [55, 120]))).toEqual({ notes: [55], told: [] });
});

test('a mode of the note is told', () => {
  expect(toldIn(joined([67.1, 5], [55, 120])).told).toEqual([['blip', 67]]);
});

const BEFORE_THE_END = 15;
/** A note in which something else takes its place just before the next is found. */
const replaced = (pitch: Midi, next: Midi) => {
  const plateaus = joined([46, 120], [next, 120]);
  const from = plateaus[1]!.from - BEFORE_THE_END;
  return toldIn(plateaus, [{ from, to: from + 5, pitch, note: 46 }]).told;
};

test('an octave over a note that rings is first heard by its own partials, which are nothing else', () => {
  expect(replaced(70, 58)).toEqual([]);
});

test.each([
  ['lies lower', 70, 44],
  ['has not those partials', 70, 60],
  ['is the same', 58, 46],
])('a mode that takes a note’s place is told where the note after it %s', (_, mode, next) => {
  expect(replaced(mode, next)).toEqual([['break', mode]]);
});
