import type { Midi, Seconds } from '@/core/tuning';
import type { Take } from './take';

/** A place in another take. */
export interface Elsewhere {
  readonly take: Take;
  readonly startSeconds: Seconds;
  readonly endSeconds: Seconds;
}

/** The longest playing of a note in another take; null: it is not in it. */
export function longestPlaying(take: Take, sounding: Midi): Elsewhere | null {
  const same = take.notes.filter((note) => note.soundingMidi === Math.round(sounding));
  if (same.length === 0) return null;
  const { startSeconds, endSeconds } = same.reduce((a, b) =>
    b.endSeconds - b.startSeconds > a.endSeconds - a.startSeconds ? b : a,
  );
  return { take, startSeconds, endSeconds };
}
