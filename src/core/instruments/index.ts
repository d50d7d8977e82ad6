export { clefSchema, instrumentSchema, kindSchema } from './instrument';
export type { Clef, HandRule, Instrument, Kind, Register, Tendency, Tube } from './instrument';
export {
  clefOf,
  findInstrument,
  fundamentalOf,
  handAt,
  instruments,
  listeningRange,
  modeOf,
  modePitch,
  modesOf,
  ownInstruments,
  registerOf,
  setOwnInstruments,
  soundingOf,
  tendenciesOf,
  ventOf,
  writtenOf,
  writtenRange,
} from './lookup';
export { checkInstrument, copyOf, withRange } from './own';
export { crossingsOf, seamBetween, seamsOf, type Break, type Seam } from './seams';
