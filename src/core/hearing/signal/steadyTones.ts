import { type Decibels, type Hertz, median, quantile, type Seconds } from '@/core/base';
import { RealFft } from './realFft';

const WINDOW: Seconds = 0.34;
/** Windows looked at in a take, however long it is. */
const WINDOWS = 96;
const LEAST_WINDOWS = 12;
/** No drone and no hum has partials worth noting above it. */
const HIGHEST: Hertz = 2500;
const LOWEST: Hertz = 40;
/** What sounds all along stands by so much over what is beside it, where both are softest. */
const OVER: Decibels = 14;
/** What is softer than this against the loudest is lost in the player's sound, and does no harm. */
const MATTERS: Decibels = -60;
/** Bins on each side that it is compared with. */
const BESIDE = 24;
/** Where nothing plays over it, its level moves by no more. */
const STEADY: Decibels = 3;
/** Shares of the windows in which a frequency is at its softest, and in which it is still free of the player. */
const [SOFTEST, FREE] = [0.04, 0.2];

/**
 * Frequencies that sound at one pitch and level from the beginning of a recording to its end, whatever is played over them: a
 * drone, a hum. By the spectrum's minima over time (as in Martin 2001, but for tones): what a player sounds is silent
 * somewhere.
 * @param samples of any scale.
 * @returns Hz to about a hundredth, rising; none where the recording is too short to tell.
 */
export function steadyTones(samples: ArrayLike<number>, sampleRate: Hertz): Hertz[] {
  const size = 2 ** Math.ceil(Math.log2(WINDOW * sampleRate));
  // A quarter of a window further on, for the phase.
  const later = size >> 2;
  const room = samples.length - size - later;
  const count = Math.min(WINDOWS, Math.floor(room / size) * 2);
  if (count < LEAST_WINDOWS) return [];
  const binHz = sampleRate / size;
  const bins = Math.min(size / 2, Math.ceil(HIGHEST / binHz) + BESIDE);
  const spectrum = spectrumOf(size);
  const levels = Array.from({ length: bins }, () => new Float64Array(count));
  for (let i = 0; i < count; i++) {
    const out = spectrum(samples, Math.round((i * room) / (count - 1)));
    for (let bin = 0; bin < bins; bin++)
      levels[bin]![i] = 10 * Math.log10(out[2 * bin]! ** 2 + out[2 * bin + 1]! ** 2 + 1e-20);
  }
  const loudest = Math.max(
    ...levels.map((row) => row.reduce((most, level) => Math.max(most, level), -Infinity)),
  );
  const softest = levels.map((row) => quantile(row, SOFTEST));
  const found: Hertz[] = [];
  for (let bin = Math.ceil(LOWEST / binHz); bin < bins - BESIDE; bin++) {
    const here = softest[bin]!;
    if (here < loudest + MATTERS) continue;
    if (here < softest[bin - 1]! || here < softest[bin + 1]!) continue;
    if (here - median(softest.slice(bin - BESIDE, bin + BESIDE + 1)) < OVER) continue;
    const row = levels[bin]!;
    const isThroughout = [row[0]!, row[count - 1]!].every((level) => level > here - STEADY);
    if (!isThroughout || quantile(row, FREE) - here > STEADY) continue;
    // The window in which it is most alone tells its frequency: the one at its usual level there.
    const alone = row.findIndex((level) => Math.abs(level - here) < STEADY);
    const at = Math.round((alone * room) / (count - 1));
    found.push(frequencyOf(spectrum, samples, at, later, bin, sampleRate, size));
  }
  return found;
}

type Spectrum = (samples: ArrayLike<number>, at: number) => Float64Array;

/** Spectra of windows of a recording, Blackman–Harris: a loud note elsewhere must not leak over a soft tone. */
function spectrumOf(size: number): Spectrum {
  const fft = new RealFft(size);
  const [windowed, out] = [new Float64Array(size), new Float64Array(size + 2)];
  const shape = Float64Array.from({ length: size }, (_, i) =>
    [0.35875, -0.48829, 0.14128, -0.01168].reduce(
      (sum, weight, k) => sum + weight * Math.cos((2 * Math.PI * k * i) / size),
      0,
    ),
  );
  return (samples, at) => {
    for (let i = 0; i < size; i++) windowed[i] = samples[at + i]! * shape[i]!;
    fft.forward(windowed, out);
    return out;
  };
}

/** Frequency of what is nearest to a bin, by how far its phase goes from one window to the next. */
function frequencyOf(
  spectrum: Spectrum,
  samples: ArrayLike<number>,
  at: number,
  later: number,
  bin: number,
  sampleRate: Hertz,
  size: number,
): Hertz {
  const phase = (from: number) => {
    const out = spectrum(samples, from);
    return Math.atan2(out[2 * bin + 1]!, out[2 * bin]!);
  };
  const turns = (phase(at + later) - phase(at)) / (2 * Math.PI);
  const expected = (bin * later) / size;
  return ((expected + (turns - expected - Math.round(turns - expected))) * sampleRate) / later;
}
