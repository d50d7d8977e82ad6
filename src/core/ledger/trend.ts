import { groups } from 'd3-array';
import { mannKendall, median, normalQuantile, theilSen, type Estimate } from '@/core/base';
import type { Entry } from './entry';
import type { Played } from './played';

/** One sitting's reading of a figure: the middle of its takes. */
export interface TrendPoint {
  readonly day: number;
  readonly value: number;
  /** Lowest and highest of the sitting. */
  readonly low: number;
  readonly high: number;
  readonly takes: number;
  readonly takeId: string;
}

/** What became of a figure over a time. */
export interface Trend {
  readonly points: readonly TrendPoint[];
  /** From the first to the last point along the line, with an interval that allows for having looked again and again. */
  readonly change: Estimate | null;
  /** The line at its first and its last point; null without one. */
  readonly line: readonly [number, number] | null;
  /** `moved` only where the interval leaves zero out; `unknown`: too few sittings to say. */
  readonly verdict: 'moved' | 'no-change' | 'unknown';
}

/** Fewer sittings, or fewer days, make no trend. */
export const LEAST_SITTINGS = 5;
const LEAST_DAYS = 7;
const ERROR = 0.05;
/** A trend counts as looked at anew when it has grown by this. */
const GROWTH = 1.5;
/** Within one growth there are many looks; they are much alike. */
const LOOKS_ALIKE = 2;

/**
 * Error that one look may spend so that all looks together, however long a trend is followed, spend `ERROR`: the k-th growth
 * of the data gets ERROR / (k·(k + 1)), a sum that ends (alpha spending; Lan & DeMets 1983). @param asked how many trends are
 * looked at beside one another.
 */
function errorOf(sittings: number, asked: number): number {
  const growth = 1 + Math.floor(Math.log(sittings / LEAST_SITTINGS) / Math.log(GROWTH));
  return ERROR / (growth * (growth + 1)) / LOOKS_ALIKE / asked;
}

/** More points than this are brought together, so many sittings to one: all pairs of them are looked at. */
const MOST_POINTS = 120;

/** Rows in bins of one size, as few to a bin as give no more bins than `most`. */
function inBins<T>(rows: readonly T[], most: number): T[][] {
  const size = Math.max(1, Math.ceil(rows.length / most));
  return Array.from({ length: Math.ceil(rows.length / size) }, (_, i) =>
    rows.slice(i * size, (i + 1) * size),
  );
}

/** What a trend is read from: a figure's sittings in their order, and how clearly they move. */
export interface Course {
  readonly points: readonly TrendPoint[];
  /** In standard deviations of chance; 0 where nothing can be said. */
  readonly strength: number;
}

const isLong = (points: readonly TrendPoint[]) =>
  points.length >= LEAST_SITTINGS && points[points.length - 1]!.day - points[0]!.day >= LEAST_DAYS;
const daysOf = (points: readonly TrendPoint[]) => points.map(({ day }) => day - points[0]!.day);
const valuesOf = (points: readonly TrendPoint[]) => points.map(({ value }) => value);

/** Something of takes, sitting by sitting; takes that do not have it are passed over. */
export function courseOf(played: readonly Played[], of: (entry: Entry) => number | null): Course {
  const readings = played.flatMap((take) => {
    const value = of(take.entry);
    return value === null ? [] : [{ take, value }];
  });
  const sittings = groups(readings, ({ take }) => take.sitting).map(([, same]) => same);
  const points = inBins(sittings, MOST_POINTS).map((bin): TrendPoint => {
    const same = bin.flat();
    const values = same.map(({ value }) => value);
    return {
      day: same[0]!.take.day,
      value: median(values),
      low: Math.min(...values),
      high: Math.max(...values),
      takes: same.length,
      takeId: same[same.length - 1]!.take.entry.id,
    };
  });
  return {
    points,
    strength: isLong(points) ? Math.abs(mannKendall(daysOf(points), valuesOf(points))) : 0,
  };
}

/** The line through a course. @param asked how many are looked at beside one another. */
export function trendThrough({ points }: Course, asked = 1): Trend {
  const x = daysOf(points);
  const y = valuesOf(points);
  const slope = isLong(points) ? theilSen(x, y, normalQuantile(errorOf(points.length, asked))) : null;
  if (!slope) return { points, change: null, line: null, verdict: 'unknown' };
  const span = x[x.length - 1]!;
  const change = { value: slope.value * span, low: slope.low * span, high: slope.high * span };
  const start = median(y.map((value, i) => value - slope.value * x[i]!));
  return {
    points,
    change,
    line: [start, start + slope.value * span],
    verdict: change.low > 0 || change.high < 0 ? 'moved' : 'no-change',
  };
}

/** Something of takes, as told by the line through its sittings. */
export const trendOf = (played: readonly Played[], of: (entry: Entry) => number | null, asked = 1): Trend =>
  trendThrough(courseOf(played, of), asked);

/** Something that was changed on the way. */
export interface Change {
  readonly day: number;
  readonly of: 'reed' | 'cue' | 'school' | 'room';
  readonly to: string;
}

/** When reed, cue, school or room became others, oldest first; the first of each is no change. */
export function changesIn(played: readonly Played[]): Change[] {
  const changes: Change[] = [];
  for (const part of ['reed', 'cue', 'school', 'room'] as const) {
    let before: string | null = null;
    for (const { entry, day } of played) {
      const told = entry[part];
      if (!told) continue;
      if (before !== null && told !== before) changes.push({ day, of: part, to: told });
      before = told;
    }
  }
  return changes.sort((a, b) => a.day - b.day);
}
