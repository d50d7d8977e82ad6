import type { Group } from '@/core/hearing/matching';
import type { Hairpin, Role, Score } from '@/core/music';

/** What is asked of the player now, in a word; null: a plain note, held. */
export type AskedWord = string | null;

/** Asked for by what a note is for. */
const BY_ROLE: Readonly<Partial<Record<Role, string>>> = {
  'bend-down': 'down',
  'bend-back-up': 'back',
  'bend-up': 'up',
  'bend-back-down': 'back',
  plain: 'plain',
  'one-way': 'turn',
  'and-back': 'back',
  richest: 'richest',
  smaller: 'burst',
  longer: 'burst',
  whisper: 'whisper',
  full: 'softly',
  softest: 'softest',
  loudest: 'loudest',
  'back-of-tongue': 'back tongue',
  'breath-only': 'no tongue',
};

const BY_HAIRPIN: Readonly<Record<Hairpin, (place: number) => string>> = {
  fade: () => 'softer',
  grow: () => 'louder',
  swell: (place) => (place < 0.5 ? 'louder' : 'softer'),
};

/**
 * The word for a place in the music.
 * @param place how far into the group, 0 … 1.
 */
export function askedWord(score: Score, group: Group, place: number): AskedWord {
  const beat = group.startBeat + place * group.beats;
  // Notes that are heard as one may each ask for something.
  const notes = score.notes.slice(group.from, group.to + 1);
  const note = notes.findLast((each) => each.startBeat <= beat + 1e-6) ?? notes[0];
  if (!note) return null;
  const { role, hairpin } = note;
  if (role === 'edge') return hairpin === null ? 'stay' : 'louder';
  if (role === 'first' || role === 'second') return score.sides?.[role === 'first' ? 0 : 1] ?? null;
  const word = role === null ? undefined : BY_ROLE[role];
  if (word !== undefined) return word;
  if (hairpin === null) return null;
  const inNote = note.beats > 0 ? (beat - note.startBeat) / note.beats : 0;
  return BY_HAIRPIN[hairpin](inNote);
}

/** Whether a fading tone is something to be told: not where fading is asked for, nor where a drone fills the level. */
export const tellsFading = ({ drone, counts }: Score, asked: AskedWord): boolean =>
  asked === null && drone.length === 0 && !counts.exploring;
