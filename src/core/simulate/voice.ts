import type { Hertz } from '@/core/tuning';

/** One tone of many partials whose pitch may move from sample to sample. Its phase never jumps. */
export class Voice {
  private turn: number;
  // e^(i·phase) of each partial, so that one sine and one cosine a sample serve them all.
  private readonly re: Float64Array;
  private readonly im: Float64Array;

  /** @param partials amplitudes of partials 1 …. @param phases their phases at the start. */
  constructor(partials: Float64Array, phases: Float64Array) {
    this.re = partials.map((amplitude, k) => amplitude * Math.cos(phases[k]!));
    this.im = partials.map((amplitude, k) => amplitude * Math.sin(phases[k]!));
    this.turn = 0;
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
