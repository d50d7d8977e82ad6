export { fifthsOfKey, keyName, movedKey, tonicOf } from './keys';
export { leaning, shortLeaning } from './leaning';
export { centsBetween, hertzToMidi, midiToHertz } from './pitch';
export { displayName, noteName, noteNumber, spelledName, spokenName, type Naming } from './names';
export { respelled, spell, spelledMidi, type Spelling } from './spelling';
export {
  justRatio,
  offsetsOf,
  PITCH_STANDARDS,
  targetHertz,
  temperaments,
  temperedOffset,
} from './temperament';
export type { Offsets, Temperament, TemperamentId, Tuning } from './temperament';
