/**
 * Units as names, and the lengths of time that are counted in more than one room. Units are plain numbers at run time; the
 * names say what a number is.
 */

/** Hundredths of an equal-tempered semitone: 1200·log2(f / reference). */
export type Cents = number;
/** Level; in dB relative to full scale (dBFS) unless a docstring says otherwise. */
export type Decibels = number;
export type Seconds = number;
export type Hertz = number;
/** Semitones on the MIDI scale, 69 = A4. Fractions are allowed for measured pitches. */
export type Midi = number;
export type Semitones = number;
/** Beats per minute. */
export type Tempo = number;

export const MINUTE_MS = 60_000;
export const HOUR_MS = 60 * MINUTE_MS;
export const DAY_MS = 24 * HOUR_MS;
export const DAY_SECONDS = DAY_MS / 1000;

/** Beats. Two places in the music that are nearer than this are one: sums of fractions of a beat are off by rounding alone. */
export const SAME_BEAT = 1e-6;
