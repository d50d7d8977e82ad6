import { normalQuantile, wilson } from '@/core/base';
import { toldOf, type Played } from './played';
import type { Crossed } from './seamMap';

/** Fewer crossings on either side are not compared. */
const LEAST = 5;
const ERROR = 0.05;

/** A count of clean ones. */
export interface Counted {
  readonly clean: number;
  readonly of: number;
}

/** What was so on some takes and not on others, and how a seam held on each. */
export interface Alongside {
  readonly of: 'reed' | 'cue' | 'room';
  readonly told: string;
  readonly with: Counted;
  readonly without: Counted;
  /** The difference is no greater than chance would make it among so many that were looked at. */
  readonly byChance: boolean;
}

const countOf = (crossed: readonly Crossed[]): Counted => ({
  clean: crossed.filter(({ clean }) => clean).length,
  of: crossed.length,
});

/**
 * What went along with a seam that held or opened, the greatest difference first. Not what made it hold: that a comparison
 * tells. Differences of two shares by their Wilson intervals (Newcombe 1998, method 10), the error shared among all of them.
 */
export function alongside(crossed: readonly Crossed[]): Alongside[] {
  const played: Played[] = [...new Set(crossed.map(({ take }) => take))];
  const pairs = (['cue', 'reed', 'room'] as const).flatMap((of) => {
    const all = toldOf(played, of);
    // Of two rooms, or two reeds, the one says what the other says.
    const isEither = all.length === 2 && played.every(({ entry }) => Boolean(entry[of]));
    return (isEither ? all.slice(0, 1) : all).flatMap((told) => {
      const there = crossed.filter(({ take }) => take.entry[of] === told);
      const others = crossed.filter(({ take }) => take.entry[of] !== told);
      return there.length < LEAST || others.length < LEAST
        ? []
        : [{ of, told, with: countOf(there), without: countOf(others) }];
    });
  });
  const z = normalQuantile(ERROR / Math.max(1, pairs.length));
  const compared = pairs.map((pair) => {
    const a = wilson(pair.with.clean / pair.with.of, pair.with.of, z);
    const b = wilson(pair.without.clean / pair.without.of, pair.without.of, z);
    const difference = a.value - b.value;
    const low = difference - Math.hypot(a.value - a.low, b.high - b.value);
    const high = difference + Math.hypot(a.high - a.value, b.value - b.low);
    return { pair: { ...pair, byChance: low <= 0 && high >= 0 }, by: Math.abs(difference) };
  });
  return compared
    .sort((a, b) => Number(a.pair.byChance) - Number(b.pair.byChance) || b.by - a.by)
    .map(({ pair }) => pair);
}
