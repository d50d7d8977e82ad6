import type { FaultKind } from '@/core/verdict';
import type { Kind } from '@/core/instruments';

/** What a school of playing looks to first. */
export type School = 'air' | 'support' | 'shape';

/** A likely cause of a fault, where it holds, and one thing to try. */
export interface Rule {
  readonly fault: FaultKind;
  readonly kinds?: readonly Kind[];
  /** Instruments of which ids begin like this. */
  readonly instruments?: readonly string[];
  /** What the hand does at the note, by its mark: advice for a thumb is for notes that have one at work. */
  readonly hand?: string;
  /** First register, last, or between. */
  readonly where?: 'low' | 'middle' | 'high';
  readonly dynamic?: 'soft' | 'loud';
  readonly atSlur?: boolean;
  readonly cause: string;
  /** By school; `any` where all agree. */
  readonly tries: Readonly<Partial<Record<School | 'any', string>>>;
  /** Family that serves it. */
  readonly serves: string;
  /** How teachers differ, where they do. */
  readonly disagreement?: string;
  /** Said only where several takes on this reed against others speak for it, never after one ordinary take. */
  readonly needs?: 'several-takes';
  /** 0 … 1: how often this is the cause when the fault is heard. */
  readonly sure: number;
}
