import { later, pageLater } from '@/ui';

export const BreakScreen = pageLater('The break', async () => (await import('./screens')).BreakScreen, 'Map');
export const MapScreen = pageLater(
  'Where your notes lie',
  async () => (await import('./screens')).MapScreen,
  'Map',
);
/** The map as a drawing, for paper. */
export const MapDrawing = later(async () => (await import('./screens')).MapDrawing);
export const NoteScreen = pageLater('The note', async () => (await import('./screens')).NoteScreen, 'Map');
export const SeamScreen = pageLater('The seam', async () => (await import('./screens')).SeamScreen, 'Map');
export const SlideScreen = pageLater(
  'Slide and weather',
  async () => (await import('./screens')).SlideScreen,
  'Map',
);
export const TrendsScreen = pageLater(
  'What has changed',
  async () => (await import('./screens')).TrendsScreen,
  'Map',
);
export { countWord, problemWord, STATE_WORDS, WALL } from './words';
