import { groups } from 'd3-array';
import { leastSquares, studentT, weighted, type Estimate } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import { readingsOf } from './noteMap';
import { usualOf } from './normal';
import type { Played } from './played';

/** An effect is told of so many sittings or more. */
const LEAST_SITTINGS = 4;
const LEAST_STEP_DB = 4;
/** Warming up is over after so many minutes. */
const WARM_MINUTES = 20;

/** Mean over sittings with Student's interval; null of too few. */
function overSittings(values: readonly number[]): (Estimate & { sittings: number }) | null {
  if (values.length < LEAST_SITTINGS) return null;
  const { mean, variance } = weighted(
    values,
    values.map(() => 1),
  );
  const reach = studentT(values.length - 1) * Math.sqrt((variance ?? 0) / values.length);
  return { value: mean, low: mean - reach, high: mean + reach, sittings: values.length };
}

/** How the pitch goes with the level: cents for 10 dB more, of notes that were played at two levels in one sitting. */
export function loudnessEffect(played: readonly Played[]): (Estimate & { sittings: number }) | null {
  const slopes = groups(played, ({ sitting }) => sitting).flatMap(([, takes]) => {
    const cells = takes.flatMap(({ notes }) => notes.filter(({ levelDb }) => levelDb !== null));
    const byNote = groups(cells, ({ written }) => written).flatMap(([, same]) => {
      const [x, y] = [same.map(({ levelDb }) => levelDb!), same.map(({ cents }) => cents)];
      return Math.max(...x) - Math.min(...x) < LEAST_STEP_DB ? [] : [10 * leastSquares(x, y).slope];
    });
    return byNote.length === 0 ? [] : [byNote.reduce((a, b) => a + b, 0) / byNote.length];
  });
  return overSittings(slopes);
}

/** How far minutes have to differ at the same notes, as a sum of squares, before a slope is told. */
const LEAST_APART = 20 * 5 ** 2;

/**
 * How far the instrument rises while it warms: cents over the first twenty minutes of a sitting. The slope within notes (what
 * is always played first must not be taken for cold), its error from sitting to sitting.
 */
export function warmUpEffect(
  played: readonly Played[],
  instrument: Instrument,
): (Estimate & { sittings: number }) | null {
  const pairs = [...readingsOf(played, instrument, usualOf(played)).values()].flatMap((same) => {
    const minutes = same.map(({ take }) => Math.min(WARM_MINUTES, take.minutesIn));
    const [x, y] = [mean(minutes), mean(same.map(({ cents }) => cents))];
    return same.map(({ take, cents }, i) => ({ sitting: take.sitting, x: minutes[i]! - x, y: cents - y }));
  });
  const apart = pairs.reduce((sum, { x }) => sum + x * x, 0);
  const sittings = groups(pairs, ({ sitting }) => sitting);
  if (apart < LEAST_APART || sittings.length < LEAST_SITTINGS) return null;
  const slope = pairs.reduce((sum, { x, y }) => sum + x * y, 0) / apart;
  // Sandwich over sittings: notes of one day rise and fall together.
  const scores = sittings.map(([, same]) => same.reduce((sum, { x, y }) => sum + x * (y - slope * x), 0));
  const n = sittings.length;
  const error = Math.sqrt((n / (n - 1)) * scores.reduce((sum, each) => sum + each * each, 0)) / apart;
  const reach = WARM_MINUTES * studentT(n - 1) * error;
  const value = WARM_MINUTES * slope;
  return { value, low: value - reach, high: value + reach, sittings: n };
}

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
