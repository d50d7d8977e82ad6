import type { Midi } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import type { Score } from '@/core/music';
import type { Conditions, Timing } from '@/core/take';
import type { Chart } from './charts';
import type { Fault } from './fault';
import type { Figure } from './figure';
import type { FigureId } from './figures';
import type { Limits } from './limits';
import type { Match } from '@/core/hearing/matching';
import type { Reading } from './reading';

/** Numbers that are drawn as a line: of a group of the score, by what they are. */
export interface Curve {
  readonly of: 'level' | 'asked' | 'pitch' | 'richness' | 'sweep-up' | 'sweep-down' | 'bend';
  readonly at: number;
  readonly points: readonly { readonly x: number; readonly y: number }[];
}

/** What a measure finds: numbers, and nothing that is said of them. */
export interface Measured {
  readonly figures: readonly Figure[];
  readonly curves: readonly Curve[];
}

/** What figures are held against, and by what they are named. */
export interface Judging {
  readonly score: Score;
  readonly instrument: Instrument;
  readonly limits: Limits;
  readonly matches: readonly Match[];
  /** How the way from loudspeaker to microphone is known: when it is only assumed, beats are off by an unknown time. */
  readonly roundTrip: Timing['roundTrip']['how'];
  /** What the microphone did by itself. */
  readonly processing: Conditions['processing'];
}

export interface Speaking extends Judging {
  readonly faults: readonly Fault[];
  /** A written note's name, or that of what it sounds where the player reads so. */
  readonly nameOf: (written: Midi) => string;
  /** Name of a group. */
  readonly nameAt: (group: number) => string;
  /** `C4 to D4`: the slur into a group. */
  readonly slurAt: (group: number) => string;
}

/** What a measure has to say of its figures. */
export interface Said {
  /** A sentence for each figure of the whole take that is worth reading, in order. */
  readonly lines: Readonly<Partial<Record<FigureId, string>>>;
  /** What it would put first where nothing was wrong. */
  readonly headline?: string;
}

/**
 * One thing that a take is looked at for. Data goes one way: a reading → figures → faults → words and charts. Nothing is worked
 * out in the later steps that is not a figure.
 */
export interface Measure {
  readonly measure: (reading: Reading) => Measured;
  readonly judge?: (figures: readonly Figure[], judging: Judging) => readonly Fault[];
  readonly say: (figures: readonly Figure[], speaking: Speaking) => Said;
  readonly draw?: (measured: Measured, speaking: Speaking) => readonly Chart[];
}

export const NOTHING: Measured = { figures: [], curves: [] };
export const SILENT: Said = { lines: {} };

/** Figures without curves. */
export const numbers = (figures: readonly Figure[]): Measured => ({ figures, curves: [] });
