import type { Instrument } from '@/core/instruments';
import { hearNotes, type Heard, type HearingOptions } from '@/core/hearing/notes';
import type { Frames } from '@/core/hearing/signal';
import type { Score } from '@/core/music';
import { align, type Beats } from './align';
import { notesDue } from './due';
import { groupsOf, type Group } from './groups';

const hasRepeats = (groups: readonly Group[]) =>
  groups.some(({ sounding }, i) => sounding === groups[i - 1]?.sounding);

/**
 * Hears with the music open. A note that is begun again in a room that rings may not be told from the one before it by its sound alone;
 * where the music has one and it was not found, it is listened for once more. Nothing else is expected: what is played wrongly is heard
 * as it would be without the music.
 */
export function hearWritten(
  frames: Frames,
  instrument: Instrument,
  options: HearingOptions,
  score: Score,
  beats: Beats,
): Heard {
  const heard = hearNotes(frames, instrument, options);
  if (!hasRepeats(groupsOf(score, instrument))) return heard;
  const due = notesDue(align(score, instrument, heard.notes, beats), heard.notes, beats);
  return due.length > 0 ? hearNotes(frames, instrument, { ...options, due }) : heard;
}
