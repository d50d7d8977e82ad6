import type { Midi, Seconds } from '@/core/tuning';
import type { Take } from './take';

/** A place in another take. */
export interface Elsewhere {
  readonly take: Take;
  readonly startSeconds: Seconds;
  readonly endSeconds: Seconds;
}

/** The longest playing of a note in the newest other take on the same instrument that has it, and its sound. @param takes newest first. */
export function sameNoteElsewhere(takes: readonly Take[], take: Take, sounding: Midi): Elsewhere | null {
  for (const other of takes) {
    if (other.id === take.id || !other.audio || other.score.instrumentId !== take.score.instrumentId)
      continue;
    const same = other.notes.filter((note) => note.soundingMidi === Math.round(sounding));
    if (same.length === 0) continue;
    const { startSeconds, endSeconds } = same.reduce((a, b) =>
      b.endSeconds - b.startSeconds > a.endSeconds - a.startSeconds ? b : a,
    );
    return { take: other, startSeconds, endSeconds };
  }
  return null;
}
