import type { Hertz, Seconds } from '@/core/tuning';
import type { Settings } from './settings';

/**
 * What was heard, frame by frame: columns of equal length, frame i centred at `startSeconds + i·hopSeconds`.
 * NaN stands for unknown: no pitch, or nothing that could be told.
 */
export interface Frames {
  readonly count: number;
  readonly hopSeconds: Seconds;
  readonly startSeconds: Seconds;
  readonly settings: Settings;
  /** Hz. */
  readonly f0: Float32Array;
  /** How periodic the frame is, 0 … 1. */
  readonly clarity: Float32Array;
  /** dBFS. */
  readonly levelDb: Float32Array;
  readonly airinessDb: Float32Array;
  readonly brightness: Float32Array;
  readonly richness: Float32Array;
  readonly oddEvenDb: Float32Array;
  /** 1 where samples reached full scale. */
  readonly clipped: Uint8Array;
  /** 1 where another known sound (a metronome's click) covers the frame; its figures are not the player's. */
  readonly masked: Uint8Array;
  /** Samples that were not numbers, replaced by silence. */
  readonly badSamples: number;
}

/** One frame as the live view gets it. */
export interface LiveFrame {
  readonly index: number;
  readonly f0: Hertz;
  readonly levelDb: number;
  readonly airinessDb: number;
}
