import type { Standing } from './standing';
import { civilDay, type CivilDay, type Wishes } from './wishes';

/** How much less than wished for, and why. */
export interface Ease {
  readonly share: number;
  readonly why: 'sore' | 'pause' | null;
}

const SORE_DAYS = 3;
const PAUSE_DAYS = 7;
const SHORT_PAUSE_DAYS = 5;
/** Days of practice until a pause is made good. */
const BACK_AFTER = 3;

/** Less, and nothing heavy, after soreness was told and after a pause: what rested is not what it was at once. */
export function easeOf({ daysPlayed }: Standing, { soreOn }: Wishes, day: CivilDay): Ease {
  const sore = soreOn === null ? Infinity : day - civilDay(soreOn);
  if (sore >= 0 && sore < SORE_DAYS) return { share: 0.5, why: 'sore' };
  const before = daysPlayed.filter((each) => each < day);
  for (let i = before.length; i > Math.max(0, before.length - BACK_AFTER); i--) {
    const paused = (i === before.length ? day : before[i]!) - before[i - 1]!;
    if (paused >= PAUSE_DAYS) return { share: i === before.length ? 0.6 : 0.8, why: 'pause' };
    if (i === before.length && paused >= SHORT_PAUSE_DAYS) return { share: 0.8, why: 'pause' };
  }
  return { share: 1, why: null };
}
