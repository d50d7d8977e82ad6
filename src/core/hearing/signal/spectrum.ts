import { type ColourId, COLOURS, type Hertz } from '@/core/base';
import { PARTIALS } from './frames';
import { RealFft } from './realFft';
import type { Settings } from './settings';

/** Three-term window with all side lobes below −71 dB (Nuttall, IEEE Trans. ASSP 29, 1981). */
const WINDOW_TERMS = [0.4243801, 0.4973406, 0.0782793] as const;
/** Half the width of the window's main lobe, in bins of an unpadded transform. */
const MAIN_LOBE = 3;
/** A partial helps to refine f0 when it stands this far above the noise beside it. */
const REFINING_MARGIN_DB = 12;
const REFINING_PARTIALS = 10;
/** A component below partial 1 has to stand this far above the noise, as a ratio of powers. */
const SUB_MARGIN = 10;

/**
 * Components half-way between the partials that stand this near to the strongest partial, with one below partial 1 this
 * near too, belong to a tone of half the frequency whose odd partials are weak.
 */
const HALVES_DB = -28;
const HALF_DB = -32;
const HALVES = 3;

const decibels = (power: number) => 10 * Math.log10(power + 1e-20);

/**
 * Partials, the noise between them, and a refined f0 from one spectrum every other frame.
 *
 * Levels: the power of partial k is read off the main lobe at k·f0 (quadratic interpolation of its logarithm), the noise
 * beside it in the valleys half-way to the neighbours. f0 is refined by how far the phase of each partial has turned
 * since the spectrum before (the phase vocoder's instantaneous frequency: Flanagan & Golden 1966), partials weighted by
 * the square of their number and their margin over the noise.
 */
export class Spectrum implements Record<ColourId, number> {
  /** Level of partials 1 … 16 in dBFS (a full-scale sine is −3 dB); NaN where unknown. */
  readonly partialsDb = new Float64Array(PARTIALS);
  /** Level of the noise within one partial's bandwidth beside each partial, dB. */
  readonly noiseDb = new Float64Array(PARTIALS);
  /** 10·log10 of noise power over partial power, both up to the highest partial in sight: the inverse of HNR. */
  airinessDb = NaN;
  /** Centroid of the partials' power, in partial numbers. */
  brightness = NaN;
  /** Partials within 50 dB of the strongest and 10 dB over the noise. */
  richness = NaN;
  /** Power of the odd partials over that of the even ones, dB. */
  oddEvenDb = NaN;
  /** The strongest component below partial 1, in Hz, and its level against partial 1; NaN when nothing stands out. */
  subHz: Hertz = NaN;
  subDb = NaN;
  /** The strongest component of all, whatever the pitch. */
  strongestHz: Hertz = NaN;
  /** The pitch that the spectrum was read by: the one it was given, or half of it where the odd partials of that show. */
  readBy: Hertz = NaN;
  /** f0 half-way between this spectrum and the one before; NaN when the two do not agree on a steady pitch. */
  refinedF0: Hertz = NaN;

  private readonly fft: RealFft;
  private readonly shape: Float64Array;
  private readonly gain: number;
  private readonly noiseBandwidth: number;
  private readonly windowed: Float64Array;
  /** Of each bin of the latest spectrum: it is asked for many times. */
  private readonly powers: Float64Array;
  private current: Float64Array;
  private previous: Float64Array;
  private previousStart = NaN;
  private readonly rate: number;
  private readonly binHz: number;
  private readonly lobeBins: number;
  private readonly lowest: Hertz;

  constructor(settings: Settings) {
    const { window, fftSize, decimation } = settings.spectrum;
    this.fft = new RealFft(fftSize);
    this.windowed = new Float64Array(fftSize);
    this.powers = new Float64Array(fftSize / 2 + 1);
    this.current = new Float64Array(fftSize + 2);
    this.previous = new Float64Array(fftSize + 2);
    this.rate = settings.sampleRate / decimation;
    this.binHz = this.rate / fftSize;
    this.lowest = settings.minHz;
    this.lobeBins = (MAIN_LOBE * fftSize) / window;
    const [a, b, c] = WINDOW_TERMS;
    this.shape = Float64Array.from({ length: window }, (_, i) => {
      const phase = (2 * Math.PI * (i + 0.5)) / window;
      return a - b * Math.cos(phase) + c * Math.cos(2 * phase);
    });
    const sum = this.shape.reduce((t, w) => t + w, 0);
    const squares = this.shape.reduce((t, w) => t + w * w, 0);
    this.gain = 2 / (sum * sum);
    this.noiseBandwidth = (fftSize * squares) / (sum * sum);
  }

  /**
   * @param samples `settings.spectrum.window` samples. @param start their place in the decimated stream.
   * @param f0 the pitch to read the spectrum by, NaN when there is none.
   */
  analyse(samples: Float64Array, start: number, f0: Hertz): void {
    [this.current, this.previous] = [this.previous, this.current];
    const length = this.shape.length;
    for (let i = 0; i < length; i++) this.windowed[i] = samples[i]! * this.shape[i]!;
    this.fft.forward(this.windowed, this.current);
    const { current, powers } = this;
    for (let i = 0; i < powers.length; i++) powers[i] = current[2 * i]! ** 2 + current[2 * i + 1]! ** 2;
    this.forget();
    this.readStrongest();
    this.readBy = f0;
    if (f0 > 0) {
      this.readPartials(f0);
      if (this.isOctaveOfTone(f0)) {
        this.readBy = f0 / 2;
        this.forgetPartials();
        this.readPartials(this.readBy);
      }
      this.readBelow(this.readBy);
      if (!Number.isNaN(this.previousStart))
        this.refine(this.readBy, (start - this.previousStart) / this.rate);
    }
    this.previousStart = start;
  }

  private forget(): void {
    this.forgetPartials();
    this.refinedF0 = this.subHz = this.subDb = this.strongestHz = NaN;
  }

  private forgetPartials(): void {
    this.partialsDb.fill(NaN);
    this.noiseDb.fill(NaN);
    for (const id of COLOURS) this[id] = NaN;
  }

  private power(bin: number): number {
    return this.powers[bin]!;
  }

  private readPartials(f0: Hertz): void {
    const spacing = f0 / this.binHz;
    const last = this.fft.size / 2 - 2;
    let tone = 0;
    let noise = 0;
    let centroid = 0;
    let odd = 0;
    let even = 0;
    let strongest = 0;
    let below = this.valley(0.5 * spacing, spacing);
    let seen = 0;
    for (let k = 1; k <= PARTIALS && (k + 0.5) * spacing < last; k++) {
      const above = this.valley((k + 0.5) * spacing, spacing);
      const density = (below + above) / 2;
      below = above;
      // What the window lets through of the noise under the partial is no tone.
      const power = Math.max(this.peak(k * spacing) - density * this.gain, 1e-20);
      const beside = density * this.gain;
      this.partialsDb[k - 1] = decibels(power);
      this.noiseDb[k - 1] = decibels(beside);
      tone += power;
      centroid += k * power;
      if (k % 2) odd += power;
      else even += power;
      noise += (beside * spacing) / this.noiseBandwidth;
      strongest = Math.max(strongest, power);
      seen = k;
    }
    if (seen === 0) return;
    this.airinessDb = decibels(noise / tone);
    this.brightness = centroid / tone;
    this.oddEvenDb = seen > 1 ? decibels(odd / (even + 1e-20)) : NaN;
    const threshold = decibels(strongest) - 50;
    this.richness = 0;
    for (let k = 0; k < seen; k++) {
      const level = this.partialsDb[k]!;
      if (level >= threshold && level >= this.noiseDb[k]! + 10) this.richness++;
    }
  }

  /** Whether every second partial was overlooked: there is a tone half-way between those of `f0`, and below the first. */
  private isOctaveOfTone(f0: Hertz): boolean {
    const spacing = f0 / this.binHz;
    if (f0 / 2 < this.lowest || spacing < 4.2 * this.lobeBins) return false;
    let strongest = 0;
    for (let k = 0; k < PARTIALS; k++) {
      const power = 10 ** (this.partialsDb[k]! / 10);
      if (power > strongest) strongest = power;
    }
    let between = 0;
    let noise = this.powerAround(spacing / 4);
    let places = 1;
    for (let k = 1; k <= HALVES && (k + 1) * spacing < this.fft.size / 2 - 2; k++) {
      between = Math.max(between, this.peak((k + 0.5) * spacing));
      noise += this.powerAround((k + 0.25) * spacing) + this.powerAround((k + 0.75) * spacing);
      places += 2;
    }
    const audible = (SUB_MARGIN * noise * this.gain) / places;
    return (
      this.peak(spacing / 2) > Math.max(audible, strongest * 10 ** (HALF_DB / 10)) &&
      between > Math.max(audible, strongest * 10 ** (HALVES_DB / 10))
    );
  }

  /** Mean power of a few bins. */
  private powerAround(bin: number): number {
    const middle = Math.round(bin);
    return (this.power(middle - 1) + this.power(middle) + this.power(middle + 1)) / 3;
  }

  private readBelow(f0: Hertz): void {
    const spacing = f0 / this.binHz;
    const last = Math.floor(spacing - 1.25 * this.lobeBins);
    let top = 0;
    let best = 0;
    for (let i = Math.ceil(this.lobeBins); i <= last; i++) {
      const power = this.power(i);
      if (power > best && power >= this.power(i - 1) && power >= this.power(i + 1)) {
        best = power;
        top = i;
      }
    }
    if (top === 0 || best < SUB_MARGIN * this.valley(1.5 * spacing, spacing)) return;
    const [left, mid, right] = [top - 1, top, top + 1].map((i) => Math.log(this.power(i) + 1e-30)) as [
      number,
      number,
      number,
    ];
    const bend = left - 2 * mid + right;
    this.subHz = (top + (bend < 0 ? (left - right) / (2 * bend) : 0)) * this.binHz;
    this.subDb = decibels(best * this.gain) - this.partialsDb[0]!;
  }

  private readStrongest(): void {
    const { powers } = this;
    let best = 0;
    let top = NaN;
    for (let i = Math.ceil(this.lowest / this.binHz); i < this.fft.size / 2 - 1; i++)
      if (powers[i]! > best) {
        best = powers[i]!;
        top = i;
      }
    this.strongestHz = top * this.binHz;
  }

  /** Power of a steady sine near a fractional bin, full-scale sine = 0.5. */
  private peak(bin: number): number {
    const reach = Math.max(1, Math.round(this.lobeBins / MAIN_LOBE / 2));
    let top = Math.round(bin);
    let best = this.power(top);
    for (let i = Math.round(bin) - reach; i <= Math.round(bin) + reach; i++) {
      const p = this.power(i);
      if (p > best) {
        best = p;
        top = i;
      }
    }
    const left = Math.log(this.power(top - 1) + 1e-30);
    const mid = Math.log(best + 1e-30);
    const right = Math.log(this.power(top + 1) + 1e-30);
    const bend = left - 2 * mid + right;
    const lift = bend < 0 ? -((right - left) ** 2) / (8 * bend) : 0;
    return Math.exp(mid + lift) * this.gain;
  }

  /** Mean power in the stretch between two partials that neither main lobe reaches. */
  private valley(centre: number, spacing: number): number {
    const reach = Math.max(0.5, spacing / 2 - this.lobeBins);
    const from = Math.max(1, Math.ceil(centre - reach));
    const to = Math.min(this.fft.size / 2, Math.max(from, Math.floor(centre + reach)));
    let sum = 0;
    for (let i = from; i <= to; i++) sum += this.powers[i]!;
    return sum / (to - from + 1);
  }

  private refine(f0: Hertz, seconds: number): void {
    let weighted = 0;
    let weights = 0;
    for (let k = 1; k <= REFINING_PARTIALS; k++) {
      const margin = this.partialsDb[k - 1]! - this.noiseDb[k - 1]!;
      if (!(margin > REFINING_MARGIN_DB)) continue;
      const bin = 2 * Math.round((k * f0) / this.binHz);
      const re = this.current[bin]! * this.previous[bin]! + this.current[bin + 1]! * this.previous[bin + 1]!;
      const im = this.current[bin + 1]! * this.previous[bin]! - this.current[bin]! * this.previous[bin + 1]!;
      // Counted from what the partials below have said: a high partial alone may have turned by a whole circle more.
      const sofar = weights > 0 ? weighted / weights : 0;
      const turns = Math.atan2(im, re) / (2 * Math.PI) - k * (f0 + sofar) * seconds;
      const rest = turns - Math.round(turns);
      if (Math.abs(rest) > 0.3) continue;
      const offset = sofar + rest / (k * seconds);
      const weight = k * k * 10 ** (Math.min(margin, 60) / 10);
      weighted += weight * offset;
      weights += weight;
    }
    if (weights > 0) this.refinedF0 = f0 + weighted / weights;
  }
}
