import * as z from 'zod';
import { type Midi, perColour } from '@/core/base';

const figure = z.number().nullable();

/** The colour of one note in a recording, for one's own notes to be held against. Its level says nothing. */
export const modelSchema = z.object({
  /** Name of the recording, and the place of the note in it. */
  recording: z.string(),
  startSeconds: z.number(),
  endSeconds: z.number(),
  soundingMidi: z.number().multipleOf(0.5),
  ...perColour(() => figure),
});
export type Model = z.infer<typeof modelSchema>;

/** Notes further apart than this are of different colour by their pitch alone. */
const COMPARABLE_SEMITONES = 1;

/** @param soundingMidi of a note that is to be held against the model. */
export const comparable = (model: Pick<Model, 'soundingMidi'>, soundingMidi: Midi): boolean =>
  Math.abs(Math.round(soundingMidi) - model.soundingMidi) <= COMPARABLE_SEMITONES;

/** The model that a score was made with; null when none was chosen. */
export function modelOf(score: { readonly parameters: Readonly<Record<string, unknown>> }): Model | null {
  const read = modelSchema.safeParse(score.parameters['model']);
  return read.success ? read.data : null;
}
