import { pageLater } from '@/ui';

export const InstrumentScreen = pageLater(
  'Instrument',
  async () => (await import('./screens')).InstrumentScreen,
);
export const InstrumentsScreen = pageLater(
  'Instruments',
  async () => (await import('./screens')).InstrumentsScreen,
);
