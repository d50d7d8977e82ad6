import * as fc from 'fast-check';
import { withoutNulls } from './nulls';
import type { Plateau } from './plateau';

const HOP = 0.005;

/** Three plateaus, one after the other, of so many frames and at such pitches. */
function parts(lengths: readonly number[], pitches: readonly number[], joined = true): Plateau[] {
  let to = 0;
  return lengths.map((length, i) => {
    const from = to;
    to += length;
    return { from, to, pitch: pitches[i]!, joined: joined && i > 0 };
  });
}

const brief = fc.integer({ min: 2, max: 7 });
const leap = fc.integer({ min: -200, max: 200 }).map((cents) => cents / 100);
const apart = fc.integer({ min: -80, max: 80 }).map((cents) => cents / 100);

test('a moment in which the pitch leaps away and back belongs to the tone', () => {
  fc.assert(
    fc.property(brief, leap, apart, (length, away, back) => {
      const [first, last, ...more] = withoutNulls(parts([40, length, 40], [60, 60 + away, 60 + back]), HOP);
      expect(more).toEqual([]);
      expect(first).toEqual({ from: 0, to: 40 + length, pitch: 60, joined: false });
      expect(last).toMatchObject({ from: 40 + length, pitch: 60 + back });
    }),
  );
});

test.each([
  ['that stays away for longer', [40, 8, 40], [60, 61.5, 60], true],
  ['of another mode', [40, 5, 40], [60, 72, 60], true],
  ['on the way to another note', [40, 5, 40], [60, 61, 62], true],
  ['between two silences', [40, 5, 40], [60, 61.5, 60], false],
])('one %s does not', (_, lengths, pitches, joined) => {
  const all = parts(lengths, pitches, joined);
  expect(withoutNulls(all, HOP)).toEqual(all);
});
