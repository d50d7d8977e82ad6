export { boundsProblem } from './bounds';
export { CUES } from './cues';
export { LEVELS, type Level } from './level';
export { comfortOf, type Comfort, type Family, type Purpose, type Section } from './family';
export { families, findFamily, PURPOSES } from './families';
export { keysOfDay, keyTitle, tempoNotch } from './families/rows';
export { comparable, modelOf, modelSchema, type Model } from './model';
export { glideOf, type Glide } from './glides';
export type { NoteRange, ParameterSpec } from './parameters';
export {
  beatsToSeconds,
  dynamicSchema,
  eventKindSchema,
  EVERYTHING_COUNTS,
  expectsPartner,
  scoreBeats,
  scoreNoteSchema,
  scoreOf,
  scoreSchema,
  secondsAt,
} from './score';
export type {
  Counts,
  Dynamic,
  EventKind,
  Hairpin,
  MeasureId,
  Picture,
  Role,
  Score,
  ScoreNote,
  VibratoWish,
} from './score';
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
export { barsBetween, droneHertz, droneNotes, restFrom, type Bars } from './stretch';
