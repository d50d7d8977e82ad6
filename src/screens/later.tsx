import { later } from '@/ui';

export const StandStage = later(async () => (await import('./stand/StandStage')).StandStage);
export const TakeView = later(async () => (await import('./take/TakeView')).TakeView);
