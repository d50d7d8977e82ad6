export { boundsProblem } from './bounds';
export { CUES } from './cues';
export { LEVELS, type Level } from './level';
export { comfortOf, type Comfort, type Family, type Purpose, type Section } from './family';
export { families, findFamily, PURPOSES, type FamilyId } from './families';
export { keysOfDay, keyTitle, tempoNotch } from './families/rows';
export { nextTo, usualAt } from './families/walks';
export { comparable, modelOf, modelSchema, type Model } from './model';
export { glideOf, type Glide } from './glides';
export { optionsOf, type NoteRange, type ParameterSpec } from './parameters';
export {
  beatsToSeconds,
  dynamicSchema,
  eventKindSchema,
  SCORE_VERSION,
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
  Metre,
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
  tupletsOf,
  type Bar,
  type HairpinSpan,
  type NoteType,
  type Token,
  type Tuplet,
} from './bars';
export {
  barSpans,
  countInOf,
  endOfBars,
  lengthOf,
  metresFrom,
  pulseAt,
  pulseOf,
  pulsesFrom,
  startOfBar,
  tempoText,
  type BarSpan,
  type Pulse,
} from './metres';
export { musicReadSchema, type Line, type MusicRead } from './musicRead';
export { numberedBars, passageOf, wholeOf, type Passage } from './passage';
export {
  inTwelveKeys,
  phraseScore,
  readPhrase,
  restAfter,
  withLength,
  withOneAfter,
  without,
  withPitch,
  withRest,
  withSlur,
  type Counting,
  type PhraseBars,
  type PhraseRead,
} from './playedIn';
export { NEEDS, needsOf, type Need } from './needs';
export { phrasesByKey, type KeyPhrase } from './byEar';
export { keysOf, signaturesOf, spellerOf, type Speller } from './keys';
export { beamsOf, type Beam } from './beams';
export { clefsOf } from './clefs';
export { asRead, isTransposing, readAsSchema, type ReadAs } from './asRead';
export { newHands } from './hands';
export { excerpt, markedFor, placesIn, type Place } from './ownMusic';
export { barsBetween, droneHertz, droneNotes, restFrom, type Bars } from './stretch';
export { storedScoreSchema } from './storedScore';
export { unfolded } from './unfolded';
