import type { Midi, Seconds } from '@/core/base';
import { comfortOf, usualAt, type Comfort, type FamilyId, type Level, type NoteRange } from '@/core/music';
import type { Break, Instrument } from '@/core/instruments';
import type { ProblemNote } from '@/core/ledger';
import { tonicOf } from '@/core/tuning';

/** What a drill is for within a day. */
export type Part = 'seam' | 'tone' | 'dynamics' | 'intonation' | 'rhythm' | 'music' | 'exploring';

type Values = Readonly<Record<string, unknown>>;

/** What goes round from one practice day to the next. */
export interface Turn {
  readonly instrument: Instrument;
  readonly level: Level;
  readonly comfort: Comfort;
  /** Counts practice days, so that what goes round by it never stands still. */
  readonly round: number;
  readonly dynamic: 'p' | 'mf' | 'f';
  /** Where one starts: low, middle, high. */
  readonly place: 0 | 1 | 2;
  /** Signatures of an easy and a hard key. */
  readonly keys: { readonly easy: number; readonly hard: number };
  readonly problem: ProblemNote | null;
}

/** The slur that a seam drill is about. */
export interface Target extends Break {
  readonly from: Midi;
  readonly to: Midi;
}

export interface Row {
  readonly family: FamilyId;
  readonly part: Part;
  /** Of lip, breath and ear: 1 is ordinary, 2 and more is heavy. */
  readonly load: number;
  /** What of it a day bears at most. */
  readonly dose?: Seconds;
  /** It goes faster as it comes clean; the tempo of the others is what it is. */
  readonly paced?: true;
  /** It is about the note that lies furthest off. */
  readonly ofProblem?: true;
  /** Below this level it is left to the player to choose. */
  readonly from?: Level;
  /** What of its parameters follow the day; the larger of them take longer. Null: not today. */
  readonly values: (turn: Turn, size: number) => Values | null;
}

export interface SeamDrill extends Omit<Row, 'values' | 'part'> {
  /** Shares of clean crossings that it is right for. */
  readonly right: readonly [low: number, high: number];
  readonly values: (turn: Turn, target: Target, size: number) => Values | null;
}

/** Sizes that the values of a drill come in, the smallest first. */
export const SIZES = 4;

/** What of these a round takes, one after the other and over again; negative rounds count back. */
export const third = <T>(round: number, of: readonly T[]): T =>
  of[((round % of.length) + of.length) % of.length]!;

/** So many semitones of what is comfortable: low, in the middle or high, and not from the same note each time. */
export function stretchOf(
  { instrument, comfort: { low, high }, place, round }: Turn,
  semitones: number,
): NoteRange {
  const span = Math.min(semitones, high - low);
  const room = high - low - span;
  const shift = third(2 * round + Math.floor(round / 9), [0, 1, 2, 3, 4]);
  const start = Math.min(low + room, low + Math.round((room * place) / 2) + (place === 2 ? -shift : shift));
  const from = Math.max(low, usualAt(instrument, Math.max(low, start)));
  return { low: from, high: from + span };
}

/** One note of a day. */
export const noteOf = (turn: Turn): Midi => stretchOf(turn, 0).low;

/** A note to build on: any, or where an instrument is made for some keys, the tonic of one of them. */
export function tonicFor(turn: Turn, semitones: number): Midi {
  const { low } = stretchOf(turn, semitones);
  const tonics = turn.instrument.plainKeys?.map(tonicOf);
  if (!tonics) return low;
  const under = Array.from({ length: 12 }, (_, i) => Math.floor(low) - i).find((written) =>
    tonics.includes(written % 12),
  )!;
  return under < turn.comfort.low ? under + 12 : under;
}

/** The same within the first register. */
export const bottomOf = (turn: Turn, semitones: number): NoteRange =>
  stretchOf({ ...turn, comfort: { ...turn.comfort, ...turn.comfort.bottom } }, semitones);

/** The key of a round: an easy one and a hard one in turn. */
export const keyOf = ({ keys, round }: Turn): string => String(round % 2 === 0 ? keys.easy : keys.hard);
const SCALES_OF_BEGINNERS = ['major', 'minor'] as const;
const SCALES = ['major', 'harmonic-minor', 'major', 'dorian', 'major', 'mixolydian', 'minor'] as const;

/** Major most often, and the other scales in turn; not in step with the keys. Where an instrument is made for some major keys, those. */
export const scaleOf = ({ instrument, level, round }: Turn): string =>
  instrument.plainKeys
    ? 'major'
    : third(round + Math.floor(round / 6), level === 'beginner' ? SCALES_OF_BEGINNERS : SCALES);

/** Minor on every third day; never where the instrument is made for major keys. */
export const minorEvery = ({ instrument, round }: Turn, third: 1 | 2): string =>
  round % 3 === third && !instrument.plainKeys ? 'harmonic-minor' : 'major';

/** The same of values of a parameter. */
export const inTurn = (turn: Turn, of: readonly string[]): string => third(turn.round, of);

/** @param ordinal of the practice day. @param medium nothing soft or loud today. */
export function turnOf(
  instrument: Instrument,
  level: Level,
  ordinal: number,
  keys: Turn['keys'],
  problem: ProblemNote | null,
  medium = false,
): Turn {
  return {
    instrument,
    level,
    comfort: comfortOf(instrument, level),
    round: ordinal,
    dynamic: medium ? 'mf' : third(ordinal, ['mf', 'p', 'f'] as const),
    // Not in step with the loudness, or loud days were always high ones.
    place: third(ordinal + Math.floor(ordinal / 3), [1, 0, 2] as const),
    keys,
    problem,
  };
}
