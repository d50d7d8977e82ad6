export {
  conditionsSchema,
  takeOf,
  TAKE_VERSION,
  takeSchema,
  traceSchema,
  type Conditions,
  type Take,
  type Trace,
} from './take';
export { TakeListener, type HeardTake, type TakeRequest } from './takeListener';
export { weakNotes } from './weakNotes';
