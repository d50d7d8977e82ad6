import { SampleWindow } from './sampleWindow';

/** Zero crossings of the sinc on each side. */
const CROSSINGS = 7;
/** Of the window's shape, for about 70 dB of stop band. */
const BETA = 6.76;
/** Where the filter is 6 dB down, of half the rate that comes out: a period is told by partials that nothing folds over. */
const CUTOFF = 0.86;

/** The modified Bessel function of order zero, by its series. */
function bessel(x: number): number {
  let term = 1;
  let sum = 1;
  for (let k = 1; term > 1e-12 * sum; k++) sum += term *= (x / (2 * k)) ** 2;
  return sum;
}

/**
 * Low-pass filter for keeping every `factor`-th sample: a sinc under Kaiser's window ("Nonrecursive digital filter design using
 * the I0-sinh window function", 1974), symmetric, so without delay.
 */
function lowPass(factor: number): Float64Array {
  if (factor === 1) return Float64Array.of(1);
  const half = CROSSINGS * factor;
  const cutoff = CUTOFF / factor;
  const taps = Float64Array.from({ length: 2 * half + 1 }, (_, i) => {
    const x = i - half;
    const sinc = x === 0 ? cutoff : Math.sin(Math.PI * cutoff * x) / (Math.PI * x);
    return sinc * bessel(BETA * Math.sqrt(1 - (x / (half + 1)) ** 2));
  });
  const sum = taps.reduce((a, b) => a + b, 0);
  return taps.map((tap) => tap / sum);
}

/**
 * Lowers the sample rate of a stream by a whole factor. Output sample m stands exactly at input sample m·factor.
 */
export class Decimator {
  readonly output: SampleWindow;
  private readonly taps: Float64Array;
  private readonly recent: Float64Array;
  private readonly four = new Float64Array(4);
  private filled: number;
  /** Where in `recent` the samples of the next output begin. */
  private next = 0;

  /** @param reach how many output samples back a reader may ask for. */
  constructor(
    private readonly factor: number,
    reach: number,
  ) {
    this.taps = lowPass(factor);
    this.output = new SampleWindow(reach, 4096);
    this.recent = new Float64Array(4096 + this.taps.length);
    // Before the stream began there was silence: the first output needs `half` samples of it.
    this.filled = (this.taps.length - 1) / 2;
  }

  /** @param count at most 4096. */
  push(samples: Float64Array, count: number): void {
    const { factor, recent, output, taps } = this;
    if (factor === 1) {
      output.append(samples, count);
      return;
    }
    const span = taps.length;
    if (this.filled + count > recent.length) {
      recent.copyWithin(0, this.next, this.filled);
      this.filled -= this.next;
      this.next = 0;
    }
    recent.set(count === samples.length ? samples : samples.subarray(0, count), this.filled);
    this.filled += count;
    for (; this.next + 3 * factor + span <= this.filled; this.next += 4 * factor) {
      filterFour(recent, this.next, factor, taps, this.four);
      output.append(this.four, 4);
    }
    for (; this.next + span <= this.filled; this.next += factor)
      output.push(filtered(recent, this.next, taps));
  }
}

/** The filter's taps are symmetric: each pair of samples that shares one is added before it is multiplied. */
function filtered(samples: Float64Array, start: number, taps: Float64Array): number {
  const half = (taps.length - 1) >> 1;
  let sum = taps[half]! * samples[start + half]!;
  for (let k = 0, last = start + 2 * half; k < half; k++, last--)
    sum += taps[k]! * (samples[start + k]! + samples[last]!);
  return sum;
}

/** The same for four outputs in a row: a tap that is fetched serves all, and no sum waits for another. */
function filterFour(
  samples: Float64Array,
  start: number,
  factor: number,
  taps: Float64Array,
  out: Float64Array,
): void {
  const half = (taps.length - 1) >> 1;
  const middle = start + half;
  const tap = taps[half]!;
  let a = tap * samples[middle]!;
  let b = tap * samples[middle + factor]!;
  let c = tap * samples[middle + 2 * factor]!;
  let d = tap * samples[middle + 3 * factor]!;
  for (let k = 0, first = start, last = start + 2 * half; k < half; k++, first++, last--) {
    const weight = taps[k]!;
    a += weight * (samples[first]! + samples[last]!);
    b += weight * (samples[first + factor]! + samples[last + factor]!);
    c += weight * (samples[first + 2 * factor]! + samples[last + 2 * factor]!);
    d += weight * (samples[first + 3 * factor]! + samples[last + 3 * factor]!);
  }
  out[0] = a;
  out[1] = b;
  out[2] = c;
  out[3] = d;
}
