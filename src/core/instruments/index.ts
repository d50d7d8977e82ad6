export { clefSchema, instrumentSchema, kindSchema } from './instrument';
export type { Clef, HandRule, Instrument, Kind, Register, Tendency, Tube } from './instrument';
export {
  areModesApart,
  findInstrument,
  fundamentalOf,
  handAt,
  instruments,
  listeningRange,
  modeOf,
  nameWithin,
  modePitch,
  modesOf,
  registerOf,
  soundingOf,
  tendenciesOf,
  isUsual,
  ventOf,
  writtenOf,
  nearestPitch,
  writtenRange,
} from './lookup';
export { checkInstrument, copyOf, withRange } from './own';
export { loweredBy, slideAdvice, soundingLength, soundSpeed, warmedBy } from './slide';
export type { PitchReading, SlideAdvice } from './slide';
export { breaksBy, crossingsOf, mainBreakOf, seamBetween, seamsOf, type Break, type Seam } from './seams';
