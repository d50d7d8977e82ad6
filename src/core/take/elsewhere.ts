import type { Midi, Seconds, Semitones } from '@/core/base';
import type { Take } from './take';

/** Nearer than a quarter-tone it is the note that was asked; a harmonic lies beside the semitones. */
const QUARTER_TONE: Semitones = 0.25;

/** A place in another take. */
export interface Elsewhere {
  readonly take: Take;
  readonly startSeconds: Seconds;
  readonly endSeconds: Seconds;
}

/** The longest playing of a note in another take; null: it is not in it. */
export function longestPlaying(take: Take, sounding: Midi): Elsewhere | null {
  const same = take.notes.filter((note) => Math.abs(note.soundingMidi - sounding) < QUARTER_TONE);
  if (same.length === 0) return null;
  const { startSeconds, endSeconds } = same.reduce((a, b) =>
    b.endSeconds - b.startSeconds > a.endSeconds - a.startSeconds ? b : a,
  );
  return { take, startSeconds, endSeconds };
}
