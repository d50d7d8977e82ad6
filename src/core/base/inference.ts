/** A number with the interval that it lies in 19 times of 20, unless said otherwise. */
export interface Estimate {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

export const Z95 = 1.959964;

/**
 * Upper quantile of Student's t by the expansion about the normal one (Abramowitz & Stegun 26.7.5); within 1 % from three
 * degrees of freedom on. @param z quantile of the standard normal distribution, such as `Z95`.
 */
export function studentT(degrees: number, z = Z95): number {
  const [z2, v] = [z * z, degrees];
  const g1 = (z2 + 1) / 4;
  const g2 = ((5 * z2 + 16) * z2 + 3) / 96;
  const g3 = (((3 * z2 + 19) * z2 + 17) * z2 - 15) / 384;
  const g4 = ((((79 * z2 + 776) * z2 + 1482) * z2 - 1920) * z2 - 945) / 92_160;
  return z * (1 + g1 / v + g2 / v ** 2 + g3 / v ** 3 + g4 / v ** 4);
}

/** Quantile of the standard normal distribution for a two-sided error `alpha` (Acklam's rational approximation, tails ≤ 0.05). */
export function normalQuantile(alpha: number): number {
  const q = Math.sqrt(-2 * Math.log(alpha / 2));
  const c = [-7.784894002430293e-3, -0.3223964580411365, -2.400758277161838, -2.549732539343734];
  const d = [7.784695709041462e-3, 0.3224671290700398, 2.445134137142996, 3.754408661907416];
  const above = (((c[0]! * q + c[1]!) * q + c[2]!) * q + c[3]!) * q + 4.374664141464968;
  return -(above * q + 2.938163982698783) / ((((d[0]! * q + d[1]!) * q + d[2]!) * q + d[3]!) * q + 1);
}

/**
 * Wilson's score interval of a proportion (Wilson 1927). @param of may be a fraction: an effective number of trials.
 * Without a trial everything is possible.
 */
export function wilson(share: number, of: number, z = Z95): Estimate {
  if (of <= 0) return { value: share, low: 0, high: 1 };
  const z2 = (z * z) / of;
  const centre = (share + z2 / 2) / (1 + z2);
  const half = (z * Math.sqrt((share * (1 - share)) / of + z2 / (4 * of))) / (1 + z2);
  return { value: share, low: Math.max(0, centre - half), high: Math.min(1, centre + half) };
}

/** Variance of Kendall's S with ties in x (Kendall 1975). */
function kendallVariance(x: readonly number[]): number {
  const ties = new Map<number, number>();
  for (const each of x) ties.set(each, (ties.get(each) ?? 0) + 1);
  const term = (k: number) => k * (k - 1) * (2 * k + 5);
  return (term(x.length) - [...ties.values()].reduce((sum, k) => sum + term(k), 0)) / 18;
}

/** How far pairs of points agree in rising or falling, in standard deviations of what chance would do (Mann 1945, Kendall 1975). */
export function mannKendall(x: readonly number[], y: readonly number[]): number {
  let s = 0;
  for (let i = 0; i < x.length; i++)
    for (let j = i + 1; j < x.length; j++) s += Math.sign(x[j]! - x[i]!) * Math.sign(y[j]! - y[i]!);
  return s / Math.sqrt(kendallVariance(x));
}

/**
 * Theil–Sen slope of y over x with Sen's interval from the variance of Kendall's S, ties in x counted (Sen 1968).
 * Null for fewer than four points, or where x does not move.
 */
export function theilSen(x: readonly number[], y: readonly number[], z = Z95): Estimate | null {
  const n = x.length;
  if (n < 4) return null;
  const all = new Float64Array((n * (n - 1)) / 2);
  let count = 0;
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++) if (x[j] !== x[i]) all[count++] = (y[j]! - y[i]!) / (x[j]! - x[i]!);
  if (count < 3) return null;
  // Numbers in an array of numbers are put in order by themselves, several times as fast as by a function.
  const slopes = all.subarray(0, count).sort();
  const reach = z * Math.sqrt(kendallVariance(x));
  const at = (rank: number) => slopes[Math.min(slopes.length - 1, Math.max(0, Math.round(rank)))]!;
  return {
    value: (slopes[(count - 1) >> 1]! + slopes[count >> 1]!) / 2,
    low: at((slopes.length - reach) / 2 - 1),
    high: at((slopes.length + reach) / 2),
  };
}

/** Mean of values that come with weights, Kish's effective number of them, and their spread about it (null of fewer than two). */
export function weighted(
  values: readonly number[],
  weights: readonly number[],
): { mean: number; effective: number; weight: number; variance: number | null } {
  let [weight, squares, sum] = [0, 0, 0];
  values.forEach((value, i) => {
    weight += weights[i]!;
    squares += weights[i]! ** 2;
    sum += weights[i]! * value;
  });
  if (weight === 0) return { mean: NaN, effective: 0, weight, variance: null };
  const mean = sum / weight;
  const about = values.reduce((all, value, i) => all + weights[i]! * (value - mean) ** 2, 0);
  const freedom = weight - squares / weight;
  return {
    mean,
    weight,
    effective: weight ** 2 / squares,
    variance: values.length < 2 || freedom <= 1e-9 ? null : about / freedom,
  };
}
