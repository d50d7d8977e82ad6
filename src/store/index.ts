export { demoSchema, type Demo } from './demo';
export type { Whose } from './home';
export {
  addMusic,
  changeHome,
  changeRemark,
  deleteTake,
  discardDraft,
  keepDraft,
  loadAudio,
  removeMusic,
  restoreMusic,
  saveDraft,
  undeleteTake,
  useDraft,
  useHome,
  useLog,
  useMusic,
  useSettings,
  useStorageUse,
  useTake,
} from './hooks';
export { newTake } from './newTake';
export { tuningOf, type Settings } from './settings';
export type { Piece } from './musicStore';
