import { later } from '../later';

export const DrawingView = later(async () => (await import('./detail')).DrawingView);
export const CloseUp = later(async () => (await import('./detail')).CloseUp);
