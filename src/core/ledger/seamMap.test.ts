import { findInstrument } from '@/core/instruments';
import { limitsOf } from '@/core/verdict';
import { openersOf, reliability, seamHistory, seamMap, stretchesOf, turnsOf } from '.';
import { eightWeeks, rememberedOf, share, slurOf, START_DAY } from './memory.testing';

const flute = findInstrument('flute')!;
const limits = limitsOf('steady');
const NOW = START_DAY + 56;

describe('how well a seam holds', () => {
  const trials = (row: readonly boolean[], perDay = 3) =>
    row.map((clean, i) => ({ clean, day: Math.floor(i / perDay), take: `t${i}` }));

  it('is counted by hand: weights that halve in three weeks, Wilson on their effective number', () => {
    const old = { clean: false, day: 0, take: 'a' };
    const late = { clean: true, day: 21, take: 'b' };
    const found = reliability([old, late], 21);
    expect(found).toMatchObject({ clean: 1, of: 2 });
    expect(found.share.value).toBeCloseTo(2 / 3, 9);
    // (1 + ½)² / (1 + ¼) = 1.8 effective trials.
    const z2 = 1.959964 ** 2 / 1.8;
    expect((found.share.low + found.share.high) / 2).toBeCloseTo((2 / 3 + z2 / 2) / (1 + z2), 4);
    // Three weeks later half as much is known, of the same share.
    const later = reliability([old, late], 42);
    expect(later.share.value).toBeCloseTo(2 / 3, 9);
    expect(later.share.high - later.share.low).toBeGreaterThan(found.share.high - found.share.low);
  });

  it('is told with intervals that hold the truth 92 to 98 times of 100', () => {
    for (const truth of [0.5, 0.7, 0.85]) {
      const inside = share(400, (random) => {
        const played = eightWeeks(random, () => ({
          crossings: Array.from({ length: 4 }, () => slurOf(74, 76, random.next() < truth)),
        }));
        const { share: found } = seamHistory(played, 74, 76, limits, NOW).reliability;
        return found.low <= truth && truth <= found.high;
      });
      expect(inside).toBeGreaterThanOrEqual(0.92);
      expect(inside).toBeLessThanOrEqual(0.98);
    }
  });

  it('allows for good and bad days: crossings of one take are not as many witnesses', () => {
    const inside = share(400, (random) => {
      const played = eightWeeks(random, () => {
        const today = random.next() < 0.5 ? 0.95 : 0.45;
        return { crossings: Array.from({ length: 8 }, () => slurOf(74, 76, random.next() < today)) };
      });
      const { share: found } = seamHistory(played, 74, 76, limits, NOW).reliability;
      return found.low <= 0.7 && 0.7 <= found.high;
    });
    expect(inside).toBeGreaterThan(0.9);
  });

  it('turns to gold when earned, told at its take, and opens again', () => {
    const crossings = (row: readonly boolean[]) => row.map((clean) => slurOf(74, 76, clean));
    const good = Array.from({ length: 12 }, () => true);
    const bad = good.map((_, i) => i % 2 === 0);
    const played = rememberedOf(
      [good, good, good, good, good, bad, bad, bad].map((row, day) => ({ day, crossings: crossings(row) })),
    );
    const turns = turnsOf(played, flute, limits);
    expect(turns.map(({ turned, from, to }) => [turned, from, to])).toEqual([
      ['gold', 74, 76],
      ['open', 74, 76],
    ]);
    // 36 of 36 are the first whose interval begins above nine in ten.
    expect(turns[0]!.takeId).toBe('take-2');
    // Clean by a hair is not gold: the middle interval is beyond the level.
    const wide = rememberedOf(
      Array.from({ length: 5 }, (_, day) => ({
        day,
        crossings: good.map(() => slurOf(74, 76, true, { intervalCents: 13.9, stepDb: 7.2, spreadDb: 1 })),
      })),
    );
    expect(turnsOf(wide, flute, limits)).toEqual([]);
    expect(seamHistory(wide, 74, 76, limits, NOW).state).toBe('nearly');
  });

  it('is brought together by breaks, the weakest seam first, and follows the limits of the day', () => {
    const played = rememberedOf(
      Array.from({ length: 6 }, (_, day) => ({
        day,
        crossings: [
          slurOf(74, 76, true),
          slurOf(76, 74, day % 2 === 0),
          slurOf(74, 79, true, { dipDb: 7 }),
          slurOf(60, 64, false),
        ],
      })),
    );
    const breaks = seamMap(played, flute, limits, NOW);
    const first = breaks.find(({ seams }) => seams.length > 0)!;
    expect(first.below).toBeLessThan(first.above);
    expect(first.seams.map(({ from, to }) => `${from}-${to}`)).toEqual(['74-79', '76-74', '74-76']);
    expect(first.reliability).toMatchObject({ clean: 9, of: 18 });
    expect(openersOf(first.seams[1]!.crossed)).toEqual([{ kind: 'break-down', count: 3 }]);
    const lenient = seamMap(played, flute, limitsOf('beginner'), NOW).find(({ seams }) => seams.length > 0)!;
    expect(lenient.reliability).toMatchObject({ clean: 15, of: 18 });
    const stretches = stretchesOf(first.seams[1]!.crossed, 8);
    expect(stretches.reduce((sum, { of }) => sum + of, 0)).toBe(6);
  });

  it('lies by the mode of the tube, or by the hand where there are two views of it', () => {
    const played = rememberedOf([{ day: 0, crossings: [slurOf(73, 74, true), slurOf(75, 76, true)] }]);
    const counts = (view: 'mode' | 'hand') =>
      seamMap(played, flute, limits, NOW, view).map(({ below, reliability: { of } }) => [below, of]);
    expect(counts('mode')).toEqual([
      [75, 1],
      [85, 0],
    ]);
    expect(counts('hand')).toEqual([
      [73, 1],
      [85, 0],
    ]);
  });

  it('says nothing of nothing', () => {
    expect(reliability(trials([]), 3).share).toMatchObject({ low: 0, high: 1 });
    expect(seamMap([], flute, limits, NOW).every(({ state }) => state === 'few')).toBe(true);
  });
});
