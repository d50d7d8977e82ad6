import { pageLater } from '@/ui';

export const WeekScreen = pageLater('The week', async () => (await import('./screens')).WeekScreen);
export const DayScreen = pageLater('The day', async () => (await import('./screens')).DayScreen);
export const WishesScreen = pageLater(
  'What the plan goes by',
  async () => (await import('./screens')).WishesScreen,
  'The week',
);
export const PrintWeekScreen = pageLater('Practice', async () => (await import('./screens')).PrintWeekScreen);
export const OpenScreen = pageLater('Open what was sent', async () => (await import('./screens')).OpenScreen);
