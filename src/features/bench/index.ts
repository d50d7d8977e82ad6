import { pageLater } from '@/ui';

export const BenchScreen = pageLater('Bench', async () => (await import('./screens')).BenchScreen);
export const LimitsScreen = pageLater('Limits', async () => (await import('./screens')).LimitsScreen);
export const ReedsScreen = pageLater(
  'Reeds and set-ups',
  async () => (await import('./screens')).ReedsScreen,
  'Bench',
);
export const SettingsScreen = pageLater(
  'Settings',
  async () => (await import('./screens')).SettingsScreen,
  'Bench',
);
