import { later, pageLater } from '@/ui';

export const ChartView = later(async () => (await import('./detail')).ChartView);
export const CloseUp = later(async () => (await import('./detail')).CloseUp);
export const TakeView = later(async () => (await import('./TakeView')).TakeView);
export const TimeChart = later(async () => (await import('./detail')).TimeChart);
export const CompareScreen = pageLater(
  'Beside each other',
  async () => (await import('./CompareScreen')).CompareScreen,
);
