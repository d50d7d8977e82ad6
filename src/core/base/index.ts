export { checked } from './checked';
export { Cholesky } from './cholesky';
export {
  COLOURS,
  FEATURE_IDS,
  FEATURES,
  perColour,
  type ColourId,
  type FeatureId,
  type ShortOf,
} from './features';
export {
  mannKendall,
  normalQuantile,
  studentT,
  theilSen,
  weighted,
  wilson,
  Z95,
  type Estimate,
} from './inference';
export { failure, success, type Outcome } from './outcome';
export { fromInt16, toInt16 } from './pcm';
export { Random } from './random';
export { readRecord, type Migrations, type RecordKind } from './records';
export { rebased, takenBack } from './rebased';
export { capital } from './text';
export {
  clamp,
  detrended,
  leastSquares,
  median,
  quantile,
  rms,
  robustSlope,
  robustSlopeOver,
} from './statistics';
export {
  DAY_MS,
  DAY_SECONDS,
  HOUR_MS,
  MINUTE_MS,
  SAME_BEAT,
  type Cents,
  type Decibels,
  type Hertz,
  type Midi,
  type Seconds,
  type Semitones,
  type Tempo,
} from './units';
