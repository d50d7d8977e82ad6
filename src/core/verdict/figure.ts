import type { UnknownReason } from '@/core/hearing/notes';
import { FIGURES, type FigureId } from './figures';

/** Why a figure of a take is missing: what is true of single notes, and what is true of the take as a whole. */
export type Reason =
  | UnknownReason
  | 'too-few'
  | 'blurred'
  | 'nothing-held-alone'
  | 'no-fundamental'
  | 'no-model'
  | 'another-note-than-the-model'
  | 'same-everywhere'
  | 'never-in-tune'
  | 'not-stopped-cleanly'
  | 'not-played';

interface Place {
  readonly id: FigureId;
  /** Group of the score that it is a figure of, the second one for a slur; null: of the take as a whole. */
  readonly at: number | null;
  /** Groups that it was measured on: by them it is found in the sound. */
  readonly groups: readonly number[];
}

export interface KnownFigure extends Place {
  readonly value: number;
  readonly unit: string;
  /** Standard deviation of what it is the middle of; null of a single reading. */
  readonly spread: number | null;
  /** Readings that it rests on. */
  readonly n: number;
  /** Counts: out of how many. */
  readonly of?: number;
}

export interface UnknownFigure extends Place {
  readonly unknown: Reason;
}

/** A number with its unit, its uncertainty and what it was measured on; or unknown, with the reason. */
export type Figure = KnownFigure | UnknownFigure;

/** Whether a figure was asked for and could be measured. */
export const isKnown = (figure: Figure | undefined): figure is KnownFigure =>
  figure !== undefined && 'value' in figure;

interface Details {
  readonly at?: number | null;
  readonly groups?: readonly number[];
  readonly spread?: number | null;
  readonly n?: number;
  readonly of?: number;
}

/** A figure from a value that may be missing (null or not a number). */
export function figure(
  id: FigureId,
  value: number | null,
  { at = null, groups = at === null ? [] : [at], spread = null, n = 1, of }: Details = {},
  reason: Reason = 'too-few',
): Figure {
  if (value === null || !Number.isFinite(value)) return { id, at, groups, unknown: reason };
  const counted = of === undefined ? {} : { of };
  return { id, at, groups, value, unit: FIGURES[id].unit, spread, n, ...counted };
}

/** The figure of the take as a whole. */
export const wholeOf = (figures: readonly Figure[], id: FigureId): Figure | undefined =>
  figures.find((each) => each.id === id && each.at === null);

/** Value of the take as a whole; null where it is not known. */
export function valueOf(figures: readonly Figure[], id: FigureId): number | null {
  const found = wholeOf(figures, id);
  return isKnown(found) ? found.value : null;
}

/** Known figures of single places, in the order of the music. */
export function figuresAt(
  figures: readonly Figure[],
  id: FigureId,
): (KnownFigure & { readonly at: number })[] {
  return figures
    .filter(
      (each): each is KnownFigure & { readonly at: number } =>
        each.id === id && each.at !== null && isKnown(each),
    )
    .sort((a, b) => a.at - b.at);
}

/** Of figures at places the one with the greatest of something; undefined of none. */
export function most<T extends KnownFigure>(
  figures: readonly T[],
  of: (value: number) => number = Math.abs,
): T | undefined {
  return figures.reduce<T | undefined>(
    (best, each) => (best === undefined || of(each.value) > of(best.value) ? each : best),
    undefined,
  );
}
