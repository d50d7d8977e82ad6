import type { Kind } from '@/core/instruments';

/** How teachers differ, where more than one rule has to say it. */
export const LEAP =
  'How much may move in a leap is disputed: some keep lips and jaw still and let the air do it, some move both on purpose.';
export const LOW_AIR = 'Some ask for one fast air everywhere, some for slower, wider air on low notes.';
export const TONGUE =
  'Low for the bottom of a flute, high for the top of a clarinet: what the tongue should do differs by instrument and by teacher.';
export const JAW =
  'Some drop the jaw for low notes, some keep the head and jaw still and change only the air.';

export const REED: readonly Kind[] = ['single-reed', 'double-reed'];
