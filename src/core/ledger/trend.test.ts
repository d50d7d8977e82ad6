import { Random } from '@/core/base';
import { FOLLOWED, followedTrends, OTHERS, trendOf } from '.';
import { eightWeeks, rememberedOf, share } from './memory.testing';

describe('what became of a figure', () => {
  const hold = FOLLOWED.find(({ id }) => id === 'best-hold')!.of;
  const holds = (random: Random, of: (week: number) => number, noise: number) =>
    eightWeeks(random, (day) => ({
      row: { figures: { 'best-hold': [of(day / 7) + noise * random.normal(), null, 1, null] } },
    }));

  it('is not claimed of a stalled story more than 5 times of 100, however often one looks', () => {
    const claimed = share(300, (random) => {
      const played = holds(random, () => 12, 2);
      return played.some((_, i) => trendOf(played.slice(0, i + 1), hold).verdict === 'moved');
    });
    expect(claimed).toBeLessThanOrEqual(0.05);
  });

  it('is found where it is, with the right sign and amount', () => {
    const runs = 100;
    let [inside, moved] = [0, 0];
    for (let seed = 0; seed < runs; seed++) {
      const trend = trendOf(
        holds(new Random(seed), (week) => 10 + week, 2),
        hold,
      );
      const truth = (trend.points.at(-1)!.day - trend.points[0]!.day) / 7;
      if (trend.change!.low <= truth && truth <= trend.change!.high) inside++;
      if (trend.verdict === 'moved' && trend.change!.value > 0) moved++;
    }
    expect(inside / runs).toBeGreaterThan(0.95);
    expect(moved / runs).toBeGreaterThan(0.85);
  });

  it('is unknown of four sittings, and of many within a few days', () => {
    const few = rememberedOf(
      [0, 10, 20, 30].map((day) => ({ day, row: { figures: { 'best-hold': [day, null, 1, null] } } })),
    );
    expect(trendOf(few, hold).verdict).toBe('unknown');
    const dense = rememberedOf(
      Array.from({ length: 12 }, (_, i) => ({
        day: i / 2,
        row: { figures: { 'best-hold': [i, null, 1, null] } },
      })),
    );
    expect(trendOf(dense, hold).verdict).toBe('unknown');
  });

  it('is not claimed of any of twenty figures in 5 stalled logs of 100', () => {
    const ids = FOLLOWED.filter(({ id }) => id !== 'clean-tempo').slice(0, 20);
    const claimed = share(100, (random) => {
      const played = eightWeeks(random, () => ({
        row: { figures: Object.fromEntries(ids.map(({ id }) => [id, [50 + random.normal(), null, 1, 100]])) },
      }));
      return followedTrends(played).some(({ verdict }) => verdict === 'better' || verdict === 'worse');
    });
    expect(claimed).toBeLessThanOrEqual(0.05);
  });

  it('is called better by its own way: more, less, or nearer to zero', () => {
    const figures = (week: number) => ({
      'best-hold': [8 + week, null, 1, null] as const,
      wobble: [3 + week, null, 1, null] as const,
      leaning: [-20 + 2 * week, null, 1, null] as const,
    });
    const played = eightWeeks(new Random(2), (day) => ({
      row: { figures: figures(day / 7), tempo: 60 + day, faults: {} },
    }));
    const found = Object.fromEntries(
      followedTrends(played).map(({ followed, verdict }) => [followed.id, verdict]),
    );
    expect(found).toEqual({ 'best-hold': 'better', wobble: 'worse', leaning: 'better' });
  });

  it('is told without better or worse of what has no better way, and of each figure in one place only', () => {
    const shared = OTHERS.filter(({ id }) => FOLLOWED.some((each) => each.id === id));
    expect(shared).toEqual([]);
    const { id } = OTHERS[0]!;
    const played = eightWeeks(new Random(3), (day) => ({
      row: { figures: { [id]: [-day, null, 1, null] } },
    }));
    expect(followedTrends(played)).toEqual([]);
    const [found] = followedTrends(played, OTHERS);
    expect(found).toMatchObject({ verdict: 'moved', followed: { id } });
    expect(found!.trend.line![1]).toBeLessThan(found!.trend.line![0]);
  });

  it('counts shares as shares', () => {
    const played = rememberedOf([{ day: 0, row: { figures: { 'slurs-clean': [3, null, 4, 4] } } }]);
    expect(FOLLOWED.find(({ id }) => id === 'slurs-clean')!.of(played[0]!.entry)).toBe(75);
  });
});
