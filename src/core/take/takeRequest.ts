import type { Instrument } from '@/core/instruments';
import type { Score } from '@/core/music';
import type { Offsets } from '@/core/tuning';
import type { Timing } from './timing';

/** What has to be known before a take begins. */
export interface TakeRequest {
  readonly score: Score;
  readonly instrument: Instrument;
  readonly sampleRate: number;
  readonly a4: number;
  readonly gainControlled: boolean;
  readonly longestSeconds: number;
  /** Clock time of the first beat of the music; null without a metronome. */
  readonly firstBeat: number | null;
  /** Beat of the music that this is, where it was not begun from the beginning. */
  readonly fromBeat?: number | undefined;
  /** Where notes ought to lie against equal temperament, cents by MIDI number. */
  readonly offsets?: Offsets | undefined;
  /** Pitches of a drone that sounds in the room, Hz; none with headphones. */
  readonly drone?: readonly number[] | undefined;
  /** Someone else plays or hums along. */
  readonly company?: boolean | undefined;
  /** The other one holds a pitch that sounds alone first: it is found there, and then taken out. */
  readonly partner?: boolean | undefined;
  /** How far a tone may move and still be pure: the player's level decides. */
  readonly purity?: { readonly cents: number; readonly decibels: number } | undefined;
  /** How sound gets from the metronome into the recording. */
  readonly roundTrip: Timing['roundTrip'];
}
