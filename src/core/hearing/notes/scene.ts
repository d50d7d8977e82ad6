import type { Hertz, Seconds } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import type { Instrument } from '@/core/instruments';
import type { Due } from './hearing';
import type { Line } from './line';

/** What every step from the line to the notes looks at. */
export interface Scene {
  /** As far as it is known: a step may put pitches of it right. */
  readonly line: Line;
  readonly frames: Frames;
  readonly instrument: Instrument;
  readonly a4: Hertz;
  /** Of the room, or what is usual where the take does not tell; and whether that is a room that rings on. */
  readonly decaySeconds: Seconds;
  readonly rings: boolean;
  readonly due: readonly Due[];
}

/** So much likelier, in log-odds, a start is where the music has one: see docs/measuring.md, With the music open. */
export const DUE_ODDS = 3.5;

/** Whether a moment lies where a note is due. */
export const isAt = ({ from, to }: Due, seconds: Seconds): boolean => seconds >= from && seconds < to;
