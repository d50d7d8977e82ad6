import fc from 'fast-check';
import { runs, thinned } from '@/core/base/thinned.testing';
import { instruments } from '@/core/instruments';
import { spelledMidi, type Spelling } from '@/core/tuning';
import { barsOf, families, spellerOf, type Score } from '.';
import { anyValues } from './values.testing';

const LETTERS = 'CDEFGAB';
const MAJOR = [0, 2, 4, 5, 7, 9, 11];
const PERFECT = [0, 3, 4];

/** How far an interval is from the nearest that is perfect, major or minor; 0 for those, and for the tritone and the chromatic step. */
function oddness(a: Spelling, b: Spelling): number {
  const place = ({ step, octave }: Spelling) => LETTERS.indexOf(step) + 7 * octave;
  const way = Math.sign(place(b) - place(a)) || Math.sign(spelledMidi(b) - spelledMidi(a));
  const letters = Math.abs(place(b) - place(a));
  const semitones = way * (spelledMidi(b) - spelledMidi(a));
  const over = semitones - MAJOR[letters % 7]! - 12 * Math.floor(letters / 7);
  const plain = PERFECT.includes(letters % 7) ? [0] : [-1, 0];
  const allowed = { 0: [1], 3: [1], 4: [-1] }[letters % 7] ?? [];
  return Math.min(...[...plain, ...allowed].map((each) => Math.abs(over - each)));
}

/** What an engraver would mend in a score. */
function* wrongIn(score: Score, marks: ReadonlySet<string>): Generator<string> {
  for (const bar of barsOf(score)) {
    let at = bar.startTick;
    for (const token of bar.tokens) {
      if (token.startTick !== at) yield `bar ${bar.number} has a hole`;
      at += token.ticks;
    }
    if (at !== bar.startTick + bar.ticks) yield `bar ${bar.number} is not full`;
  }
  for (const { hand } of score.notes) if (hand !== null && !marks.has(hand)) yield `the mark ${hand}`;
}

describe.each(families.map((family) => [family.id, family] as const))('%s', (_id, family) => {
  const fit = instruments.filter((instrument) => !family.unfit(instrument));
  const marksOf = (instrument: (typeof instruments)[number]) =>
    new Set([...instrument.hands.map(({ mark }) => mark), 'test']);

  it('writes on every instrument full bars, marks of its table, and no third as a fourth', () => {
    for (const instrument of thinned(fit, 8))
      for (const level of ['beginner', 'exacting'] as const) {
        const made = family.make(instrument, {}, level);
        if (!made.ok) throw new Error(made.problem);
        const { notes } = made.value;
        expect([instrument.id, ...wrongIn(made.value, marksOf(instrument))]).toEqual([instrument.id]);
        const spelled = spellerOf(made.value);
        for (let i = 1; i < notes.length; i++) {
          const [before, note] = [notes[i - 1]!, notes[i]!];
          const apart = before.breathAfter || [before, note].some(({ role }) => role === 'harmonic');
          if (apart || !Number.isInteger(before.written) || !Number.isInteger(note.written)) continue;
          if (oddness(spelled(i - 1), spelled(i)) > 0)
            throw new Error(`${instrument.id}: ${JSON.stringify([spelled(i - 1), spelled(i)])}`);
        }
      }
  });

  it('writes full bars and marks of its table whatever is set', () => {
    fc.assert(
      fc.property(
        fc
          .constantFrom(...fit)
          .chain((instrument) => fc.tuple(fc.constant(instrument), anyValues(family.specs, instrument))),
        ([instrument, values]) => {
          const made = family.make(instrument, values);
          if (!made.ok) throw new Error(made.problem);
          expect([...wrongIn(made.value, marksOf(instrument))]).toEqual([]);
        },
      ),
      { numRuns: runs(15) },
    );
  });
});
