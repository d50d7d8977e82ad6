import { pageLater } from '@/ui';

export const BenchScreen = pageLater('Bench', async () => (await import('./screens')).BenchScreen);
export const LimitsScreen = pageLater('Limits', async () => (await import('./screens')).LimitsScreen);
