export { askForRecording, chooseFile, chosenFile, useChosenFile } from './chosenFile';
export { useAwake } from './useAwake';
export { usePlayback } from './usePlayback';
