import { later, Screen, Soft } from '@/ui';

const opening = (title: string) => (
  <Screen caption="Map" title={title}>
    <Soft>Opening the map …</Soft>
  </Screen>
);

export const BreakScreen = later(async () => (await import('./screens')).BreakScreen, opening('The break'));
export const MapScreen = later(
  async () => (await import('./screens')).MapScreen,
  opening('Where your notes lie'),
);
export const NoteScreen = later(async () => (await import('./screens')).NoteScreen, opening('The note'));
export const SeamScreen = later(async () => (await import('./screens')).SeamScreen, opening('The seam'));
export const SlideScreen = later(
  async () => (await import('./screens')).SlideScreen,
  opening('Slide and weather'),
);
export const TrendsScreen = later(
  async () => (await import('./screens')).TrendsScreen,
  opening('What has changed'),
);
