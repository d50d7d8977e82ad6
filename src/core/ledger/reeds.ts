import { groups } from 'd3-array';
import { median, studentT, weighted, type Estimate } from '@/core/base';
import type { Limits } from '@/core/verdict';
import { FOLLOWED, type Followed } from './followed';
import type { Played } from './played';
import { reliability, type Reliability } from './reliability';
import { crossedIn } from './seamMap';
import { trendOf, type Trend } from './trend';

/** What a reed, or a set-up, is told by: how it speaks, holds and lies. */
const TOLD_BY = ['wobble', 'centre', 'purity', 'ending', 'window', 'gave-way'];
/** A middle is told of so many sittings or more. */
const LEAST_SITTINGS = 2;

/** A figure on one reed. */
export interface ReedFigure {
  readonly followed: Followed;
  /** Middle over its sittings with Student's interval; the interval is null of one sitting. */
  readonly middle: number;
  readonly interval: Estimate | null;
  readonly sittings: number;
  /** How it went while the reed was played. */
  readonly life: Trend;
}

/** A reed or set-up by all that was played on it. Hours count themselves. */
export interface Reed {
  readonly name: string;
  readonly takes: number;
  readonly sittings: number;
  readonly minutes: number;
  readonly firstDay: number;
  readonly lastDay: number;
  readonly slurs: Reliability;
  readonly figures: readonly ReedFigure[];
}

/** Reeds in the order that they were last played on, the latest first; takes that tell of none are left out. */
export function reedsOf(played: readonly Played[], limits: Limits): Reed[] {
  return groups(
    played.filter(({ entry }) => entry.reed !== ''),
    ({ entry }) => entry.reed,
  )
    .map(([name, same]): Reed => {
      const last = same[same.length - 1]!;
      const trials = crossedIn(same, limits).map(({ take, clean }) => ({
        clean,
        day: take.day,
        take: take.entry.id,
      }));
      return {
        name,
        takes: same.length,
        sittings: new Set(same.map(({ sitting }) => sitting)).size,
        minutes: same.reduce((sum, { entry }) => sum + entry.durationSeconds, 0) / 60,
        firstDay: same[0]!.day,
        lastDay: last.day,
        slurs: reliability(trials, last.day),
        figures: FOLLOWED.filter(({ id }) => TOLD_BY.includes(id)).flatMap((followed) =>
          figureOn(same, followed),
        ),
      };
    })
    .sort((a, b) => b.lastDay - a.lastDay);
}

function figureOn(played: readonly Played[], followed: Followed): ReedFigure[] {
  const having = played.filter(({ entry }) => followed.of(entry) !== null);
  const sittings = groups(having, ({ sitting }) => sitting).map(([, same]) =>
    median(same.map(({ entry }) => followed.of(entry)!)),
  );
  if (sittings.length === 0) return [];
  const { mean, variance } = weighted(
    sittings,
    sittings.map(() => 1),
  );
  const reach =
    variance === null || sittings.length < LEAST_SITTINGS
      ? null
      : studentT(Math.max(3, sittings.length - 1)) * Math.sqrt(variance / sittings.length);
  return [
    {
      followed,
      middle: mean,
      interval: reach === null ? null : { value: mean, low: mean - reach, high: mean + reach },
      sittings: sittings.length,
      life: trendOf(having, followed.of, TOLD_BY.length),
    },
  ];
}
