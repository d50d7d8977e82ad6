export {
  conditionsSchema,
  setupSchema,
  takeOf,
  TAKE_VERSION,
  takeSchema,
  UNTOLD,
  type Conditions,
  type Setup,
  type ToldConditions,
  type Take,
} from './take';
export { TakeListener, type HeardTake, type TakeRequest } from './takeListener';
export { weakNotes } from './weakNotes';
export { beatSeconds, NO_BEAT, timingSchema, type Timing } from './timing';
export { joinHeard } from './join';
export { sameNoteElsewhere, type Elsewhere } from './elsewhere';
export { takeKindFor } from './oldTakes';
export { traceSchema, type Trace } from './trace';
