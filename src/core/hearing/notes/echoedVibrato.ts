import { Cholesky, type Decibels, detrended, type Hertz, rms, robustSlope, type Seconds } from '@/core/base';
import { echoShareOf, SIXTY_DB, type RoomSound } from '@/core/hearing/room';
import type { Frames } from '@/core/hearing/signal';
import type { Vibrato } from './note';
import { indexOf, linesOf, withoutSwing, type Lines } from './swingLines';
import type { PitchMotion } from './vibrato';

/** Stretches of a vibrato, half overlapping, that are looked at by themselves. */
const STRETCH: Seconds = 1;
const SHORTEST: Seconds = 0.55;
/** How much of the power of the lines a vibrato that is not quite regular, and noise, leave elsewhere. */
const UNEVEN = 3e-3;
/** Extents that are tried, as shares of the one that the pitch showed; and phases. */
const EXTENTS = Float64Array.from({ length: 41 }, (_, i) => 0.5 * 8 ** (i / 40));
const PHASES = 20;
/** A likelihood that is spread over more than this, as a logarithm of the extent, tells nothing. */
const TOO_WIDE = 0.2;
/**
 * What is added to lines of any strengths, so that none is nothing. Less of it would count each line that nobody hears for them, and
 * a narrow swing has many.
 */
const FAINTEST = 0.02;

/** A room whose echoes are heard. */
interface Ringing {
  readonly decaySeconds: Seconds;
  readonly spreadDb: Decibels;
}

/**
 * A vibrato that is heard with its echoes. They lag behind, so that the pitch swings less, more or elsewhere from partial to
 * partial, and not as a sinusoid: what is left beside one is no wobble, only what moves the middle of the swing is.
 *
 * But what is played is known up to its extent m and phase φ: partial h of a swing at the rate Ω is a row of lines
 * J_k(hm)·e^(ikφ) at hω + kΩ (Bessel functions), and the room takes each of them by its own response there. Responses of a
 * room are, beside the direct sound, complex Gaussian, and alike from one line to another as 1/(1 + i(k−l)Ω·T/13.8) (Schroeder,
 * JASA 34, 1962; decay T). The likelihood of the lines of all partials, each of unknown strength, is summed over phases, and the
 * extent is its mean.
 *
 * @param quickHz the pitch from the frame `from` on, NaN where unknown. @param seen what that pitch shows.
 * @returns `seen` without a vibrato, or where too little is known; its extent where the lines do not tell another.
 */
export function amidEchoes(
  frames: Frames,
  quickHz: Float64Array,
  from: number,
  seen: PitchMotion,
  room: RoomSound,
): PitchMotion {
  const { vibrato } = seen;
  const { decaySeconds, spreadDb } = room;
  if (!vibrato || decaySeconds === null || spreadDb === null) return seen;
  const middle = withoutSwing(quickHz, vibrato.rateHz, frames.hopSeconds);
  if (!middle) return seen;
  const cents = middle.map((hertz) => 1200 * Math.log2(hertz));
  const extentCents =
    extentOf(frames, middle, from, vibrato, { decaySeconds, spreadDb }) ?? vibrato.extentCents;
  return { vibrato: { ...vibrato, extentCents }, wobbleCents: rms(detrended(cents, robustSlope(cents))) };
}

/** @param middle the pitch without its swing, Hz. @returns cents, or null where the lines do not tell. */
function extentOf(
  frames: Frames,
  middle: Float64Array,
  from: number,
  vibrato: Vibrato,
  room: Ringing,
): number | null {
  const length = Math.min(middle.length, Math.round(STRETCH / frames.hopSeconds));
  if (length * frames.hopSeconds < SHORTEST) return null;
  const likelihoods = likelihoodsOf(vibrato, middle[middle.length >> 1]!, room);
  const logs = new Float64Array(EXTENTS.length);
  for (let start = 0; start + length <= middle.length; start += length >> 1) {
    const here = middle.subarray(start, start + length);
    const readings = linesOf(frames, here, from + start, vibrato).map(likelihoods);
    for (let i = 0; i < logs.length; i++) logs[i]! += logSum(readings.map((each) => each[i]!));
  }
  return meanExtent(logs, vibrato.extentCents);
}

/** Log-likelihoods of lines, one for each of the extents, of a vibrato about f0. */
function likelihoodsOf(vibrato: Vibrato, f0: Hertz, room: Ringing) {
  const index = indexOf(vibrato, f0);
  const known = new Map<string, Cholesky>();
  const covariance = (x: number, lines: number) => {
    const key = `${lines} ${x}`;
    const found = known.get(key) ?? covarianceOf(x, lines, vibrato.rateHz, room);
    known.set(key, found);
    return found;
  };
  return (lines: readonly Lines[]): Float64Array =>
    EXTENTS.map((share) => likelihoodOf(lines, share * index, covariance));
}

/**
 * That a stretch of sound is one tone that swings, and not a tone that is begun again and again: how much better what a vibrato makes of
 * all partials explains their lines than lines of any strengths would, the same for all partials (as of tones that are begun in step).
 *
 * @param pitchHz of the stretch from the frame `from` on, NaN where unknown. @param swing how it seems to swing.
 * @returns log-odds, a partial; 0 where too little is known.
 */
export function evidenceOfSwing(
  frames: Frames,
  pitchHz: Float64Array,
  from: number,
  swing: Vibrato,
  room: Ringing,
): number {
  if (pitchHz.length * frames.hopSeconds < SHORTEST) return 0;
  const middle = withoutSwing(pitchHz, swing.rateHz, frames.hopSeconds);
  if (!middle) return 0;
  const likelihoods = likelihoodsOf(swing, middle[middle.length >> 1]!, room);
  const evidence = linesOf(frames, middle, from, swing).map(
    (lines) => (Math.max(...likelihoods(lines)) - Math.log(PHASES) - likelihoodAsAny(lines)) / lines.length,
  );
  return Math.max(...evidence);
}

/** Log-likelihood of lines that are independent, each as strong in all partials as it is in their mean. */
function likelihoodAsAny(lines: readonly Lines[]): number {
  const size = lines[0]?.re.length ?? 0;
  const means = new Float64Array(size);
  let volume = 0;
  for (let k = 0; k < size; k++) {
    let power = 0;
    for (const { re, im } of lines) power += re[k]! ** 2 + im[k]! ** 2;
    means[k] = power / lines.length + FAINTEST;
    volume += Math.log(means[k]!);
  }
  let log = 0;
  for (const { re, im } of lines) {
    let power = 0;
    for (let k = 0; k < size; k++) power += (re[k]! ** 2 + im[k]! ** 2) / means[k]!;
    log -= size * Math.log(power / size) + volume;
  }
  return log;
}

/** The likeliest, by the mean of its logarithm. */
function meanExtent(logs: Float64Array, heard: number): number | null {
  const most = Math.max(...logs);
  let weights = 0;
  let sum = 0;
  let squares = 0;
  logs.forEach((log, i) => {
    const weight = Math.exp(log - most);
    const x = Math.log(EXTENTS[i]!);
    weights += weight;
    sum += weight * x;
    squares += weight * x * x;
  });
  const mean = sum / weights;
  const isAtEdge = logs[0] === most || logs[logs.length - 1] === most;
  const width = Math.sqrt(Math.max(0, squares / weights - mean * mean));
  return isAtEdge || width > TOO_WIDE ? null : heard * Math.exp(mean);
}

/** log Σ over phases of the likelihood of all partials' lines at a modulation index (of partial 1, radians). */
function likelihoodOf(
  lines: readonly Lines[],
  index: number,
  covariance: (index: number, lines: number) => Cholesky,
): number {
  const size = lines[0]?.re.length ?? 0;
  const both = new Float64Array(2 * size);
  const factors = lines.map(({ h }) => covariance(h * index, size >> 1));
  const volume = factors.reduce((sum, factor) => sum + factor.logDeterminant / 2, 0);
  const logs = Array.from({ length: PHASES }, (_, phase) => {
    let log = -volume;
    // A phase turns each line by as many times itself; here they are turned back.
    const turn = (2 * Math.PI * phase) / PHASES;
    const cos = Float64Array.from({ length: size }, (__, k) => Math.cos(turn * ((size >> 1) - k)));
    const sin = Float64Array.from({ length: size }, (__, k) => Math.sin(turn * ((size >> 1) - k)));
    lines.forEach(({ re, im }, p) => {
      for (let k = 0; k < size; k++) {
        both[k] = re[k]! * cos[k]! - im[k]! * sin[k]!;
        both[size + k] = re[k]! * sin[k]! + im[k]! * cos[k]!;
      }
      factors[p]!.whiten(both);
      let power = 0;
      for (const x of both) power += x * x;
      // The strength of the partial is unknown: the likeliest is taken.
      log -= size * Math.log(power / size);
    });
    return log;
  });
  return logSum(logs);
}

/** log Σ e^x. */
function logSum(logs: readonly number[]): number {
  const most = Math.max(...logs);
  return most + Math.log(logs.reduce((sum, log) => sum + Math.exp(log - most), 0));
}

/** Covariance of the lines of a partial of this index at phase 0, as a real matrix twice as large. @param lines on each side. */
function covarianceOf(
  index: number,
  lines: number,
  rate: Hertz,
  { decaySeconds, spreadDb }: Ringing,
): Cholesky {
  const size = 2 * lines + 1;
  const echoes = echoShareOf(spreadDb);
  const lag = (2 * Math.PI * rate * decaySeconds) / SIXTY_DB;
  const bessels = besselsOf(index, lines);
  // J₋ₖ = (−1)ᵏJₖ.
  const bessel = Float64Array.from({ length: size }, (_, k) =>
    k < lines && (lines - k) % 2 === 1 ? -bessels[lines - k]! : bessels[Math.abs(k - lines)]!,
  );
  return new Cholesky(2 * size, (row, column) => {
    const [k, l] = [row % size, column % size];
    const apart = (k - l) * lag;
    const share = echoes / (1 + apart * apart);
    const isReal = row < size === column < size;
    const both = bessel[k]! * bessel[l]!;
    if (!isReal) return (row < size ? 1 : -1) * both * share * apart;
    return both * (1 - echoes + share) + (k === l ? UNEVEN : 0);
  });
}

/**
 * Bessel functions of the first kind J₀(x) … J_most(x), by their recurrence from high orders down, where it is stable (Miller), and
 * J₀ + 2ΣJ₂ₖ = 1.
 */
function besselsOf(x: number, most: number): Float64Array {
  const values = new Float64Array(most + 1);
  if (x < 1e-9) {
    values[0] = 1;
    return values;
  }
  const top = 2 * Math.ceil((Math.max(most, x) + 20) / 2);
  let [above, here] = [0, 1e-30];
  let sum = 0;
  for (let order = top; order >= 0; order--) {
    if (order <= most) values[order] = here;
    if (order % 2 === 0) sum += order > 0 ? 2 * here : here;
    [above, here] = [here, ((2 * order) / x) * here - above];
    if (Math.abs(here) > 1e200) {
      // Only their ratios count until they are scaled.
      [above, here, sum] = [1e-200 * above, 1e-200 * here, 1e-200 * sum];
      for (let k = order; k <= most; k++) values[k]! *= 1e-200;
    }
  }
  return values.map((value) => value / sum);
}
