import type { Cents, Hertz, Midi } from '@/core/base';
import { midiToHertz } from '@/core/tuning';
import { fundamentalOf, soundingOf } from './lookup';
import type { Instrument } from './instrument';

/** Where a note sat, against its target. */
export interface PitchReading {
  readonly written: Midi;
  readonly cents: Cents;
  /** How much it is to be trusted against the others. */
  readonly weight: number;
}

export interface SlideAdvice {
  /** Positive is to pull, negative to push. */
  readonly millimetres: number;
  /** What is left for the player to do, note by note, once the slide is there. */
  readonly left: readonly { readonly written: Midi; readonly cents: Cents }[];
  /** Cents that the worst note is out by now, and would be then. */
  readonly worstNow: Cents;
  readonly worstThen: Cents;
}

const FURTHEST_MM = 25;
const STEP_MM = 0.1;

/** Speed of sound in air, mm a second: c = 331.3·√(1 + T/273.15) m/s. */
export const soundSpeed = (celsius: number): number => 331_300 * Math.sqrt(1 + celsius / 273.15);

/** Sounding length of a note's fingering in mm; for a cone a length that its sensitivity corresponds to. */
export function soundingLength(instrument: Instrument, written: Midi, a4: Hertz = 440, celsius = 20): number {
  const hertzOf = (note: Midi) => midiToHertz(soundingOf(instrument, fundamentalOf(instrument, note)), a4);
  const { tube } = instrument;
  if (tube.model === 'cone') {
    // A cone is drawn where its volume counts for more than its length: one figure, scaled by the tube's length.
    const at = hertzOf(tube.at);
    const length = 1 / (2 ** (tube.centsPerMm / 1200) - 1);
    return (length * at) / hertzOf(written);
  }
  return soundSpeed(celsius) / ((tube.model === 'open' ? 2 : 4) * hertzOf(written));
}

/** How far a note falls when the tube is pulled by some mm: 1200·log2(1 + x/L). */
export function loweredBy(millimetres: number, length: number): Cents {
  return 1200 * Math.log2(1 + millimetres / length);
}

/**
 * The pull (or push) that makes the weighted squares of what is left smallest, searched in tenths of a millimetre.
 * Null when nothing was read.
 * @param pulled how far it is out already, where that was told: it cannot be pushed in further than that.
 */
export function slideAdvice(
  instrument: Instrument,
  readings: readonly PitchReading[],
  a4: Hertz = 440,
  celsius = 20,
  pulled: number | null = null,
): SlideAdvice | null {
  if (readings.length === 0) return null;
  const lengths = readings.map(({ written }) => soundingLength(instrument, written, a4, celsius));
  const left = (x: number) => readings.map(({ cents }, i) => cents - loweredBy(x, lengths[i]!));
  const cost = (x: number) => left(x).reduce((sum, cents, i) => sum + readings[i]!.weight * cents * cents, 0);
  let best = 0;
  const furthestIn = Math.min(FURTHEST_MM, pulled ?? FURTHEST_MM);
  for (let step = -Math.floor(furthestIn / STEP_MM); step <= FURTHEST_MM / STEP_MM; step++)
    if (cost(step * STEP_MM) < cost(best)) best = step * STEP_MM;
  const millimetres = Math.round(best * 10) / 10;
  const most = (values: readonly number[]) => Math.max(...values.map(Math.abs));
  return {
    millimetres,
    left: left(millimetres).map((cents, i) => ({ written: readings[i]!.written, cents })),
    worstNow: most(left(0)),
    worstThen: most(left(millimetres)),
  };
}

/** How far pitch goes with temperature, for the share of the bore that follows the room. */
export function warmedBy(from: number, to: number, share = 0.6): Cents {
  return share * 1200 * Math.log2(Math.sqrt((to + 273.15) / (from + 273.15)));
}
