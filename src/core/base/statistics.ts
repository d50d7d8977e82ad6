import { quickselect } from 'd3-array';

/** Points that a pairwise slope is taken over at most; more add cost and nothing else. */
const MOST_POINTS = 60;

/** Middle of the values, the mean of the two middle ones of an even number; NaN values passed over, NaN when none are left. */
export function median(values: ArrayLike<number>): number {
  return quantile(values, 0.5);
}

/** Quantile `p` (0 … 1), interpolated between neighbours; NaN values passed over, NaN when none are left. */
export function quantile(values: ArrayLike<number>, p: number): number {
  // d3's own `quantile` reads through a generator, which costs ten times as much on the columns of a take.
  const known = new Float64Array(values.length);
  let count = 0;
  for (let i = 0; i < values.length; i++) {
    const value = values[i]!;
    if (!Number.isNaN(value)) known[count++] = value;
  }
  if (count === 0) return NaN;
  const place = (count - 1) * p;
  const below = Math.floor(place);
  quickselect(known, below, 0, count - 1);
  let above = Infinity;
  if (below + 1 === count) return known[below]!;
  for (let i = below + 1; i < count; i++) above = Math.min(above, known[i]!);
  return known[below]! + (above - known[below]!) * (place - below);
}

/**
 * Theil–Sen slope of equally spaced values, per step: the median of all pairwise slopes (Theil 1950, Sen 1968).
 * NaN values are passed over; NaN when fewer than three are left.
 */
export function robustSlope(values: ArrayLike<number>): number {
  const stride = Math.max(1, Math.ceil(values.length / MOST_POINTS));
  const points = Math.ceil(values.length / stride);
  const slopes = new Float64Array((points * (points - 1)) / 2);
  let count = 0;
  for (let i = 0; i < values.length; i += stride) {
    if (Number.isNaN(values[i]!)) continue;
    for (let j = i + stride; j < values.length; j += stride) {
      const slope = (values[j]! - values[i]!) / (j - i);
      if (!Number.isNaN(slope)) slopes[count++] = slope;
    }
  }
  return count < 3 ? NaN : median(slopes.subarray(0, count));
}

/**
 * Theil–Sen slope of y over x, of pairs that lie at least `leastStep` apart in x; more distant pairs say more about a
 * slope than near ones, whose noise swamps it. NaN when fewer than three pairs are left.
 */
export function robustSlopeOver(x: ArrayLike<number>, y: ArrayLike<number>, leastStep: number): number {
  const stride = Math.max(1, Math.ceil(x.length / MOST_POINTS));
  const slopes: number[] = [];
  for (let i = 0; i < x.length; i += stride) {
    for (let j = i + stride; j < x.length; j += stride) {
      const step = x[j]! - x[i]!;
      const slope = (y[j]! - y[i]!) / step;
      if (Math.abs(step) >= leastStep && !Number.isNaN(slope)) slopes.push(slope);
    }
  }
  return slopes.length < 3 ? NaN : median(slopes);
}

/** Values less their robust line; NaN stays NaN. */
export function detrended(values: ArrayLike<number>, slope: number): Float64Array {
  const flat = Float64Array.from({ length: values.length }, (_, i) => values[i]! - slope * i);
  const middle = median(flat);
  return flat.map((value) => value - middle);
}

/** Root mean square, NaN values passed over. */
export function rms(values: ArrayLike<number>): number {
  let sum = 0;
  let count = 0;
  for (let i = 0; i < values.length; i++) {
    const value = values[i]!;
    if (Number.isNaN(value)) continue;
    sum += value * value;
    count++;
  }
  return count ? Math.sqrt(sum / count) : NaN;
}

/** Least-squares line through points. With fewer than two places on x the slope is 0. */
export function leastSquares(
  x: readonly number[],
  y: readonly number[],
): { slope: number; intercept: number } {
  const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
  const [meanX, meanY] = [mean(x), mean(y)];
  let xy = 0;
  let xx = 0;
  x.forEach((each, i) => {
    xy += (each - meanX) * (y[i]! - meanY);
    xx += (each - meanX) ** 2;
  });
  const slope = xx > 0 ? xy / xx : 0;
  return { slope, intercept: meanY - slope * meanX };
}

/** A value brought within limits. */
export const clamp = (value: number, low: number, high: number): number =>
  Math.min(high, Math.max(low, value));
