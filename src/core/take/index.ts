export {
  conditionsSchema,
  setupSchema,
  takeOf,
  TAKE_VERSION,
  takeSchema,
  UNTOLD,
  warmthSchema,
  type Conditions,
  type Setup,
  type ToldConditions,
  type Take,
} from './take';
export { heardTake, type HeardTake, type Sounded } from './heardTake';
export { TakeListener } from './takeListener';
export type { TakeRequest } from './takeRequest';
export { beatSeconds, beatsOf, NO_BEAT, timingSchema, type Timing } from './timing';
export { writtenDown } from './writtenDown';
export { joinHeard } from './join';
export { longestPlaying, type Elsewhere } from './elsewhere';
export { storedOf, takeFromStored, type StoredTake } from './stored';
export { traceSchema, type Trace } from './trace';
