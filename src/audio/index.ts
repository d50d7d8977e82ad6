export type { DroneSound } from './drone';
export { Playback } from './playback';
export { decodeRecording } from './recording';
export { measureRoundTrip, type MeasuredRoundTrip } from './roundTrip';
export { Session, type KeptBeside, type SessionOptions, type SourceChoice } from './session';
export { SourceProblem, type SoundSource } from './source';
