import type { Decibels, Hertz } from '@/core/base';

/** An amplitude that falls with the frequency falls by this in an octave. */
const DB_PER_OCTAVE: Decibels = 20 * Math.log10(2);

/** One tone of many partials whose pitch may move from sample to sample. Its phase never jumps. */
export class Voice {
  private turn = 0;
  // The turn as a point on the circle, and how far one sample at the latest frequency turns it.
  private cos = 1;
  private sin = 0;
  private step = 0;
  private stepCos = 1;
  private stepSin = 0;
  private frequency: Hertz = 0;
  // Amplitude · e^(i·phase) of each partial.
  private readonly re: Float64Array;
  private readonly im: Float64Array;

  /** @param partials amplitudes of partials 1 …. @param phases their phases at the start. */
  constructor(
    private readonly partials: Float64Array,
    private readonly phases: Float64Array,
  ) {
    this.re = new Float64Array(partials.length);
    this.im = new Float64Array(partials.length);
    this.darken(0);
  }

  /** Lets the upper partials weaken by so much an octave; the power of all together stays. */
  darken(dBPerOctave: Decibels): void {
    const power = (amplitudes: Float64Array) => amplitudes.reduce((sum, a) => sum + a * a, 0);
    const darker = this.partials.map((amplitude, k) => amplitude * (k + 1) ** (-dBPerOctave / DB_PER_OCTAVE));
    const kept = Math.sqrt(power(this.partials) / power(darker));
    darker.forEach((amplitude, k) => {
      this.re[k] = kept * amplitude * Math.cos(this.phases[k]!);
      this.im[k] = kept * amplitude * Math.sin(this.phases[k]!);
    });
  }

  next(frequency: Hertz, sampleRate: Hertz): number {
    if (frequency !== this.frequency) this.turnBy(frequency, sampleRate);
    this.turn += this.step;
    const cos = this.cos * this.stepCos - this.sin * this.stepSin;
    this.sin = this.sin * this.stepCos + this.cos * this.stepSin;
    this.cos = cos;
    // Σ re·sin(kx) + im·cos(kx) for k = 1 … by Clenshaw's recurrence (Mathematics of Computation 9, 1955), from the top down.
    const { re, im } = this;
    const twice = 2 * cos;
    let s1 = 0;
    let s2 = 0;
    let c1 = 0;
    let c2 = 0;
    for (let k = re.length - 1; k >= 0; k--) {
      const s0 = re[k]! - s2 + twice * s1;
      s2 = s1;
      s1 = s0;
      const c0 = im[k]! - c2 + twice * c1;
      c2 = c1;
      c1 = c0;
    }
    return s1 * this.sin + c1 * cos - c2;
  }

  /** A new frequency, from the exact turn: what rounding has added until now is forgotten. */
  private turnBy(frequency: Hertz, sampleRate: Hertz): void {
    this.frequency = frequency;
    this.step = (2 * Math.PI * frequency) / sampleRate;
    this.stepCos = Math.cos(this.step);
    this.stepSin = Math.sin(this.step);
    this.cos = Math.cos(this.turn);
    this.sin = Math.sin(this.turn);
  }
}
