export type { Binned } from './desk';
export type { Plan } from './planStore';
export { demoSchema, type Demo } from './demo';
export { judgeBy, type Whose } from './home';
export type { Digesting } from './ledgerStore';
export { BIN_DAYS } from './ledgerStore';
export type { Piece } from './musicStore';
export { newId } from './newId';
export { changeHome } from './opened';
export type { Block, KeptStretch, Running, RunningStretch } from './runningStore';
export { defaultSettings, instrumentIn, tuningOf, type Settings } from './settings';
export { StorageProblem } from './storage';
export {
  beginRunning,
  clearRunning,
  keepSound,
  putOnStand,
  refreshRunning,
  useBlock,
  useRunning,
} from './useDesk';
export type { Imported, Preview } from './archiveIn';
export {
  exportLog,
  exportTable,
  lookInto,
  soundOf,
  takeBack,
  type LookedInto,
  type Work,
} from './useArchive';
export { useHome, useSlowOpening } from './useHome';
export {
  changeDraft,
  changeRemark,
  deleteTake,
  discardDraft,
  emptyBin,
  findEntry,
  keepDraft,
  loadAudio,
  FIRST_ROWS,
  loadTake,
  saveDraft,
  undeleteTake,
  useBin,
  useCells,
  useDraft,
  useEntries,
  useInstrumentsPlayed,
  usePlayed,
  useStorageUse,
  useTake,
  useUnread,
} from './useLedger';
export { readAhead } from './readAhead';
export { addMusic, removeMusic, restoreMusic, useMusic } from './useMusic';
export {
  changePlan,
  closeSession,
  keepRoutine,
  keepSession,
  removeRoutine,
  usePastSessions,
  usePlan,
  usePlannedInstruments,
  useRoutines,
  useSession,
} from './usePlans';
export { useSettings, useSettingsProblem } from './useSettings';
export { keepUp, useUpkeep } from './useUpkeep';
export { forgetAside, trustClock, useAside, useClock } from './useCare';
