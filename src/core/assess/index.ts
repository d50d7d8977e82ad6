export { LiveWords, type LiveWord } from './liveWord';
export { assessLongTone, heldNote } from './longTone';
export { NO_BEAT, timingSchema, type Timing } from './timing';
export { findingSchema, type Finding, type Verdict } from './verdict';
export { fixed, highOrLow } from './words';
