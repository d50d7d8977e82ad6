import { cross, minIndex, range as countedUp } from 'd3-array';
import { clamp, type Hertz, type Seconds } from '@/core/base';
import { workOf } from './work';

/** What a listener is told about the instrument: all it needs to choose windows and search range. */
export interface ListeningRange {
  readonly lowestHz: Hertz;
  readonly highestHz: Hertz;
  /**
   * Up to here some notes have so little in their odd partials that they nearly repeat twice a period (double reeds, whose formant
   * lifts the second partial). Saxophones do the opposite: alternate periods differ a little. Both cannot be allowed for.
   */
  readonly weakOddUpToHz?: Hertz;
}

/**
 * When a shorter period makes its multiples redundant: when it falls short of the best clarity by no more than `fully`,
 * and not at all from `noMore`, once `noiseShare` times what the best itself falls short of 1 has been allowed for noise.
 */
export interface Redundancy {
  readonly fully: number;
  readonly noMore: number;
  readonly noiseShare: number;
}

const ORDINARY_REDUNDANCY: Redundancy = { fully: 0.04, noMore: 0.1, noiseShare: 0 };
const WEAK_ODD_REDUNDANCY: Redundancy = { fully: 0.014, noMore: 0.033, noiseShare: 4 };

/** One search for periods: window and range of lags, in samples at the decimated rate. */
export interface PeriodicitySettings {
  readonly rate: Hertz;
  readonly window: number;
  readonly fftSize: number;
  readonly minLag: number;
  readonly maxLag: number;
  /** What repeats itself more often is a partial of something: lags are whole, and the shortest may lie beyond this. */
  readonly aboveAll: Hertz;
  readonly redundancy: Redundancy;
}

/** Everything about how samples become frames, derived once from sample rate and range. */
export interface Settings {
  readonly sampleRate: Hertz;
  /** Input samples from one frame to the next; frames are centred on multiples of it. */
  readonly hop: number;
  readonly hopSeconds: Seconds;
  /** How much slower than the input the stream is that pitch is searched in. */
  readonly pitchDecimation: number;
  /** Long enough for the lowest note. */
  readonly pitch: PeriodicitySettings;
  /** A window for the upper notes only, short enough for the briefest wrong mode; null where `pitch` is that already. */
  readonly brief: PeriodicitySettings | null;
  readonly spectrum: {
    readonly decimation: number;
    /** Samples at the decimated rate that one spectrum sees; the rest of the transform is zeros. */
    readonly window: number;
    readonly fftSize: number;
    /** Frames from one spectrum to the next. */
    readonly every: number;
  };
  readonly minHz: Hertz;
  readonly maxHz: Hertz;
  /** Hops on each side of a frame's centre that its level is averaged over. */
  readonly levelHops: number;
}

/** How much of the sound one spectrum sees. */
export const spectrumSeconds = ({
  spectrum,
  sampleRate,
}: Pick<Settings, 'spectrum' | 'sampleRate'>): Seconds =>
  (spectrum.window * spectrum.decimation) / sampleRate;

const HOP: Seconds = 0.0054;
/** Lowest rate at which the pitch search still has enough samples a period to place its peaks. */
const SAMPLES_PER_SHORTEST_PERIOD = 6.5;
/** Telling a nearly repeated half period from a repeated one asks for better placed peaks. */
const SAMPLES_WITH_WEAK_ODD_PARTIALS = 13;
/** Enough of the upper partials has to be left for a tone to outweigh small differences from period to period. */
const PITCH_RATE_PER_HIGHEST = 10;
const LOWEST_PITCH_RATE: Hertz = 4000;
const ENOUGH_PITCH_RATE: Hertz = 8000;
/** Of a tone a little below the range: 2.7 periods of the lowest note. */
const PERIODS_IN_PITCH_WINDOW = 2.4;
/** And no fewer where a transform of half the length then holds them: 2.5 of the lowest note. */
const FEWEST_IN_PITCH_WINDOW = 2.2;
const SHORTEST_PITCH_WINDOW: Seconds = 0.008;
/** The brief window serves notes from this many times the lowest, or from this frequency, upward. */
const BRIEF_RANGE = 3;
const BRIEF_LOWEST: Hertz = 220;
/** Periods of the lowest note that a spectrum spans, so that its partials stand well apart. */
const PERIODS_IN_SPECTRUM = 6.5;
const NARROWEST_SPECTRUM: Hertz = 5000;
/** Of the highest notes, as far as a filter for this rate lets them through. */
const PARTIALS_OF_HIGHEST = 3;
/** A little more than two, for the filter. */
const SAMPLES_PER_BAND = 2.2;
/** More spectra in the length of one tell nothing new. */
const SPECTRA_IN_WINDOW = 7;
const FEWEST_FRAMES_A_SPECTRUM = 2;
const MOST_FRAMES_A_SPECTRUM = 4;

const nextPowerOfTwo = (n: number) => 2 ** Math.ceil(Math.log2(n));

function periodicitySettings(
  rate: Hertz,
  minHz: Hertz,
  maxHz: Hertz,
  aboveAll: Hertz,
  redundancy: Redundancy,
): PeriodicitySettings {
  const maxLag = Math.ceil(rate / minHz) + 2;
  const samples = (periods: number) => Math.ceil(rate * Math.max(periods / minHz, SHORTEST_PITCH_WINDOW));
  const wanted = samples(PERIODS_IN_PITCH_WINDOW);
  const fftSize = nextPowerOfTwo(samples(FEWEST_IN_PITCH_WINDOW) + maxLag + 1);
  return {
    rate,
    window: Math.min(wanted, fftSize - maxLag - 1),
    maxLag,
    minLag: Math.max(2, Math.floor(rate / maxHz) - 1),
    aboveAll,
    fftSize,
    redundancy,
  };
}

/** What a take's streams have to carry, whatever their rates. */
interface Wanted {
  readonly sampleRate: Hertz;
  readonly hop: number;
  readonly minHz: Hertz;
  readonly maxHz: Hertz;
  readonly aboveAll: Hertz;
  readonly redundancy: Redundancy;
}

/** The rates that a take is read at, and the windows that come of them. */
type Rates = Pick<Settings, 'hop' | 'pitchDecimation' | 'pitch' | 'brief' | 'spectrum'>;

function ratesBy(pitchDecimation: number, decimation: number, wanted: Wanted): Rates {
  const { sampleRate, hop, minHz, maxHz, aboveAll, redundancy } = wanted;
  const search = (lowest: Hertz) =>
    periodicitySettings(sampleRate / pitchDecimation, lowest, maxHz, aboveAll, redundancy);
  const pitch = search(minHz);
  const brief = search(Math.min(minHz * BRIEF_RANGE, BRIEF_LOWEST));
  const isBriefer = brief.window < 0.7 * pitch.window;
  const window = Math.ceil((PERIODS_IN_SPECTRUM * sampleRate) / decimation / minHz);
  const framesApart = Math.floor((window * decimation) / hop / SPECTRA_IN_WINDOW);
  return {
    hop,
    pitchDecimation,
    pitch,
    brief: isBriefer ? brief : null,
    spectrum: {
      decimation,
      window,
      fftSize: nextPowerOfTwo(window),
      every: clamp(framesApart, FEWEST_FRAMES_A_SPECTRUM, MOST_FRAMES_A_SPECTRUM),
    },
  };
}

/**
 * @throws RangeError when the sample rate is outside 8–192 kHz or cannot carry the instrument's lowest notes.
 */
export function listeningSettings(sampleRate: Hertz, range: ListeningRange): Settings {
  if (!(sampleRate >= 8000 && sampleRate <= 192_000)) {
    throw new RangeError(`sampleRate must be between 8000 and 192000 Hz, got ${sampleRate}`);
  }
  // A whole tone below the written range and a fifth above it: bent notes and overshot modes stay in sight.
  const minHz = range.lowestHz / 1.13;
  const aboveAll = range.highestHz * 1.5;
  const maxHz = Math.min(aboveAll, sampleRate * 0.42);
  if (!(minHz * 4 < maxHz))
    throw new RangeError(`a sample rate of ${sampleRate} Hz is too low for this instrument`);

  const hop = Math.floor(HOP * sampleRate);
  const { weakOddUpToHz = 0 } = range;
  const highest = Math.min(maxHz, range.highestHz);
  const leastRate = Math.max(
    LOWEST_PITCH_RATE,
    Math.min(ENOUGH_PITCH_RATE, PITCH_RATE_PER_HIGHEST * highest),
    SAMPLES_PER_SHORTEST_PERIOD * highest,
    SAMPLES_WITH_WEAK_ODD_PARTIALS * weakOddUpToHz,
  );
  const band = Math.max(NARROWEST_SPECTRUM, PARTIALS_OF_HIGHEST * range.highestHz, 16 * range.lowestHz);
  const narrowest = Math.min(16 * range.highestHz, band);

  const redundancy = weakOddUpToHz > 0 ? WEAK_ODD_REDUNDANCY : ORDINARY_REDUNDANCY;
  const wanted = { sampleRate, hop, minHz, maxHz, aboveAll, redundancy };

  // Of all rates that carry what each stream has to show, those that cost least together: where the one's is a multiple of the
  // other's it is made from it, and a transform of twice the length may hang on a few samples.
  const upTo = (rate: Hertz) => countedUp(1, Math.max(1, Math.floor(sampleRate / rate)) + 1);
  const choices = cross(upTo(leastRate), upTo(SAMPLES_PER_BAND * narrowest), (pitch, spectrum) =>
    ratesBy(pitch, spectrum, wanted),
  );
  const rates = choices[minIndex(choices, workOf)]!;

  return {
    sampleRate,
    hopSeconds: hop / sampleRate,
    ...rates,
    minHz,
    maxHz,
    levelHops: Math.max(2, Math.ceil((1.25 / minHz) * (sampleRate / hop))),
  };
}
