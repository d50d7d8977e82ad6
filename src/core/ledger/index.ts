export {
  packedCellsSchema,
  unpacked,
  withoutCracks,
  type NoteCell,
  type PackedCells,
  type TakeCells,
} from './cells';
export { isClean, isCovered, openedBy, type Crossing } from './crossing';
export { digestOf, type Digest } from './digest';
export { entrySchema, MEASURED_BY, monthOf, type Entry, type RowFigure } from './entry';
export { sparkTrace, type Spark } from './spark';
export { weakNotes } from './weakNotes';
export { loudnessEffect, warmUpEffect } from './effects';
export { noteMap, problemNotes, readingsOf } from './noteMap';
export type { MappedNote, NoteMap, NoteReading, ProblemNote } from './noteMap';
export { usualOf, type Usual } from './normal';
export {
  dayOf,
  EVERYTHING,
  LOUDNESSES,
  loudnessOf,
  playedOf,
  through,
  toldOf,
  type Lens,
  type Loudness,
  type Played,
} from './played';
export { reliability, SeamFollowing, type Reliability, type Trial } from './reliability';
export {
  crossedIn,
  openersOf,
  seamHistory,
  seamMap,
  stretchesOf,
  turnsOf,
  type Crossed,
  type MappedBreak,
  type MappedSeam,
  type SeamState,
  type Stretch,
  type Turn,
} from './seamMap';
export { FOLLOWED, followedTrends, OTHERS, type Followed, type FollowedTrend } from './followed';
export { changesIn, trendOf, type Change, type Trend, type TrendPoint } from './trend';
export { asHeard, mapSlide, shiftBy, type Elsewise, type MapSlide } from './mapSlide';
export { alongside, type Alongside, type Counted } from './alongside';
export { blocksIn, type LogBlock } from './blocks';
export { ANYTHING, asksAnything, isWanted, offeredIn, type LogQuery } from './logQuery';
export { sinceLast, type SinceLast } from './sinceLast';
export { seamTitle, turnSentence } from './say';
export { isSameMusic, versus, type Versus } from './versus';
export { reedsOf, type Reed, type ReedFigure } from './reeds';
export { placesIn, reportOf, type Report, type ReportPlace } from './report';
