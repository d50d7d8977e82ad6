import type { Midi, Semitones } from '@/core/tuning';

/** What makes the sound; decides which causes a fault can have. */
export type Kind = 'edge' | 'ducted' | 'single-reed' | 'double-reed';

export type Clef = 'treble' | 'bass';

/** A practical register: the stretch of written notes that a player works in as one. */
export interface Register {
  readonly id: string;
  readonly name: string;
  /** Lowest and highest written note, both included. */
  readonly low: Midi;
  readonly high: Midi;
  /** Acoustic mode from the given written note upward, in rising order; the first starts at `low`. */
  readonly modes: readonly { readonly from: Midi; readonly mode: number }[];
}

/** An instrument as data. All note numbers are written pitches. */
export interface Instrument {
  readonly id: string;
  readonly name: string;
  readonly kind: Kind;
  /** Which modes the tube has: every multiple of the fundamental, or the odd ones (cylinder closed by a reed). */
  readonly series: 'harmonic' | 'odd';
  readonly clef: Clef;
  /** Sounding pitch minus written pitch. */
  readonly transposition: Semitones;
  /** A written note that most players can hold well: where one starts. */
  readonly home: Midi;
  /** Registers from low to high, without holes or overlap. */
  readonly registers: readonly Register[];
}
