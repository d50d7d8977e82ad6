import type { Dynamic } from '@/core/music';

/** What can be wrong, as the coach knows it. */
export type FaultKind =
  | 'break-up'
  | 'break-down'
  | 'late-speech'
  | 'undertone'
  | 'squeak'
  | 'thin'
  | 'airy'
  | 'narrow-window'
  | 'steadily-low'
  | 'steadily-high'
  | 'flat-when-fading'
  | 'sharp-when-fading'
  | 'narrow-leap'
  | 'hole'
  | 'bump'
  | 'slow-slur'
  | 'wide-interval'
  | 'narrow-interval'
  | 'anchor-moved'
  | 'vibrato'
  | 'fading-hold'
  | 'sinking'
  | 'unsteady'
  | 'uneven-line'
  | 'unlike'
  | 'wrong-note'
  | 'missed'
  | 'rush'
  | 'drag'
  | 'uneven';

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
}
