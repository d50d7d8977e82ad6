export { Playback } from './playback';
export { Session, type SessionOptions, type SourceChoice } from './session';
export { SourceProblem, type SoundSource } from './source';
