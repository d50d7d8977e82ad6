import type { Midi } from '@/core/base';

export type StandPhase =
  /** Nothing has begun; `waiting` for a note that starts the count-in; `paused` between two stretches. */
  'ready' | 'opening' | 'waiting' | 'counting' | 'playing' | 'paused' | 'measuring' | 'problem';

/** What is seen of the stand, besides the thread. */
export interface StandState {
  readonly phase: StandPhase;
  readonly word: string;
  readonly hint: string;
  readonly problem: string | null;
  /** Group that sounds or comes next. */
  readonly group: number;
  readonly page: number;
  readonly hidden: boolean;
  readonly metronome: boolean;
  readonly drone: boolean;
  /** Exercises without the instrument: where their pictures are, in beats. */
  readonly beat: number;
  /** Nothing is asked. */
  readonly free: boolean;
  /** Where nothing is asked: the written note that sounds, or sounded last; null before the first. */
  readonly sounding: Midi | null;
}

export const READY = { word: 'ready', hint: 'press start, or the space bar' };
