import { least } from 'd3-array';
import type { Midi } from '@/core/base';
import { modelSchema, type Model } from '@/core/music';
import { lengthOf, type Note } from './note';

/** The model that a note of a recording makes. */
export const modelFrom = (note: Note, recording: string): Model => modelSchema.parse({ ...note, recording });

/** Shorter notes say too little of a sound. */
export const LEAST_MODEL_SECONDS = 0.4;
/** The longest of them are enough to choose from. */
const MOST_NOTES = 12;

/** Of the notes heard in a recording those that can be a model, in its order. */
export function modelNotes(notes: readonly Note[]): Note[] {
  return notes
    .filter((note) => lengthOf(note) >= LEAST_MODEL_SECONDS && note.brightness !== null)
    .sort((a, b) => lengthOf(b) - lengthOf(a))
    .slice(0, MOST_NOTES)
    .sort((a, b) => a.startSeconds - b.startSeconds);
}

/** The longest note of those nearest to a sounding pitch; undefined of none. */
export function nearestNote(notes: readonly Note[], soundingMidi: Midi): Note | undefined {
  const away = (note: Note) => Math.abs(note.soundingMidi - soundingMidi);
  return least(notes, (a, b) => away(a) - away(b) || lengthOf(b) - lengthOf(a));
}
