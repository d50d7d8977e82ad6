import { type Hertz, median, type Seconds } from '@/core/base';
import type { Heard, Note } from '@/core/hearing/notes';
import { droneFrequencies, type Frames, type ListeningRange } from '@/core/hearing/signal';
import { framesWithout } from './without';

/** A pitch has to sound alone for this long before it is taken for the partner's. */
const ALONE: Seconds = 1;
/** Its beginning is left out: a struck string settles. */
const SETTLES: Seconds = 0.3;

/** What was heard of the player once the partner's held pitch had been found and taken out. */
export interface PartnerHeard {
  readonly heldHz: Hertz;
  readonly heard: Heard;
}

/**
 * Finds what a partner (or a piano) holds, in what sounds alone before anything else, takes it out of the recording, and
 * hears the rest. Null when nothing sounded alone for long enough. What the held pitch covers is unknown in the notes, with
 * its reason, as over a drone.
 * @param alone the first note of all, heard without the music: that is the player's.
 */
export function hearPartner(
  audio: Int16Array,
  frames: Frames,
  alone: Note | undefined,
  range: ListeningRange,
  sampleRate: Hertz,
  hear: (frames: Frames) => Heard,
): PartnerHeard | null {
  if (!alone || alone.endSeconds - alone.startSeconds < ALONE) return null;
  const at = (seconds: Seconds) => Math.round((seconds - frames.startSeconds) / frames.hopSeconds);
  const heldHz = median(frames.f0.subarray(at(alone.startSeconds + SETTLES), at(alone.startSeconds + ALONE)));
  if (!(heldHz > 0)) return null;
  const removed = droneFrequencies([heldHz], sampleRate);
  return { heldHz, heard: hear(framesWithout(removed, audio, frames, range, sampleRate)) };
}
