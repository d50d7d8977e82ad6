import { later } from '@/ui';

export const StandStage = later(async () => (await import('./pieces')).StandStage);
export const ListenNow = later(async () => (await import('./pieces')).ListenNow);
export const RoomNow = later(async () => (await import('./pieces')).RoomNow);
