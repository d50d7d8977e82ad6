import { later } from '@/ui';

/** What a take is looked at closely with, loaded when it first is. */
export const ChartView = later(async () => (await import('./detail')).ChartView);
export const CloseUp = later(async () => (await import('./detail')).CloseUp);
export const TimeChart = later(async () => (await import('./detail')).TimeChart);
