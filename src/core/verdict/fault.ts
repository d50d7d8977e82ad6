import type { Dynamic } from '@/core/music';
import { FAULTS, type FaultKind } from './faults';
import type { FigureId } from './figures';

/** What a fault rests on: a figure, and the limit that it passed. */
export interface Amount {
  readonly figure: FigureId;
  readonly value: number;
  readonly limit: number | null;
}

/** One fault at one place; steady ones have no place. */
export interface Fault {
  readonly kind: FaultKind;
  /** Group of the score, the second one for a slur; null for the whole take. */
  readonly group: number | null;
  /** It happened on the way from the group before. */
  readonly atSlur: boolean;
  /** How much it is over what is allowed: 1 is at the limit. */
  readonly size: number;
  /** 0 … 1. */
  readonly confidence: number;
  readonly dynamic: Dynamic | null;
  /** Null: it is something that happened, at its place in the strip. */
  readonly amount: Amount | null;
}

/** Faults of one kind, and how much they matter together. */
export interface Weighed {
  readonly kind: FaultKind;
  /** Worst first. */
  readonly faults: readonly Fault[];
  readonly weight: number;
}

/** Faults by kind, what matters most first: by it the headline and the advice speak of one thing. */
export function weighed(faults: readonly Fault[]): Weighed[] {
  const kinds = new Map<FaultKind, Fault[]>();
  for (const fault of faults) kinds.set(fault.kind, [...(kinds.get(fault.kind) ?? []), fault]);
  const size = (fault: Fault) => Math.min(3, fault.size) * fault.confidence;
  return [...kinds]
    .map(([kind, all]) => ({
      kind,
      faults: [...all].sort((a, b) => size(b) - size(a)),
      weight: FAULTS[kind].gravity * all.reduce((sum, fault) => sum + size(fault), 0) ** 0.7,
    }))
    .sort((a, b) => b.weight - a.weight);
}
