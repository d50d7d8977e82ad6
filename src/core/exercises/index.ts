export { CUES } from './cues';
export type { Family, Level, Purpose, Section } from './family';
export { families, findFamily, PURPOSES } from './families';
export { keysOfDay, keyTitle, tempoNotch } from './families/rows';
export { crossingsIn } from './families/seams';
export { defaultLongTone, longTone, longTonePartsSchema, longToneSchema, type LongTone } from './longTone';
export type { NoteRange, ParameterSpec } from './parameters';
export {
  beatsToSeconds,
  EVERYTHING_COUNTS,
  scoreBeats,
  scoreNoteSchema,
  scoreOf,
  scoreSchema,
  secondsAt,
} from './score';
export type { Counts, Dynamic, Hairpin, Picture, Score, ScoreNote, VibratoWish } from './score';
export {
  barsOf,
  hairpinsOf,
  slursOf,
  TICKS,
  ticksOf,
  tupletEnds,
  type Bar,
  type HairpinSpan,
  type NoteType,
  type Token,
} from './bars';
export { excerpt, markedFor, placesIn, type Place } from './ownMusic';
