export { askForRecording, chosenFile, chooseFile } from './chosenFile';
export { useHearing } from './useHearing';
export { useStand, type Stand, type StandPhase } from './useStand';
