import { pageLater } from '@/ui';

export { BeginButton, ListenPanel } from './BeginPanel';
export { SetupPanel } from './SetupPanel';
export { downloadMidi, downloadMusicXml } from './files';
export { useExample } from './useExample';
export { useExercise } from './useExercise';
export { useDrill } from './useDrill';

export const ExerciseScreen = pageLater('Exercise', async () => (await import('./screens')).ExerciseScreen);
export const LibraryScreen = pageLater(
  'What shall we work on?',
  async () => (await import('./screens')).LibraryScreen,
);
export const SheetScreen = pageLater('Sheet', async () => (await import('./screens')).SheetScreen);
