export type { Cents, Decibels, Hertz, Midi, Seconds, Semitones, Tempo } from './units';
export { centsBetween, hertzToMidi, midiToHertz } from './pitch';
export { displayName, noteName, noteNumber, spokenName, type NamingConvention } from './names';
export { spell, spelledMidi, type Spelling } from './spelling';
export { PITCH_STANDARDS, targetHertz, temperaments, temperedOffset } from './temperament';
export type { Temperament, TemperamentId, Tuning } from './temperament';
