/**
 * Units as names. They are plain numbers at run time; the names say what a number is.
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
