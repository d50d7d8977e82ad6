import type { Hertz } from '@/core/base';
import { CosineTransform } from './cosineTransform';
import { FractionalPeak, REACH } from './fractional';
import { RealFft } from './realFft';
import type { PeriodicitySettings } from './settings';

/** Most candidates kept of a frame. */
export const CANDIDATES = 6;
/** What a redundant period is charged, in clarity. */
const REDUNDANCY_COST = 0.34;
/** What noise takes off the clarity is allowed for up to this; it takes off all candidates alike, so that more would excuse anything. */
const MOST_NOISE = 0.02;
const WORTH_KEEPING = 0.3;
/** What costs less is surely of a tone. */
const SURE_COST = 0.15;
/** When there are more peaks than room: how much clearer a peak must be than the one of the next shorter period. */
const SHORTER_FIRST = 0.01;

/**
 * Candidates for the period of a short stretch of sound: the peaks of its normalised square difference function,
 *   n(τ) = 2 Σ x(j)x(j+τ) / Σ (x(j)² + x(j+τ)²),
 * by FFT (McLeod & Wyvill, "A smarter way to find pitch", ICMC 2005). Peaks are placed between samples, and their true
 * height found, by band-limited interpolation: with strong upper partials a period that falls between two samples would
 * else look less periodic than twice that period. Every multiple of a period is a period too; McLeod's "first peak that is nearly
 * as high as the highest" is applied as a cost, so that a path over time can outvote one frame.
 */
export class Periodicity {
  /** Of the latest frame, in rising order of period: Hz, clarity (1 = perfectly periodic) and cost (0 = best). */
  readonly frequency = new Float64Array(CANDIDATES);
  readonly clarity = new Float64Array(CANDIDATES);
  readonly cost = new Float64Array(CANDIDATES);
  count = 0;

  private readonly fft: RealFft;
  private readonly cosines: CosineTransform;
  private readonly padded: Float64Array;
  private readonly spectrum: Float64Array;
  private readonly power: Float64Array;
  private readonly correlation: Float64Array;
  private readonly nsdf: Float64Array;
  private readonly peak = new FractionalPeak();
  private readonly rate: number;

  constructor(private readonly settings: PeriodicitySettings) {
    const { fftSize, maxLag, window } = settings;
    // As many lags past the longest as the transform holds without wrapping round, for peaks near the end.
    const lags = Math.min(maxLag + 2 + REACH, fftSize - window);
    this.fft = new RealFft(fftSize);
    this.cosines = new CosineTransform(fftSize / 2);
    this.padded = new Float64Array(fftSize);
    this.spectrum = new Float64Array(fftSize + 2);
    this.power = new Float64Array(fftSize / 2 + 1);
    this.correlation = new Float64Array(lags);
    this.nsdf = new Float64Array(lags);
    this.rate = settings.rate;
  }

  /** @param samples at least `settings.window` samples at the decimated rate. */
  analyse(samples: Float64Array): void {
    this.count = 0;
    if (!this.normalisedDifference(samples)) return;
    this.collectPeaks();
    this.weigh();
  }

  /** The frequency of least cost; NaN where none is surely of a tone. */
  get best(): Hertz {
    let least = SURE_COST;
    let best = NaN;
    for (let i = 0; i < this.count; i++)
      if (this.cost[i]! < least) {
        least = this.cost[i]!;
        best = this.frequency[i]!;
      }
    return best;
  }

  /** Fills `nsdf` for all its lags; false when there is no sound at all. */
  private normalisedDifference(samples: Float64Array): boolean {
    const { window, fftSize } = this.settings;
    const { padded, spectrum, power, correlation, nsdf } = this;
    let energy = 0;
    for (let i = 0; i < window; i++) {
      const x = samples[i]!;
      padded[i] = x;
      energy += x * x;
    }
    if (energy < 1e-12 * window) return false;
    this.fft.forward(padded, spectrum);
    for (let k = 0; k < power.length; k++) power[k] = spectrum[2 * k]! ** 2 + spectrum[2 * k + 1]! ** 2;
    this.cosines.transform(power, correlation, nsdf.length - 1);

    const scale = 2 / fftSize;
    let both = 2 * energy;
    nsdf[0] = 1;
    for (let lag = 1; lag < nsdf.length; lag++) {
      const head = padded[lag - 1]!;
      const tail = padded[window - lag]!;
      both -= head * head + tail * tail;
      nsdf[lag] = both > 1e-9 * energy ? (scale * correlation[lag]!) / both : 0;
    }
    return true;
  }

  /** Keeps the best local maxima in rising order of lag; among equals the shorter, as their multiples say nothing new. */
  private collectPeaks(): void {
    const { minLag, maxLag, aboveAll } = this.settings;
    const { nsdf, frequency, clarity } = this;
    for (let lag = minLag; lag <= maxLag; lag++) {
      const at = nsdf[lag]!;
      const left = nsdf[lag - 1]!;
      const right = nsdf[lag + 1]!;
      if (at < WORTH_KEEPING || at < left || at <= right) continue;
      // The cosine a·cos(w(x − shift)) through three points spaced one lag apart.
      const cosine = Math.min(1, Math.max(-1, (left + right) / (2 * at)));
      const sine = Math.sqrt(1 - cosine * cosine);
      const slope = sine > 1e-6 ? (right - left) / (2 * sine) : 0;
      let shift = sine > 1e-6 ? Math.atan2(slope, at) / Math.acos(cosine) : 0;
      let height = Math.sqrt(at * at + slope * slope);
      if (lag + REACH < nsdf.length) {
        this.peak.find(nsdf, lag, shift);
        ({ shift, height } = this.peak);
      }
      if (this.rate / (lag + shift) > aboveAll) continue;
      height = Math.min(1, height);
      let slot = this.count;
      if (this.count === CANDIDATES) {
        slot = 0;
        for (let i = 1; i < CANDIDATES; i++)
          if (this.worth(clarity[i]!, i) < this.worth(clarity[slot]!, slot)) slot = i;
        if (this.worth(clarity[slot]!, slot) >= this.worth(height, CANDIDATES)) continue;
        for (; slot < CANDIDATES - 1; slot++) {
          frequency[slot] = frequency[slot + 1]!;
          clarity[slot] = clarity[slot + 1]!;
        }
      } else {
        this.count++;
      }
      frequency[slot] = this.rate / (lag + shift);
      clarity[slot] = height;
    }
  }

  private worth(clarity: number, place: number): number {
    return clarity - SHORTER_FIRST * place;
  }

  private weigh(): void {
    const { frequency, clarity, cost } = this;
    const { fully, noMore, noiseShare } = this.settings.redundancy;
    let best = 0;
    for (let i = 0; i < this.count; i++) best = Math.max(best, clarity[i]!);
    for (let i = 0; i < this.count; i++) {
      let redundancy = 0;
      for (let j = 0; j < i; j++) {
        const ratio = frequency[j]! / frequency[i]!;
        if (Math.abs(ratio - Math.round(ratio)) > 0.06 * ratio) continue;
        const shortfall = best - clarity[j]! - Math.min(MOST_NOISE, noiseShare * (1 - best));
        const nearness = (noMore - shortfall) / (noMore - fully);
        redundancy = Math.max(redundancy, Math.min(1, nearness));
      }
      cost[i] = 1 - clarity[i]! + REDUNDANCY_COST * redundancy;
    }
  }
}
