import { setAside } from './aside';
import { digest } from './digest.testing';
import type { Storage } from './storage';
import { upkeep, type UpkeepOptions } from './upkeep';

/** For tests: what is due in a log is done. */
export const keepUp = (storage: Storage, now: Date, options: Partial<UpkeepOptions> = {}): Promise<void> =>
  upkeep({
    storage,
    name: 'test',
    digest,
    onProgress: () => undefined,
    signal: new AbortController().signal,
    now,
    ...options,
  });

/** For tests: a log is opened, and what is due in it is done. */
export async function openedWhole(storage: Storage, now: Date): Promise<void> {
  await setAside(storage, 'test', now);
  await keepUp(storage, now);
}
