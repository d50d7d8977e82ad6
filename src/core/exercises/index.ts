export { defaultLongTone, longTone, longToneSchema, type LongTone, type Outcome } from './longTone';
export { beatsToSeconds, scoreBeats, scoreNoteSchema, scoreSchema } from './score';
export type { Dynamic, Score, ScoreNote, VibratoWish } from './score';
