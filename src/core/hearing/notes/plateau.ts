import type { Seconds, Semitones } from '@/core/base';
import type { Instrument } from '@/core/instruments';

/** A stretch of frames on one pitch, half-open. */
export interface Plateau {
  readonly from: number;
  readonly to: number;
  /** Median pitch in MIDI numbers. */
  readonly pitch: number;
  /** No silence lies between this and the plateau before. */
  readonly joined: boolean;
}

/** What lasts shorter is no note. */
export const SHORTEST_NOTE: Seconds = 0.06;
/** Two plateaus nearer than this share of the instrument's smallest step are one pitch. */
const ONE_PITCH_STEPS = 0.6;

/** How far apart two pitches of an instrument are one: less than its notes are. */
export const onePitchOf = ({ step }: Pick<Instrument, 'step'>): Semitones => ONE_PITCH_STEPS * step;
