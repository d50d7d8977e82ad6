import type { Decibels, Hertz, Seconds } from '@/core/base';

/** Partials that are followed from frame to frame. */
export const QUICK_PARTIALS = 8;
/** Partials this far under the strongest say nothing. */
const FAINT = 0.03;
const SHORTEST: Seconds = 0.012;
/** Over whole periods, two at least, the partials of a tone stand in the zeros of each other's main lobes (Hann's window). */
const FEWEST_PERIODS = 2;
const MOST_CENTS = 100;
/** A partial cannot be newer than new. */
const ALL_NEW = 1.5;

/**
 * How far each frame carries on what was there: every partial of a tone that goes on is, a moment later, the same complex
 * number turned by its own frequency. What differs from that is new: a tone that stops or starts, whatever the level does
 * while echoes add to it (the complex-domain onset function: Bello, Duxbury, Davies & Sandler, IEEE Signal Processing
 * Letters 11, 2004; here read at the partials of the tone, each weighing the same).
 */
export class Continuity {
  /** Of the frame before the latest: share of its partials' amplitude that is new; NaN where the pitch is not known around it. */
  novelty = NaN;
  /** Amplitudes of the first partials of the latest frame, over two periods or little more; 0 where there are none. */
  readonly amplitudes = new Float64Array(QUICK_PARTIALS);
  /** How much its partials grow around it, their median, dB. */
  growthDb: Decibels = NaN;

  private readonly window: Float64Array;
  private rows: [Row, Row, Row] = [emptyRow(), emptyRow(), emptyRow()];
  private readonly growths = new Float64Array(QUICK_PARTIALS);

  constructor(
    private readonly rate: Hertz,
    private readonly hopSeconds: Seconds,
    lowest: Hertz,
  ) {
    this.window = new Float64Array(Math.ceil(rate * Math.max(2 * SHORTEST, (FEWEST_PERIODS + 1) / lowest)));
  }

  /** Samples that the longest window takes. */
  get longest(): number {
    return this.window.length;
  }

  /** Samples that a frame of this pitch is read from; 0 without a pitch. */
  lengthFor(f0: Hertz): number {
    if (!(f0 > 0)) return 0;
    const periods = Math.max(FEWEST_PERIODS, Math.ceil(SHORTEST * f0));
    return Math.min(this.window.length, Math.round((periods * this.rate) / f0));
  }

  /**
   * @param samples `lengthFor(f0)` samples. @param offset where the frame's centre lies after the first of them.
   * @param f0 pitch of the frame, NaN when there is none.
   */
  analyse(samples: Float64Array | Float32Array, offset: number, f0: Hertz): void {
    const [oldest, middle, latest] = this.rows;
    this.rows = [middle, latest, oldest];
    this.read(samples, offset, f0, oldest);
    this.compare(middle, oldest);
  }

  private read(samples: Float64Array | Float32Array, offset: number, f0: Hertz, row: Row): void {
    row.f0 = f0;
    this.amplitudes.fill(0);
    const length = this.lengthFor(f0);
    if (length === 0) return;
    const { window } = this;
    // Hann's window; its cosine goes on by cos (n + 1)a = 2 cos a · cos na − cos (n − 1)a.
    const turn = (2 * Math.PI) / length;
    const twice = 2 * Math.cos(turn);
    let cosine = Math.cos(0.5 * turn);
    let before = cosine;
    for (let i = 0; i < length; i++) {
      window[i] = samples[i]! * (1 - cosine);
      const next = twice * cosine - before;
      before = cosine;
      cosine = next;
    }
    row.count = Math.min(QUICK_PARTIALS, Math.floor((0.45 * this.rate) / f0));
    const turnOf = (k: number) => (2 * Math.PI * (k + 1) * f0) / this.rate;
    for (let k = 0; k < row.count; k += 2) {
      // Goertzel's recursion. Each step waits for the one before it: two partials at once take hardly longer than one.
      const c = 2 * Math.cos(turnOf(k));
      const d = 2 * Math.cos(turnOf(k + 1));
      let s1 = 0;
      let s2 = 0;
      let t1 = 0;
      let t2 = 0;
      for (let i = 0; i < length; i++) {
        const x = window[i]!;
        const s0 = x - s2 + c * s1;
        s2 = s1;
        s1 = s0;
        const t0 = x - t2 + d * t1;
        t2 = t1;
        t1 = t0;
      }
      this.keep(row, k, turnOf(k), s1, s2, length, offset);
      if (k + 1 < row.count) this.keep(row, k + 1, turnOf(k + 1), t1, t2, length, offset);
    }
  }

  /** What the recursion of a partial ended with, turned back to the frame's centre. */
  private keep(row: Row, k: number, w: number, s1: number, s2: number, length: number, offset: number): void {
    const re = s1 - s2 * Math.cos(w);
    const im = s2 * Math.sin(w);
    const back = -w * (length - 1 - offset);
    const cos = Math.cos(back);
    const sin = Math.sin(back);
    row.re[k] = (re * cos - im * sin) / length;
    row.im[k] = (re * sin + im * cos) / length;
    this.amplitudes[k] = amplitude(row, k);
  }

  private compare(before: Row, after: Row): void {
    this.novelty = NaN;
    this.growthDb = NaN;
    if (!(Math.abs(1200 * Math.log2(after.f0 / before.f0)) < MOST_CENTS)) return;
    const count = Math.min(before.count, after.count);
    const f0 = (before.f0 + after.f0) / 2;
    let strongest = 0;
    for (let k = 0; k < count; k++)
      strongest = Math.max(strongest, amplitude(before, k), amplitude(after, k));
    if (strongest === 0) return;
    let sum = 0;
    let audible = 0;
    for (let k = 0; k < count; k++) {
      const was = amplitude(before, k);
      const is = amplitude(after, k);
      const larger = Math.max(was, is);
      if (larger < FAINT * strongest) continue;
      const turned = 2 * Math.PI * (k + 1) * f0 * 2 * this.hopSeconds;
      const cos = Math.cos(turned);
      const sin = Math.sin(turned);
      const re = before.re[k]! * cos - before.im[k]! * sin;
      const im = before.re[k]! * sin + before.im[k]! * cos;
      sum += Math.min(ALL_NEW, modulus(after.re[k]! - re, after.im[k]! - im) / larger);
      this.growths[audible++] = (is + 1e-12) / (was + 1e-12);
    }
    this.novelty = sum / audible;
    const growths = this.growths.subarray(0, audible).sort();
    this.growthDb = 20 * Math.log10(growths[audible >> 1]!);
  }
}

interface Row {
  f0: Hertz;
  count: number;
  readonly re: Float64Array;
  readonly im: Float64Array;
}

const emptyRow = (): Row => ({
  f0: NaN,
  count: 0,
  re: new Float64Array(QUICK_PARTIALS),
  im: new Float64Array(QUICK_PARTIALS),
});

/** `Math.hypot` guards against overflow that no sound comes near, at many times the cost. */
const modulus = (re: number, im: number) => Math.sqrt(re * re + im * im);
const amplitude = ({ re, im }: Row, k: number) => modulus(re[k]!, im[k]!);
