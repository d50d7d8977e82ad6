import * as z from 'zod';
import { least } from 'd3-array';
import { lengthOf, noteSchema, type Note } from '@/core/hearing/notes';
import type { Midi } from '@/core/tuning';

/** The colour of one note in a recording, for one's own notes to be held against. Its level says nothing. */
export const modelSchema = noteSchema
  .pick({
    startSeconds: true,
    endSeconds: true,
    soundingMidi: true,
    brightness: true,
    richness: true,
    airinessDb: true,
    oddEvenDb: true,
  })
  .extend({
    /** Name of the recording. */
    recording: z.string(),
  });
export type Model = z.infer<typeof modelSchema>;

/** Notes further apart than this are of different colour by their pitch alone. */
const COMPARABLE_SEMITONES = 1;

/** @param soundingMidi of a note that is to be held against the model. */
export const comparable = (model: Pick<Model, 'soundingMidi'>, soundingMidi: Midi): boolean =>
  Math.abs(Math.round(soundingMidi) - model.soundingMidi) <= COMPARABLE_SEMITONES;

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

/** The model that a score was made with; null when none was chosen. */
export function modelOf(score: { readonly parameters: Readonly<Record<string, unknown>> }): Model | null {
  const read = modelSchema.safeParse(score.parameters['model']);
  return read.success ? read.data : null;
}
