export { BeginButton, ListenPanel } from './BeginPanel';
export { ExerciseScreen } from './ExerciseScreen';
export { LibraryScreen } from './LibraryScreen';
export { SetupPanel } from './SetupPanel';
export { SheetScreen } from './SheetScreen';
export { downloadMidi, downloadMusicXml } from './files';
export { useExample } from './useExample';
export { useExercise } from './useExercise';
export { useDrill } from './useDrill';
