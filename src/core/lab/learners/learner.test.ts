import { findInstrument } from '@/core/instruments';
import { scoreOfBlock } from '@/core/plan';
import { Learner, LEARNER_KINDS, takeCourse } from '.';

const flute = findInstrument('flute')!;
const ordinary = { ...LEARNER_KINDS[0]!, weakShare: 1 };
const made = scoreOfBlock(
  { family: 'just-this-seam', values: { from: 75, to: 76, times: 10 }, repeats: 1 },
  flute,
  'steady',
  'english',
);
const score = made.ok ? made.value : null;
/** The way up over the first break. */
const UP = 0;

const after = (days: readonly number[], seed = 3) => {
  const learner = new Learner(flute, ordinary, seed, 96);
  for (const day of days) learner.play(score!, day, 0);
  return learner;
};

it('learns by practice, less and less, and forgets what is left alone', () => {
  const at = (days: readonly number[]) => after(days).shareOf(UP, 20);
  expect(at([20])).toBeGreaterThan(at([]));
  expect(at([18, 19, 20])).toBeGreaterThan(at([20]));
  const gains = [0, 1, 2, 3].map((n) =>
    after(Array.from({ length: n }, (_, i) => 20 - i).reverse()).shareOf(UP, 20),
  );
  expect(gains[3]! - gains[2]!).toBeLessThan(gains[1]! - gains[0]!);
  expect(after([0]).shareOf(UP, 20)).toBeLessThan(after([0]).shareOf(UP, 1));
});

it('keeps longer what was spread over days than what was done in one', () => {
  expect(after([0, 4, 8, 12]).shareOf(UP, 30)).toBeGreaterThan(after([12, 12, 12, 12]).shareOf(UP, 30));
});

it('is the same from the same seed', () => {
  expect(after([1, 2]).shareOf(UP, 5)).toBe(after([1, 2]).shareOf(UP, 5));
});

it('is taught by what is remembered alone', () => {
  const seen: number[] = [];
  const block = {
    id: 'b',
    family: 'just-this-seam',
    values: { from: 75, to: 76 },
    repeats: 1,
    seconds: 60,
    why: { of: 'own' as const },
    tempoMoved: null,
    locked: false,
    skipped: false,
  };
  const { bySession } = takeCourse(
    { kind: { ...ordinary, comes: 1 }, instrument: flute, level: 'steady', days: 5, seed: 1, upTo: 96 },
    (played) => {
      seen.push(played.length);
      return [block];
    },
  );
  expect(seen).toEqual([0, 1, 2, 3, 4]);
  expect(bySession.map((session) => session.get('just-this-seam'))).toEqual([60, 60, 60, 60, 60]);
});
