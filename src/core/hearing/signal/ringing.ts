import type { Decibels } from '@/core/base';

/** Decibels of air that count as much as one more partial. */
const AIR_PER_PARTIAL = 3;

/** How much a tone rings, in partials: those that stand out, less what its air covers. NaN where either is unknown. */
export const ringing = (richness: number, airinessDb: Decibels): number =>
  richness - airinessDb / AIR_PER_PARTIAL;
