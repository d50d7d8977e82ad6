import { later } from '@/ui';

export const StandStage = later(async () => (await import('./StandStage')).StandStage);
