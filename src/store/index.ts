export { demoSchema, type Demo } from './demo';
export type { Whose } from './home';
export {
  changeHome,
  changeRemark,
  deleteTake,
  discardDraft,
  keepDraft,
  loadAudio,
  saveDraft,
  undeleteTake,
  useDraft,
  useHome,
  useLog,
  useSettings,
  useStorageUse,
  useTake,
} from './hooks';
export { newTake } from './newTake';
export type { Settings } from './settings';
