export { askForRecording, chosenFile, chooseFile } from './chosenFile';
export { downloadMidi, downloadMusicXml } from './files';
export { importMusic } from './importMusic';
export { rememberRemoved, removedPiece } from './removedPiece';
export { readTuningFiles } from './importTuning';
export { useExample } from './useExample';
export { useExercise, type Exercise } from './useExercise';
export { useHearing } from './useHearing';
export { useStand, type Stand, type StandPhase } from './useStand';
