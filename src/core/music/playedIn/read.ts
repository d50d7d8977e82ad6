import type { ScoreNote } from '../score';
import { setDown, tempoHeard, type Counting } from './setDown';
import { lastPlayings, unlike } from './twice';

/** A phrase as it was read out of what was played. */
export interface PhraseRead {
  readonly counting: Counting;
  /** The last playing, set down in crotchets; the first note begins within the first beat. */
  readonly notes: readonly ScoreNote[];
  /** How often it was played, about. */
  readonly playings: number;
  /** Indices of notes that were not the same both times. */
  readonly unlike: readonly number[];
}

/**
 * Reads a phrase out of free playing: of several playings the last, and where it differs from the one before.
 * @param played in free time, a beat a second.
 * @param told its tempo is found where none is told.
 */
export function readPhrase(
  played: readonly ScoreNote[],
  told: Omit<Counting, 'tempo'> & { readonly tempo: number | null },
): PhraseRead {
  const playings = lastPlayings(played);
  const last = played.slice(playings?.to ?? 0);
  const counting = { ...told, tempo: told.tempo ?? tempoHeard(last, told.compound) };
  const notes = setDown(last, counting).map((note, i) =>
    i === 0 && note.attack === 'none' ? { ...note, attack: 'tongued' as const } : note,
  );
  if (!playings) return { counting, notes, playings: 1, unlike: [] };
  const before = setDown(played.slice(playings.from, playings.to), counting);
  return {
    counting,
    notes,
    playings: Math.max(2, Math.round(played.length / notes.length)),
    unlike: unlike(notes, before),
  };
}
