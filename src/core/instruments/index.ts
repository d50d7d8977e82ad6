export type { Clef, Instrument, Kind, Register } from './instrument';
export {
  findInstrument,
  instruments,
  modeOf,
  registerOf,
  seamsOf,
  soundingOf,
  listeningRange,
  writtenOf,
  writtenRange,
} from './lookup';
