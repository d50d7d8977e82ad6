export { askForRecording, chooseFile, chosenFile, useChosenFile } from './chosenFile';
export { HowToRead, useAsRead } from './HowToRead';
export { useAwake } from './useAwake';
export { usePlayback } from './usePlayback';
