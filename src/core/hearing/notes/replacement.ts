import type { Midi } from '@/core/base';

/** Something else that sounded for a moment in the place of a note: a wrong mode or a squeak. Frames are half-open. */
export interface Replacement {
  readonly from: number;
  readonly to: number;
  /** Of what sounded. */
  readonly pitch: Midi;
  /** The note that it interrupts. */
  readonly note: Midi;
}

/** Two moments of novelty between which something may have taken a note's place, and the log-odds that it did. */
export interface Doubt {
  readonly from: number;
  readonly to: number;
  readonly odds: number;
}
