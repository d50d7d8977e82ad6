import * as z from 'zod';
import { DAY_MS } from '@/core/base';
import { readSingle, type Single } from './single';
import type { Storage } from './storage';

/** A longer absence than this is asked about before anything is forgotten or filed by the new date. */
const LONG_AWAY_MS = 200 * DAY_MS;
/** Clocks are set, and seasons change them: less than this back is no jump. */
const BACK_MS = DAY_MS;

const clockSchema = z.object({
  version: z.literal(1),
  /** ISO 8601: the newest time that was seen here and believed; null: none was. */
  newest: z.string().nullable(),
});
export const CLOCK: Single<z.infer<typeof clockSchema>> = {
  key: 'clock',
  kind: { name: 'clock', version: 1, schema: clockSchema, migrations: {} },
  empty: { version: 1, newest: null },
};

/** What this device's clock says, held against the newest time that it said before. */
export interface Clock {
  readonly now: Date;
  /** The newest time that was believed. */
  readonly newest: Date | null;
  /** How it jumped; null: it did not. While it has, nothing is thrown away by it. */
  readonly jumped: 'ahead' | 'back' | null;
}

export async function readClock(storage: Storage, now: Date): Promise<Clock> {
  const { newest: stored } = await readSingle(storage, CLOCK);
  const newest = stored === null ? null : new Date(stored);
  const since = newest === null ? 0 : now.getTime() - newest.getTime();
  return { now, newest, jumped: since > LONG_AWAY_MS ? 'ahead' : since < -BACK_MS ? 'back' : null };
}

/** Notes what time it is. @param told a jump is right: the player says so. */
export async function believeClock(storage: Storage, now: Date, told = false): Promise<Clock> {
  const clock = await readClock(storage, now);
  const isNewer = clock.newest === null || now > clock.newest;
  if (told || (clock.jumped === null && isNewer))
    await storage.setItem(CLOCK.key, JSON.stringify({ version: 1, newest: now.toISOString() }));
  return told ? { now, newest: now, jumped: null } : clock;
}
