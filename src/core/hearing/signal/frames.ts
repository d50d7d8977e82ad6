import type { ColourId, Hertz, Seconds } from '@/core/base';
import type { Settings } from './settings';

/**
 * What was heard, frame by frame: columns of equal length, frame i centred at `startSeconds + i·hopSeconds`.
 * NaN stands for unknown: no pitch, or nothing that could be told.
 */
export interface Frames extends Readonly<Record<ColourId, Float32Array>> {
  readonly count: number;
  readonly hopSeconds: Seconds;
  readonly startSeconds: Seconds;
  readonly settings: Settings;
  /** Hz. */
  readonly f0: Float32Array;
  /** The pitch as the short window alone found it: less fine, but quick enough for a swing. */
  readonly quickF0: Float32Array;
  /** The same from the brief window, for the notes that it serves; NaN elsewhere. See `Settings.brief`. */
  readonly briefF0: Float32Array;
  /** How periodic the frame is, 0 … 1. */
  readonly clarity: Float32Array;
  /** dBFS. */
  readonly levelDb: Float32Array;
  /** The strongest component below partial 1: Hz, and dB against partial 1. */
  readonly subHz: Float32Array;
  readonly subDb: Float32Array;
  /** The strongest component of all, Hz. */
  readonly strongestHz: Float32Array;
  /** Mean level of the single hop that ends at each frame's centre, dBFS: quick, but uneven below one period. */
  readonly hopDb: Float32Array;
  /** Share of the partials' amplitude that does not carry on what was there, 0 … 1.5, and how much they grow: see Continuity. */
  readonly novelty: Float32Array;
  readonly growthDb: Float32Array;
  /** Amplitudes of partials 1 … 8 over a short window, a row for every frame; 0 where there is no pitch. */
  readonly quickPartials: Float32Array;
  /** Partials 1 … 16 in dBFS, a row for every `settings.spectrum.every` frames; see `partialsAt`. */
  readonly partialsDb: Float32Array;
  /** The sound itself at `settings.pitch.rate`, for a closer look at a moment: sample m stands at m / rate seconds. */
  readonly sound: Float32Array;
  /** 1 where samples reached full scale. */
  readonly clipped: Uint8Array;
  /** 1 where another known sound (a metronome's click) covers the frame, or sound was lost: its figures are not the player's. */
  readonly masked: Uint8Array;
  /** Sound that the device lost; frames that touch it are masked. */
  readonly lost: readonly { readonly startSeconds: Seconds; readonly endSeconds: Seconds }[];
  /** Samples that were not numbers, replaced by silence. */
  readonly badSamples: number;
  /** Frequencies of steady tones that were taken out before measuring. */
  readonly removedHz: readonly Hertz[];
  /** How much was taken out in each hop, dBFS; empty when nothing was. */
  readonly removedDb: Float32Array;
}

/** One frame as the live view gets it. */
export interface LiveFrame {
  readonly index: number;
  readonly f0: Hertz;
  readonly levelDb: number;
  readonly airinessDb: number;
  /** Partials that stand out. */
  readonly richness: number;
}

/** So many partials of a tone are measured, the fundamental the first. */
export const PARTIALS = 16;

/** Levels of partials 1 … 16 of the spectrum that speaks for a frame. */
export function partialsAt(frames: Frames, frame: number): Float32Array {
  const row = PARTIALS * Math.floor(frame / frames.settings.spectrum.every);
  return frames.partialsDb.subarray(row, row + PARTIALS);
}
