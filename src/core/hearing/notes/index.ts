export {
  lengthOf,
  eventSchema,
  noteSchema,
  ORDINARY_PURITY,
  transitionSchema,
  unknownReason,
  vibratoSchema,
} from './note';
export type { Note, NoteEvent, PurityLimits, Transition, UnknownReason } from './note';
export { hearNotes, type Heard } from './hear';
export type { Due, HearingOptions } from './hearing';
export { LEAST_MODEL_SECONDS, modelFrom, modelNotes, nearestNote } from './modelNotes';
export { onePitchOf } from './plateau';
