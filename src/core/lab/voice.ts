import type { Decibels, Hertz } from '@/core/tuning';

/** An amplitude that falls with the frequency falls by this in an octave. */
const DB_PER_OCTAVE: Decibels = 20 * Math.log10(2);

/** One tone of many partials whose pitch may move from sample to sample. Its phase never jumps. */
export class Voice {
  private turn: number;
  // e^(i·phase) of each partial, so that one sine and one cosine a sample serve them all.
  private readonly re: Float64Array;
  private readonly im: Float64Array;

  /** @param partials amplitudes of partials 1 …. @param phases their phases at the start. */
  constructor(
    private readonly partials: Float64Array,
    private readonly phases: Float64Array,
  ) {
    this.re = new Float64Array(partials.length);
    this.im = new Float64Array(partials.length);
    this.turn = 0;
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
    this.turn += (2 * Math.PI * frequency) / sampleRate;
    const cos = Math.cos(this.turn);
    const sin = Math.sin(this.turn);
    let re = 1;
    let im = 0;
    let tone = 0;
    for (let k = 0; k < this.re.length; k++) {
      const turned = re * cos - im * sin;
      im = re * sin + im * cos;
      re = turned;
      tone += im * this.re[k]! + re * this.im[k]!;
    }
    return tone;
  }
}
