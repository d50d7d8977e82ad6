import { greatest, mean } from 'd3-array';
import { clamp, type Decibels } from '@/core/base';

/** Partials this far under the strongest are not counted, nor how far one goes below. */
const FAINT: Decibels = 35;
/** No partial counts for more than this. */
const MOST: Decibels = 20;
/** So many partials that a mode lacks tell all there is to tell. */
const ENOUGH = 4;

/** A mode of four times the frequency has to stand out by so much more than others. */
const FARTHER: Decibels = 2.5;

/** How a mode that has every `multiple`-th partial of a note stands out of it for a while. */
export interface Contrast {
  readonly multiple: number;
  /** How much more its partials grow than the others when it comes, and fall than they when it goes: the less of the two. */
  readonly standsOut: Decibels;
  /** By how much, in the mean, the note's other partials fall when it comes and grow when it goes, and those that it has grow. */
  readonly othersFall: Decibels;
  readonly othersReturn: Decibels;
  readonly ownGrow: Decibels;
}

/**
 * Which of some modes, each two or more times higher than a note, is heard best in its place: in a room the echo keeps all partials of
 * the note, but those that the mode lacks fall when it comes and grow again when it goes, against those that it has. Each
 * partial has one voice, as a room lifts one and hides another; few partials count for less. Null where there is nothing to compare.
 * @param before mean powers of the note's partials 1, 2, …, as `during` and `after`; NaN where unknown.
 */
export function contrastOf(
  multiples: readonly number[],
  before: Float64Array,
  during: Float64Array,
  after: Float64Array,
): Contrast | null {
  const strongest = Math.max(...before.map((power, k) => Math.max(power || 0, during[k] || 0)));
  const faint = strongest * 10 ** (-FAINT / 10);
  const isKnown = (k: number) => Math.max(before[k]!, during[k]!) > faint && !Number.isNaN(after[k]!);
  const change = (from: number, to: number): Decibels =>
    clamp(10 * Math.log10(Math.max(to, faint) / Math.max(from, faint)), -MOST, MOST);
  const known = Array.from(during, (power, k) => ({
    partial: k + 1,
    comes: change(before[k]!, power),
    goes: change(power, after[k]!),
  })).filter(({ partial }) => isKnown(partial - 1));
  const contrasts = multiples.flatMap((multiple) => {
    const own = known.filter(({ partial }) => partial % multiple === 0);
    const others = known.filter(({ partial }) => partial % multiple > 0);
    if (own.length === 0 || others.length === 0) return [];
    const ownGrow = mean(own, ({ comes }) => comes)!;
    const othersFall = -mean(others, ({ comes }) => comes)!;
    const othersReturn = mean(others, ({ goes }) => goes)!;
    const least = Math.min(ownGrow + othersFall, othersReturn - mean(own, ({ goes }) => goes)!);
    const standsOut = least * Math.sqrt(Math.min(1, others.length / ENOUGH));
    return [{ multiple, standsOut, othersFall, othersReturn, ownGrow }];
  });
  // What has every second partial has every fourth.
  return greatest(contrasts, ({ standsOut, multiple }) => standsOut - (multiple === 4 ? FARTHER : 0)) ?? null;
}
