import useSWR from 'swr';
import { rebased } from '@/core/base';
import { changed, data, home, LOCAL } from './opened';
import { changeSettings, defaultSettings, readSettings, settingsProblem, type Settings } from './settings';

let changing: Promise<void> = Promise.resolve();
let waiting = 0;

/**
 * Each change is stored on what the one before it left: two quick taps must not lose the first.
 * @param change told whether others wait behind it.
 */
function inTurn(change: (isLast: () => boolean) => Promise<void>): Promise<void> {
  waiting++;
  const done = changing.then(() => change(() => waiting === 1)).finally(() => void waiting--);
  changing = done.catch(() => undefined);
  return done;
}

/** Settings, and a way to change some of them at once. `ready` is false until they have been read. */
export function useSettings(): {
  settings: Settings;
  ready: boolean;
  change: (part: Partial<Settings>) => Promise<void>;
} {
  const { data: stored, mutate: update } = useSWR<Settings, Error>(
    data('settings'),
    async () => readSettings((await home()).storage),
    LOCAL,
  );
  const change = (part: Partial<Settings>) => {
    // Made of what this page shows: what another tab changed meanwhile stays, entry by entry.
    const made = (before: Settings) => (stored ? rebased(stored, { ...stored, ...part }, before) : part);
    // Seen at once: the next tap has to begin from this one, even before it is stored.
    if (stored)
      void update((now) => rebased(stored, { ...stored, ...part }, now ?? stored), { revalidate: false });
    return inTurn(async (isLast) => {
      const { storage, name } = await home();
      try {
        const next = await changeSettings(storage, name, made);
        if (!stored) await update(next, { revalidate: false });
      } finally {
        // Also when it could not be stored: what is shown is what is so. But what is shown already is not taken back meanwhile:
        // who slides and taps Begin would begin with what the slider passed on its way.
        if (isLast()) await changed('settings');
      }
    });
  };
  return { settings: stored ?? defaultSettings, ready: stored !== undefined, change };
}

/** Why the settings shown are not the player's own, in words. */
export function useSettingsProblem() {
  return useSWR<string | null, Error>(
    data('settings', 'problem'),
    async () => settingsProblem((await home()).storage),
    LOCAL,
  );
}
