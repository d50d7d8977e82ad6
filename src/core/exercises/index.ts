export { defaultLongTone, longTone, longToneSchema, type LongTone } from './longTone';
export { beatsToSeconds, scoreBeats, scoreNoteSchema, scoreSchema } from './score';
export type { Dynamic, Score, ScoreNote, VibratoWish } from './score';
