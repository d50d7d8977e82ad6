export { eventSchema, noteSchema, ORDINARY_PURITY, unknownReason, vibratoSchema } from './note';
export type { Note, NoteEvent, PurityLimits, UnknownReason } from './note';
export { hearNotes, type Heard, type HearingOptions } from './hear';
