import type { Instrument } from '@/core/instruments';
import type { Level } from '@/core/music';
import type { Block } from './block';
import type { Standing } from './standing';
import type { CivilDay, Wishes } from './wishes';

/** All that a plan is made from; the same gives the same plan. */
export interface PlanFor {
  readonly standing: Standing;
  readonly wishes: Wishes;
  readonly instrument: Instrument;
  readonly level: Level;
  readonly day: CivilDay;
  /** In place of the minutes wished for: `only ten`. */
  readonly minutes?: number;
  /** Blocks that stay, each at its place in the day. */
  readonly locked?: readonly { readonly at: number; readonly block: Block }[];
  readonly programme?: RunningProgramme | null;
}

/** A programme that the player has begun. */
export interface RunningProgramme {
  readonly id: string;
  readonly startedOn: CivilDay;
}
