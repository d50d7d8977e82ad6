import useSWR, { mutate } from 'swr';
import { limitsOf } from '@/core/verdict';
import { AnalysisClient } from '@/worker';
import { removeOldFiles } from './growingFile';
import { readClock } from './clock';
import { changed, home, LOCAL } from './opened';
import { ownInstruments, readSettings } from './settings';
import { isUpkeepDue, upkeep } from './upkeep';

/** How far the bringing up to date of the log has come; null: there is nothing to do. */
export interface UpkeepState {
  readonly done: number;
  readonly of: number;
}

const STATE = 'upkeep';
let stopping: AbortController | null = null;
let running: Promise<void> | null = null;

export function useUpkeep() {
  const { data } = useSWR<UpkeepState | null>(STATE, null, LOCAL);
  return { state: data ?? null, stop: () => stopping?.abort(), goOn: keepUp };
}

/** Does what is due, once at a time. Stopped or cut short it goes on the next time the log is opened. */
export function keepUp(): Promise<void> {
  running ??= work().finally(() => (running = null));
  return running;
}

async function work(): Promise<void> {
  const { storage, name, store, rest } = await home();
  await rest();
  const now = new Date();
  await store.sweep(await readClock(storage, now));
  await removeOldFiles(now);
  if (!(await isUpkeepDue(storage, now))) return;
  const abort = (stopping = new AbortController());
  // A worker is begun only when there is a take to be read.
  let client: AnalysisClient | null = null;
  try {
    const { level, ownLimits, naming } = await readSettings(storage);
    const own = await ownInstruments(storage);
    await upkeep({
      storage,
      name,
      now,
      signal: abort.signal,
      digest: (takes) => {
        client ??= new AnalysisClient();
        return client.digest({ takes: [...takes], own, limits: limitsOf(level, ownLimits), naming });
      },
      onProgress: (done, of) => {
        if (of > 0) void mutate(STATE, { done, of }, { revalidate: false });
        if (done > 0) void changed('log');
      },
    });
  } finally {
    (client as AnalysisClient | null)?.close();
    await mutate(STATE, null, { revalidate: false });
    await changed('log', 'bin', 'draft', 'running', 'unread');
  }
}
