import { detrended, type Hertz, median, rms, robustSlope, type Seconds } from '@/core/base';
import type { Vibrato } from './note';

const SLOWEST_HZ = 3.5;
const FASTEST_HZ = 8;
const STEP_HZ = 0.05;
/** Long enough for three and a half turns of the slowest vibrato, short enough to follow a changing one. */
const STRETCH: Seconds = 1;
const SHORTEST: Seconds = 0.55;
const LEAST_EXTENT_CENTS = 2.5;
/** Share of the pitch's variance that one sinusoid has to explain. */
const LEAST_SHARE = 0.55;

export interface PitchMotion {
  readonly vibrato: Vibrato | null;
  /** RMS of what neither the trend nor the vibrato explains. */
  readonly wobbleCents: number;
}

interface Fit {
  rate: number;
  amplitude: number;
  share: number;
}

/**
 * Tells a periodic swing of 3.5–8 Hz from irregular wobble: a sinusoid is fitted by least squares to each second of
 * the pitch; where it explains most of the variance in at least half of the seconds there is vibrato.
 *
 * @param pitchCents pitch against any reference, equally spaced, NaN where unknown, trend already removed.
 * @param quickCents the same from a short window; the swing is measured on it.
 * @param hop time between values. @param damping share of a swing at a rate that is left in `quickCents`; it is undone.
 */
export function pitchMotion(
  pitchCents: Float64Array,
  quickCents: Float64Array,
  hop: Seconds,
  damping: (rate: Hertz) => number,
): PitchMotion {
  const stretch = Math.min(quickCents.length, Math.round(STRETCH / hop));
  const whole = rms(pitchCents);
  if (stretch * hop < SHORTEST) return { vibrato: null, wobbleCents: whole };
  const fits: Fit[] = [];
  let residual = 0;
  let total = 0;
  for (let start = 0; start + stretch <= quickCents.length; start += Math.max(1, stretch >> 1)) {
    // A slow wander within the second is no part of the swing.
    const part = detrended(
      quickCents.subarray(start, start + stretch),
      lineThrough(quickCents, start, stretch),
    );
    const variance = rms(part) ** 2;
    const fit = bestSinusoid(part, hop);
    fits.push(fit);
    residual += variance * (1 - fit.share);
    total += variance;
  }
  const swinging = fits.filter((fit) => fit.share >= LEAST_SHARE && fit.amplitude >= LEAST_EXTENT_CENTS);
  if (swinging.length * 2 < fits.length) return { vibrato: null, wobbleCents: whole };
  const rateHz = median(swinging.map((fit) => fit.rate));
  const damped = median(swinging.map((fit) => fit.amplitude));
  return {
    vibrato: { rateHz, extentCents: damped / damping(rateHz) },
    wobbleCents: total > 0 ? rms(quickCents) * Math.sqrt(residual / total) : 0,
  };
}

/**
 * The middle of a swing, a value for every place where a whole turn is known: its mean over a turn. @param values NaN where unknown;
 * left out where most of a turn is. @param hop time between values.
 */
export function middlesOf(values: Float64Array, rateHz: Hertz, hop: Seconds): Float64Array {
  const turn = Math.max(1, Math.round(1 / (rateHz * hop)));
  const middles: number[] = [];
  let [sum, known] = [0, 0];
  const count = (value: number, by: 1 | -1) => {
    if (Number.isNaN(value)) return;
    sum += by * value;
    known += by;
  };
  values.forEach((value, i) => {
    count(value, 1);
    if (i >= turn) count(values[i - turn]!, -1);
    if (i >= turn - 1) middles.push(2 * known > turn ? sum / known : NaN);
  });
  return Float64Array.from(middles);
}

/** The vibrato of a stretch of the line, before it is known to be one note. @param pitch in MIDI numbers. */
export function vibratoIn(pitch: Float64Array, hop: Seconds): PitchMotion['vibrato'] {
  const cents = pitch.map((semitones) => 100 * semitones);
  const level = detrended(cents, robustSlope(cents));
  return pitchMotion(level, level, hop, () => 1).vibrato;
}

/** In a room the swings of a tone may look like pulses: so many partials of the swing are looked at, and the share that they have to explain. */
const SWING_PARTIALS = 3;
const LEAST_TOGETHER = 0.65;

/** Whether a stretch of the line swings regularly, in whatever shape, in at least half of its seconds. @param pitch in MIDI numbers. */
export function isRegular(pitch: Float64Array, hop: Seconds): boolean {
  const stretch = Math.min(pitch.length, Math.round(STRETCH / hop));
  if (stretch * hop < SHORTEST) return false;
  let [all, regular] = [0, 0];
  for (let start = 0; start + stretch <= pitch.length; start += Math.max(1, stretch >> 1)) {
    const part = detrended(pitch.subarray(start, start + stretch), lineThrough(pitch, start, stretch));
    const power = powerOf(part);
    let share = 0;
    for (let rate = SLOWEST_HZ; rate <= FASTEST_HZ; rate += STEP_HZ) {
      let sum = 0;
      for (let k = 1; k <= SWING_PARTIALS; k++) sum += sinusoidAt(k * rate, part, hop, power).share;
      share = Math.max(share, sum);
    }
    all++;
    if (share >= LEAST_TOGETHER) regular++;
  }
  return 2 * regular >= all;
}

/**
 * The sinusoid that explains most of how the pitch moves over a stretch, however little that is, and the share of the variance that it
 * explains. @param pitch in MIDI numbers.
 */
export function swingIn(
  pitch: Float64Array,
  hop: Seconds,
): { readonly swing: Vibrato; readonly share: number } {
  const cents = pitch.map((semitones) => 100 * semitones);
  const fit = bestSinusoid(detrended(cents, lineThrough(cents, 0, cents.length)), hop);
  return { swing: { rateHz: fit.rate, extentCents: fit.amplitude }, share: fit.share };
}

/** Least-squares slope per step over a stretch, unknown values passed over. */
function lineThrough(values: Float64Array, start: number, length: number): number {
  let n = 0;
  let sx = 0;
  let sy = 0;
  let sxx = 0;
  let sxy = 0;
  for (let i = 0; i < length; i++) {
    const y = values[start + i]!;
    if (Number.isNaN(y)) continue;
    n++;
    sx += i;
    sy += y;
    sxx += i * i;
    sxy += i * y;
  }
  const denominator = n * sxx - sx * sx;
  return denominator > 0 ? (n * sxy - sx * sy) / denominator : 0;
}

function bestSinusoid(values: Float64Array, hop: Seconds): Fit {
  const power = powerOf(values);
  let best: Fit = { rate: NaN, amplitude: 0, share: 0 };
  for (let rate = SLOWEST_HZ; rate <= FASTEST_HZ + 1e-9; rate += STEP_HZ) {
    const fit = sinusoidAt(rate, values, hop, power);
    if (fit.share > best.share) best = fit;
  }
  return best;
}

/** How many values are known, and the sum of their squares. */
interface Power {
  readonly energy: number;
  readonly count: number;
}

function powerOf(values: Float64Array): Power {
  let energy = 0;
  let count = 0;
  for (const value of values) {
    if (Number.isNaN(value)) continue;
    energy += value * value;
    count++;
  }
  return { energy, count };
}

/** How much of some values a sinusoid explains; nothing where too little is known. */
function sinusoidAt(rate: Hertz, values: Float64Array, hop: Seconds, { energy, count }: Power): Fit {
  if (energy < 1e-9 || count < 8) return { rate, amplitude: 0, share: 0 };
  let c = 0;
  let s = 0;
  // e^(i·phase) turned step by step: a sine and a cosine a rate instead of two a value.
  const cos = Math.cos(2 * Math.PI * rate * hop);
  const sin = Math.sin(2 * Math.PI * rate * hop);
  let re = 1;
  let im = 0;
  for (let i = 0; i < values.length; i++) {
    const value = values[i]!;
    if (!Number.isNaN(value)) {
      c += value * re;
      s += value * im;
    }
    const turned = re * cos - im * sin;
    im = re * sin + im * cos;
    re = turned;
  }
  const amplitude = (2 / count) * Math.hypot(c, s);
  return { rate, amplitude, share: Math.min(1, (amplitude * amplitude * count) / 2 / energy) };
}
