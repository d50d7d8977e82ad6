import { median } from 'd3-array';

/** Points that a pairwise slope is taken over at most; more add cost and nothing else. */
const MOST_POINTS = 160;

/**
 * Theil–Sen slope of equally spaced values, per step: the median of all pairwise slopes (Theil 1950, Sen 1968).
 * NaN values are passed over; NaN when fewer than three are left.
 */
export function robustSlope(values: ArrayLike<number>): number {
  const stride = Math.max(1, Math.ceil(values.length / MOST_POINTS));
  const slopes: number[] = [];
  for (let i = 0; i < values.length; i += stride) {
    if (Number.isNaN(values[i]!)) continue;
    for (let j = i + stride; j < values.length; j += stride) {
      const slope = (values[j]! - values[i]!) / (j - i);
      if (!Number.isNaN(slope)) slopes.push(slope);
    }
  }
  return slopes.length < 3 ? NaN : (median(slopes) ?? NaN);
}

/** Values less their robust line; NaN stays NaN. */
export function detrended(values: ArrayLike<number>, slope: number): Float64Array {
  const flat = Float64Array.from({ length: values.length }, (_, i) => values[i]! - slope * i);
  const middle = median(flat) ?? NaN;
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
