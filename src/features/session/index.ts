import { pageLater } from '@/ui';

export const SessionScreen = pageLater('The session', async () => (await import('./screens')).SessionScreen);
export const SessionEndScreen = pageLater(
  'The session',
  async () => (await import('./screens')).SessionEndScreen,
);
