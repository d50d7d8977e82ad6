import { Cholesky } from '@/core/base';
import type { Hertz, Seconds } from '@/core/tuning';

/** Against the energy of a tone: what cannot be told apart is left small. */
const RIDGE = 1e-3;

/**
 * Amplitudes of tones of known frequencies that sound together, by weighted least squares under Hann's window. Because their
 * frequencies are known, they may lie nearer together than a spectrum of the same window could tell apart.
 */
export class ToneFit {
  /** Samples on each side of the centre. */
  private readonly half: number;
  private readonly window: Float64Array;
  /** A row for each tone: its cosine and its sine at the centre and on one side of it. */
  private readonly cosines: Float64Array[];
  private readonly sines: Float64Array[];
  /** The centred window is even: cosines and sines are fitted by themselves. */
  private readonly even: Cholesky;
  private readonly odd: Cholesky;
  private readonly sums: Float64Array;
  private readonly differences: Float64Array;

  /** @throws RangeError when the window holds fewer samples than the tones have unknowns. */
  constructor(
    private readonly rate: Hertz,
    frequencies: readonly Hertz[],
    windowSeconds: Seconds,
  ) {
    const half = Math.floor((windowSeconds * rate) / 2);
    const count = 2 * half + 1;
    if (count < 2 * frequencies.length)
      throw new RangeError(`${frequencies.length} tones cannot be fitted to ${count} samples`);
    const slope = Math.PI / (half + 1);
    const turns = frequencies.map((f) => (2 * Math.PI * f) / rate);
    this.half = half;
    this.window = Float64Array.from({ length: half + 1 }, (_, i) => 0.5 + 0.5 * Math.cos(slope * i));
    this.cosines = turns.map((turn) => Float64Array.from({ length: half + 1 }, (_, i) => Math.cos(turn * i)));
    this.sines = turns.map((turn) => Float64Array.from({ length: half + 1 }, (_, i) => Math.sin(turn * i)));
    this.sums = new Float64Array(half + 1);
    this.differences = new Float64Array(half + 1);
    const dirichlet = (w: number) =>
      Math.abs(Math.sin(w / 2)) < 1e-9 ? count : Math.sin((count * w) / 2) / Math.sin(w / 2);
    const windowAt = (w: number) => 0.5 * dirichlet(w) + 0.25 * (dirichlet(w - slope) + dirichlet(w + slope));
    const products = (sign: 1 | -1) => (i: number, k: number) =>
      0.5 * (windowAt(turns[i]! - turns[k]!) + sign * windowAt(turns[i]! + turns[k]!)) +
      (i === k ? RIDGE * windowAt(0) : 0);
    this.even = new Cholesky(turns.length, products(1));
    this.odd = new Cholesky(turns.length, products(-1));
  }

  /** @returns amplitudes around a moment, in the order of the frequencies; what lies outside the sound reads as silence. */
  at(sound: Float32Array, seconds: Seconds): Float64Array {
    const { half, window, sums, differences } = this;
    const centre = Math.round(seconds * this.rate);
    for (let i = 0; i <= half; i++) {
      const after = sound[centre + i] ?? 0;
      const before = i > 0 ? (sound[centre - i] ?? 0) : 0;
      sums[i] = window[i]! * (after + before);
      differences[i] = window[i]! * (after - before);
    }
    const cos = Float64Array.from(this.cosines, (row) => dot(row, sums));
    const sin = Float64Array.from(this.sines, (row) => dot(row, differences));
    this.even.solve(cos);
    this.odd.solve(sin);
    return cos.map((re, k) => Math.hypot(re, sin[k]!));
  }
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}
