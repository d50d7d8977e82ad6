import { SampleWindow } from './sampleWindow';

/** Zero crossings of the filter on each side: about 70 dB of stop band with the window below. */
const CROSSINGS = 9;

/** Low-pass filter for keeping every `factor`-th sample: a sinc under a Blackman window, symmetric, so without delay. */
function lowPass(factor: number): Float64Array {
  if (factor === 1) return Float64Array.of(1);
  const half = CROSSINGS * factor;
  const cutoff = 0.86 / factor;
  const taps = Float64Array.from({ length: 2 * half + 1 }, (_, i) => {
    const x = i - half;
    const sinc = x === 0 ? cutoff : Math.sin(Math.PI * cutoff * x) / (Math.PI * x);
    const phase = (Math.PI * (x + half + 1)) / (half + 1);
    return sinc * (0.42 - 0.5 * Math.cos(phase) + 0.08 * Math.cos(2 * phase));
  });
  const sum = taps.reduce((a, b) => a + b, 0);
  return taps.map((tap) => tap / sum);
}

/**
 * Lowers the sample rate of a stream by a whole factor. Output sample m stands exactly at input sample m·factor.
 * The filter is symmetric, so each pair of input samples that shares a tap is added before it is multiplied.
 */
export class Decimator {
  readonly output: SampleWindow;
  private readonly taps: Float64Array;
  private readonly half: number;
  private readonly recent: Float64Array;
  private filled: number;
  private untilNext = 0;

  /** @param reach how many output samples back a reader may ask for. */
  constructor(
    private readonly factor: number,
    reach: number,
  ) {
    this.taps = lowPass(factor);
    this.half = (this.taps.length - 1) / 2;
    this.output = new SampleWindow(reach, 4096);
    this.recent = new Float64Array(4096 + this.taps.length);
    // Before the stream began there was silence: the first output needs `half` samples of it.
    this.filled = this.half;
  }

  push(samples: Float64Array, count: number): void {
    if (this.factor === 1) {
      for (let i = 0; i < count; i++) this.output.push(samples[i]!);
      return;
    }
    const span = this.taps.length;
    for (let i = 0; i < count; i++) {
      if (this.filled === this.recent.length) {
        this.recent.copyWithin(0, this.filled - span, this.filled);
        this.filled = span;
      }
      this.recent[this.filled++] = samples[i]!;
      if (this.filled >= span && this.untilNext-- === 0) {
        this.untilNext = this.factor - 1;
        this.output.push(this.filter(this.filled - span));
      }
    }
  }

  private filter(start: number): number {
    const { taps, half, recent } = this;
    let sum = taps[half]! * recent[start + half]!;
    for (let k = 0, last = start + 2 * half; k < half; k++)
      sum += taps[k]! * (recent[start + k]! + recent[last - k]!);
    return sum;
  }
}
