import { later } from '@/ui';

export const StandStage = later(async () => (await import('./StandStage')).StandStage);
export const ListenNow = later(async () => (await import('./ListenNow')).ListenNow);
