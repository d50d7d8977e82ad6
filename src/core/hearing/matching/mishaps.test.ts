import * as fc from 'fast-check';
import { scoreOf } from '@/core/music';
import { findInstrument } from '@/core/instruments';
import type { Note } from '@/core/hearing/notes';
import { align, type Beats } from '.';

const flute = findInstrument('flute')!;

type Mishap = 'none' | 'left out' | 'wrong' | 'octave' | 'with one before';

/** A figure of six notes played twice: no pitch comes back before its turn, none is its own octave. */
const anyPlaying = fc
  .tuple(
    fc.shuffledSubarray([62, 64, 66, 68, 70, 72], { minLength: 6 }),
    fc.array(fc.constantFrom<Mishap>('none', 'left out', 'wrong', 'octave', 'with one before'), {
      minLength: 12,
      maxLength: 12,
    }),
  )
  .map(([figure, mishaps]) => {
    let calm = 0;
    return mishaps.map((mishap, i) => {
      // One thing at a time: between two mishaps there are notes that went well.
      calm = mishap === 'none' || calm < 2 ? calm + 1 : 0;
      return { written: figure[i % 6]!, mishap: calm === 0 ? mishap : ('none' as const) };
    });
  });

function played(steps: readonly { written: number; mishap: Mishap }[], hurry: (beat: number) => number) {
  const notes: Note[] = [];
  const of = new Map<number, number>();
  const add = (midi: number, startSeconds: number, seconds: number) =>
    notes.push({ soundingMidi: midi, startSeconds, endSeconds: startSeconds + seconds } as Note);
  steps.forEach(({ written, mishap }, i) => {
    if (mishap === 'left out') return;
    if (mishap === 'with one before') add(written + 15, hurry(i) - 0.09, 0.05);
    of.set(i, notes.length);
    add(written + (mishap === 'wrong' ? 1 : mishap === 'octave' ? 12 : 0), hurry(i), 0.8);
  });
  return { notes, of };
}

const EXPECTED: Readonly<Record<Mishap, string>> = {
  none: 'played',
  'left out': 'missed',
  wrong: 'wrong',
  octave: 'mode',
  'with one before': 'played',
};

describe('whatever goes wrong once in a while', () => {
  const matched = (steps: readonly { written: number; mishap: Mishap }[], beats: Beats, tempo: number) => {
    const score = scoreOf({
      family: 'row',
      title: 'row',
      instrumentId: 'flute',
      tempo: beats.secondsOf ? 60 : null,
      beatsPerBar: 4,
      countInBeats: 0,
      vibrato: 'none',
      notes: steps.map(({ written }, i) => ({
        written,
        startBeat: i,
        beats: 1,
        attack: 'tongued',
        dynamic: 'mf',
      })),
    });
    const { notes, of } = played(steps, (beat) => beat / tempo);
    const { matches, extras } = align(score, flute, notes, beats);
    return { matches, extras, of };
  };
  const expectRight = (
    steps: readonly { written: number; mishap: Mishap }[],
    beats: Beats,
    tempo: number,
  ) => {
    const { matches, extras, of } = matched(steps, beats, tempo);
    expect(matches.map(({ state }) => state)).toEqual(steps.map(({ mishap }) => EXPECTED[mishap]));
    matches.forEach(({ note }, i) => expect(note).toBe(of.get(i) ?? null));
    // The one too many belongs to nothing, or to the note before as a break in it; never in a note's place.
    expect(extras.filter((i) => [...of.values()].includes(i))).toEqual([]);
  };

  it('every note is found and called what it was, by the beat', () => {
    const beats: Beats = {
      secondsOf: (beat) => beat,
      beatSeconds: 1,
      notMusic: [{ from: -Infinity, to: -0.6 }],
    };
    fc.assert(
      fc.property(anyPlaying, (steps) => expectRight(steps, beats, 1)),
      { numRuns: 150 },
    );
  });

  it('and in free time, slow or fast, as long as the tempo is somewhere near', () => {
    const beats: Beats = { secondsOf: null, beatSeconds: 1, notMusic: [] };
    fc.assert(
      fc.property(anyPlaying, fc.double({ min: 0.85, max: 1.2, noNaN: true }), (steps, tempo) => {
        // The first and the last note say where it begins and ends.
        const whole = steps.map((step, i) =>
          i < 2 || i > steps.length - 3 ? { ...step, mishap: 'none' as const } : step,
        );
        expectRight(whole, beats, tempo);
      }),
      { numRuns: 150 },
    );
  });
});
