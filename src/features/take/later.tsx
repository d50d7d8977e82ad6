import type { Take } from '@/core/take';
import type { Digesting, Settings } from '@/store';
import { later, pageLater } from '@/ui';
import type { Judged } from './judging';

export const TakeView = later(async () => (await import('./screens')).TakeView);
export const CompareScreen = pageLater(
  'Beside each other',
  async () => (await import('./screens')).CompareScreen,
);

/** What is kept of a take, judged. */
export const digestTake: Digesting = async (...take) => (await import('./screens')).digestOf(...take);

export const judgeTake = async (take: Take, settings: Settings): Promise<Judged> =>
  (await import('./screens')).judged(take, settings);
