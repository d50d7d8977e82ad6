export type { Cents, Decibels, Hertz, Midi, Seconds, Semitones, Tempo } from './units';
export { centsBetween, hertzToMidi, midiToHertz } from './pitch';
export { displayName, noteName, noteNumber, spokenName } from './names';
