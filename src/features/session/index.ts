import { pageLater } from '@/ui';

export { SessionScreen } from './SessionScreen';
export const SessionEndScreen = pageLater(
  'The session',
  async () => (await import('./screens')).SessionEndScreen,
);
