import { scoreNoteOf } from './reading';
import type { Amount, Fault } from './fault';
import type { FaultKind } from './faults';
import { isKnown, type Figure, type KnownFigure } from './figure';
import type { Judging } from './measure';

interface Details {
  readonly atSlur?: boolean;
  readonly confidence?: number;
  readonly size?: number;
  /** Beyond by more than the figure may be wrong: by two standard errors, 19 times of 20. */
  readonly beyondError?: boolean;
}

const SURE = 0.8;

/** A fault at a group of the score; null: of the take as a whole. */
export function faultAt(
  { score, matches }: Pick<Judging, 'score' | 'matches'>,
  group: number | null,
  kind: FaultKind,
  size: number,
  amount: Amount | null,
  { atSlur = false, confidence = SURE }: Details = {},
): Fault {
  const match = group === null ? undefined : matches[group];
  const dynamic = match ? scoreNoteOf({ score }, match.group).dynamic : null;
  return { kind, group, atSlur, size, confidence, dynamic, amount };
}

/** Whether a figure is over its limit, for sure or as it stands. */
export const isOver = ({ value, spread }: KnownFigure, limit: number, beyondError: boolean): boolean =>
  Math.abs(value) - (beyondError ? 2 * (spread ?? 0) : 0) > limit;

/** The fault of a figure that is over its limit; none where it is within, or not known. */
export function beyond(
  judging: Judging,
  found: Figure | undefined,
  limit: number,
  kind: FaultKind,
  { size, beyondError = false, ...details }: Details = {},
): Fault[] {
  if (!isKnown(found) || !isOver(found, limit, beyondError)) return [];
  const over = size ?? Math.abs(found.value) / limit;
  return [faultAt(judging, found.at, kind, over, amountOf(found, limit), details)];
}

/** The same with a kind for each side of zero. */
export function beyondEither(
  judging: Judging,
  found: Figure | undefined,
  limit: number,
  [below, above]: readonly [FaultKind, FaultKind],
  details: Details = {},
): Fault[] {
  return beyond(judging, found, limit, isKnown(found) && found.value < 0 ? below : above, details);
}

/** How much of a figure there is, beside its limit, in the figure’s unit. */
export const amountOf = ({ id, value }: KnownFigure, limit: number | null): Amount => ({
  figure: id,
  value,
  limit,
});
