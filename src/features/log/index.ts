import { pageLater } from '@/ui';

export const BinScreen = pageLater('In the bin', async () => (await import('./screens')).BinScreen);
export const LogScreen = pageLater('What you have played', async () => (await import('./screens')).LogScreen);
export const ReportScreen = pageLater('Report', async () => (await import('./screens')).ReportScreen);
