import { later } from '@/ui';

export const DrawingView = later(async () => (await import('./detail')).DrawingView);
export const CloseUp = later(async () => (await import('./detail')).CloseUp);
export const TakeView = later(async () => (await import('./TakeView')).TakeView);
