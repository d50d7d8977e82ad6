import type { Drawing } from './drawing';
import type { Fault } from './fault';
import type { Finding } from './verdict';

/** What one measure has to say. */
export interface Part {
  readonly findings: readonly Finding[];
  readonly faults: readonly Fault[];
  /** What it would put first, and how much that matters: 1 is the ordinary, 3 cannot be passed over. */
  readonly headline?: { readonly text: string; readonly weight: number };
  readonly drawing?: Drawing;
  /** Stands for the summary of all parts, where one of them says all there is. */
  readonly summary?: string;
}

export const NOTHING: Part = { findings: [], faults: [] };
