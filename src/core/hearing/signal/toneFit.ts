import { Cholesky, type Hertz, type Seconds } from '@/core/base';

/** Against the energy of a tone: what cannot be told apart is left small. */
const RIDGE = 1e-3;

/** A tone at the centre of a window and on one side of it, and what it has in common with moments that were looked at. */
interface Row {
  readonly cosines: Float64Array;
  readonly sines: Float64Array;
  readonly seen: Map<number, { readonly re: number; readonly im: number }>;
}

/**
 * A sound under Hann's window around moments. What fits of several sets of tones have in common is worked out once: they share it
 * by sharing this.
 */
export class WindowedSound {
  /** Samples on each side of the centre. */
  readonly half: number;
  private readonly window: Float64Array;
  private readonly rows = new Map<Hertz, Row>();
  private readonly sums: Float64Array;
  private readonly differences: Float64Array;

  constructor(
    private readonly sound: Float32Array,
    readonly rate: Hertz,
    windowSeconds: Seconds,
  ) {
    this.half = Math.floor((windowSeconds * rate) / 2);
    const { half, slope } = this;
    this.window = Float64Array.from({ length: half + 1 }, (_, i) => 0.5 + 0.5 * Math.cos(slope * i));
    this.sums = new Float64Array(half + 1);
    this.differences = new Float64Array(half + 1);
  }

  /** Samples in the window. */
  get count(): number {
    return 2 * this.half + 1;
  }

  /** Phase of the window, radians a sample. */
  get slope(): number {
    return Math.PI / (this.half + 1);
  }

  rowOf(hertz: Hertz): Row {
    const known = this.rows.get(hertz);
    if (known) return known;
    const turn = (2 * Math.PI * hertz) / this.rate;
    const [cosines, sines] = [new Float64Array(this.half + 1), new Float64Array(this.half + 1)];
    cosines[0] = 1;
    const [re, im] = [Math.cos(turn), Math.sin(turn)];
    for (let i = 0; i < this.half; i++) {
      cosines[i + 1] = re * cosines[i]! - im * sines[i]!;
      sines[i + 1] = im * cosines[i]! + re * sines[i]!;
    }
    const row = { cosines, sines, seen: new Map() };
    this.rows.set(hertz, row);
    return row;
  }

  /** Products of tones with the sound around a moment, cosines and sines; what lies outside the sound reads as silence. */
  products(
    rows: readonly Row[],
    seconds: Seconds,
  ): { readonly cos: Float64Array; readonly sin: Float64Array } {
    const centre = Math.round(seconds * this.rate);
    const cos = new Float64Array(rows.length);
    const sin = new Float64Array(rows.length);
    let isRead = false;
    rows.forEach((row, k) => {
      let product = row.seen.get(centre);
      if (!product) {
        if (!isRead) this.read(centre);
        isRead = true;
        product = { re: dot(row.cosines, this.sums), im: dot(row.sines, this.differences) };
        row.seen.set(centre, product);
      }
      cos[k] = product.re;
      sin[k] = product.im;
    });
    return { cos, sin };
  }

  /** The window is even: so only sums and differences of both sides count. */
  private read(centre: number): void {
    const { half, sound, window, sums, differences } = this;
    for (let i = 0; i <= half; i++) {
      const after = sound[centre + i] ?? 0;
      const before = i > 0 ? (sound[centre - i] ?? 0) : 0;
      sums[i] = window[i]! * (after + before);
      differences[i] = window[i]! * (after - before);
    }
  }
}

/**
 * Amplitudes of tones of known frequencies that sound together, by weighted least squares under Hann's window. Because their
 * frequencies are known, they may lie nearer together than a spectrum of the same window could tell apart.
 */
export class ToneFit {
  private readonly rows: readonly Row[];
  /** The centred window is even: cosines and sines are fitted by themselves. */
  private readonly even: Cholesky;
  private readonly odd: Cholesky;

  /** @throws RangeError when the window holds fewer samples than the tones have unknowns. */
  constructor(
    private readonly windowed: WindowedSound,
    frequencies: readonly Hertz[],
  ) {
    const { count, slope, rate } = windowed;
    if (count < 2 * frequencies.length)
      throw new RangeError(`${frequencies.length} tones cannot be fitted to ${count} samples`);
    this.rows = frequencies.map((hertz) => windowed.rowOf(hertz));
    const turns = frequencies.map((f) => (2 * Math.PI * f) / rate);
    const dirichlet = (w: number) =>
      Math.abs(Math.sin(w / 2)) < 1e-9 ? count : Math.sin((count * w) / 2) / Math.sin(w / 2);
    const windowAt = (w: number) => 0.5 * dirichlet(w) + 0.25 * (dirichlet(w - slope) + dirichlet(w + slope));
    const products = (sign: 1 | -1) => (i: number, k: number) =>
      0.5 * (windowAt(turns[i]! - turns[k]!) + sign * windowAt(turns[i]! + turns[k]!)) +
      (i === k ? RIDGE * windowAt(0) : 0);
    this.even = new Cholesky(turns.length, products(1));
    this.odd = new Cholesky(turns.length, products(-1));
  }

  /** @returns amplitudes around a moment, in the order of the frequencies. */
  at(seconds: Seconds): Float64Array {
    const { cos, sin } = this.windowed.products(this.rows, seconds);
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
