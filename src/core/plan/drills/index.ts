import type { Seconds } from '@/core/base';
import { DRILLS } from './ordinary';
import { SEAM_DRILLS } from './seams';
import type { Row } from './turn';

export { DRILLS } from './ordinary';
export { SEAM_DRILLS } from './seams';
export { noteOf, SIZES, turnOf, type Part, type Target, type Turn } from './turn';

const ROWS = new Map<string, Pick<Row, 'load' | 'dose' | 'paced'>>(
  [...DRILLS, ...SEAM_DRILLS].map((row) => [row.family, row]),
);

/** How heavy an exercise is; 1 where nothing is known of it. */
export const loadOf = (family: string): number => ROWS.get(family)?.load ?? 1;

/** What of an exercise a day bears at most. */
export const doseOf = (family: string): Seconds => ROWS.get(family)?.dose ?? Infinity;

/** Whether an exercise goes faster as it comes clean. */
export const isPaced = (family: string): boolean => ROWS.get(family)?.paced === true;

/** From here on an exercise is heavy: not twice in a row, and a rest after it. */
export const HEAVY = 2;
