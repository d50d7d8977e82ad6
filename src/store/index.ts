export { demoSchema, type Demo } from './demo';
export type { Whose } from './home';
export {
  addMusic,
  beginRunning,
  clearRunning,
  keepSound,
  putOnStand,
  changeHome,
  changeDraft,
  changeRemark,
  deleteTake,
  discardDraft,
  keepDraft,
  loadAudio,
  refreshRunning,
  removeMusic,
  restoreMusic,
  saveDraft,
  undeleteTake,
  useBlock,
  useDraft,
  useHome,
  useLog,
  useMusic,
  useRunning,
  useSettings,
  useStorageUse,
  useTake,
} from './hooks';
export type { Block, KeptStretch, Running, RunningStretch } from './runningStore';
export { newId } from './newId';
export { defaultSettings, instrumentIn, tuningOf, type Settings } from './settings';
export type { Piece } from './musicStore';
