import type { Hertz, Seconds } from '@/core/base';

/** Exact zeros for this long are no sound of any room: a microphone's own noise moves its last digit. */
const SHORTEST: Seconds = 0.001;
/** As long as a tone is carried on over what was lost; beyond this nothing is known of it. */
const LONGEST_FILL: Seconds = 0.06;
/** What is left of a tone beside a loss may have been faded by the device. */
const EDGE: Seconds = 0.001;
/** From the tone that was carried on back to the one that came. */
const CROSSFADE: Seconds = 0.003;
/** The tone before a loss, and how much of it is looked at for its period. */
const BEFORE: Seconds = 0.01;
const HISTORY: Seconds = 0.1;
/** Below this there was no tone to lose. */
export const LEAST_AMPLITUDE = 0.001;
/** A tone that fades away before the zeros was not cut off by them: a gate, or a recording that was trimmed. */
const STILL_THERE = 0.5;
const LONGEST_PERIOD: Seconds = 1 / 27;
export const SHORTEST_PERIOD: Seconds = 1 / 2500;

/** Sound that never came: places in samples, the last one excluded. */
export interface Loss {
  readonly from: number;
  readonly to: number;
}

/**
 * A device that is busy loses sound: a few hundredths of a second arrive as exact zeros in the middle of a tone. Nobody
 * stopped there. Such a hole is filled with the tone before it, period by period (as in concealing lost packets of speech:
 * ITU-T G.711 Appendix I), so that no window falls into it, and is kept as a loss: of that moment nothing is told.
 */
export class Losses {
  readonly found: Loss[] = [];
  private readonly history: Float32Array;
  private readonly shortest: number;
  private readonly longest: number;
  private readonly edge: number;
  private readonly fade: number;
  /** Samples of the stream that were given on. */
  private given = 0;
  /** Zeros that are held back until it is known what they are. */
  private zeros = 0;
  /** The loss that lasts longer than can be filled. */
  private openFrom: number | null = null;
  /** The tone that is carried on, and how far it has been. */
  private period: Float32Array | null = null;
  private turned = 0;
  private afterwards = 0;
  private out = new Float32Array(0);
  private filled = 0;

  /** @param rate samples a second. */
  constructor(private readonly rate: Hertz) {
    const samples = (seconds: Seconds) => Math.round(seconds * rate);
    this.history = new Float32Array(samples(HISTORY));
    this.shortest = samples(SHORTEST);
    this.longest = samples(LONGEST_FILL);
    this.edge = samples(EDGE);
    this.fade = samples(CROSSFADE);
  }

  /**
   * What is to be heard in place of a chunk: in all as many samples, zeros at its end only once it is known what they are.
   * The result is valid until the next call.
   */
  next(chunk: Float32Array): Float32Array {
    this.begin(this.zeros + chunk.length);
    for (let i = 0; i < chunk.length;) {
      i = this.keepOrdinary(chunk, i);
      if (i === chunk.length) break;
      const sample = chunk[i++]!;
      if (sample === 0) this.hold();
      else {
        this.release();
        this.give(sample);
      }
    }
    return this.out.subarray(0, this.filled);
  }

  /** What was still held back. Zeros that nothing follows are the end of the sound. */
  finish(): Float32Array {
    this.begin(this.zeros);
    for (; this.zeros > 0; this.zeros--) this.give(0);
    this.openFrom = null;
    return this.out.subarray(0, this.filled);
  }

  /** Gives on samples that nothing is to be asked of, from one of a chunk to before the next zero; where that is. */
  private keepOrdinary(chunk: Float32Array, from: number): number {
    if (this.zeros > 0 || this.period || this.openFrom !== null) return from;
    let to = from;
    while (to < chunk.length && chunk[to] !== 0) to++;
    const { history } = this;
    this.out.set(chunk.subarray(from, to), this.filled);
    // Only the last of them are remembered, as far as there is room, in two pieces where the ring turns.
    const first = Math.max(from, to - history.length);
    const at = (this.given + first - from) % history.length;
    const fit = Math.min(to, first + history.length - at);
    history.set(chunk.subarray(first, fit), at);
    history.set(chunk.subarray(fit, to), 0);
    this.given += to - from;
    this.filled += to - from;
    return to;
  }

  private begin(most: number): void {
    if (this.out.length < most) this.out = new Float32Array(most);
    this.filled = 0;
  }

  private hold(): void {
    if (this.openFrom !== null) {
      this.give(0);
      return;
    }
    this.zeros++;
    if (this.zeros <= this.longest) return;
    // Too long to be filled; whether it is a loss is known when sound comes again.
    const from = this.given;
    const cutOff = this.isCutOff();
    for (; this.zeros > 0; this.zeros--) this.give(0);
    this.openFrom = cutOff ? from : Infinity;
  }

  /** Sound has come again. */
  private release(): void {
    if (this.openFrom !== null) {
      if (this.openFrom < this.given) this.found.push({ from: this.openFrom, to: this.given });
      this.openFrom = null;
      return;
    }
    if (this.zeros === 0) return;
    if (this.zeros >= this.shortest && this.isCutOff()) {
      this.found.push({ from: this.given, to: this.given + this.zeros });
      this.period = this.lastPeriod();
      this.turned = this.edge;
      this.afterwards = 0;
    }
    const { period } = this;
    for (; this.zeros > 0; this.zeros--) {
      if (period) this.keep(this.carriedOn(period));
      else this.give(0);
    }
  }

  /** A sample that came, mixed with the tone that was carried on while a loss has just ended. */
  private give(sample: number): void {
    if (!this.period) {
      this.keep(sample);
      return;
    }
    const share = Math.min(1, Math.max(0, (this.afterwards - this.edge) / this.fade));
    this.keep(share * sample + (1 - share) * this.carriedOn(this.period));
    this.afterwards++;
    if (share === 1) this.period = null;
  }

  private carriedOn(period: Float32Array): number {
    const sample = period[this.turned % period.length]!;
    this.turned++;
    return sample;
  }

  private keep(sample: number): void {
    this.history[this.given % this.history.length] = sample;
    this.given++;
    this.out[this.filled++] = sample;
  }

  /** So many samples ago. */
  private ago(samples: number): number {
    const at = this.given - samples;
    return at < 0 ? 0 : this.history[at % this.history.length]!;
  }

  private rms(from: number, to: number): number {
    let sum = 0;
    for (let i = from; i < to; i++) sum += this.ago(i + 1) ** 2;
    return Math.sqrt(sum / (to - from));
  }

  /** Whether there was a tone up to here, as loud as it had been. */
  private isCutOff(): boolean {
    const { edge } = this;
    const before = Math.round(BEFORE * this.rate);
    const was = this.rms(edge, edge + 2 * before);
    return was > LEAST_AMPLITUDE && this.rms(edge, edge + before / 2) > STILL_THERE * was;
  }

  /** The last period of the tone, up to where the device may have faded it; null where there is none to be found. */
  private lastPeriod(): Float32Array | null {
    const { edge, rate } = this;
    const most = Math.min(Math.round(LONGEST_PERIOD * rate), (this.history.length - edge) >> 1);
    const window = most;
    let best = 0;
    let lag = 0;
    for (let candidate = Math.round(SHORTEST_PERIOD * rate); candidate <= most; candidate++) {
      let product = 0;
      let power = 0;
      for (let i = 1; i <= window; i += 2) {
        const a = this.ago(edge + i);
        const b = this.ago(edge + i + candidate);
        product += a * b;
        power += a * a + b * b;
      }
      const likeness = (2 * product) / (power + 1e-12);
      if (likeness > best) [best, lag] = [likeness, candidate];
    }
    if (best < 0.5) return null;
    return Float32Array.from({ length: lag }, (_, i) => this.ago(edge + lag - i));
  }
}
