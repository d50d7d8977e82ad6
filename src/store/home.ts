import { createAsyncStorage } from '@react-native-async-storage/async-storage';
import * as z from 'zod';
import { loadDemo } from './demo';
import { LedgerStore } from './ledgerStore';
import { RunningStore } from './runningStore';
import type { Storage } from './storage';

export type Whose = 'mine' | 'demo';

const healthSchema = z.object({ ok: z.literal(true), demo: z.boolean() });
const CHOICE = 'whose';

/** Which log is open. The demo lives in a store of its own and never touches the player's. */
export interface Home {
  readonly whose: Whose;
  readonly demoOffered: boolean;
  readonly store: LedgerStore;
  readonly running: RunningStore;
  readonly storage: Storage;
}

/** Opens the player's log, or the demo's where the server offers one and the player has not left it. */
export async function openHome(): Promise<Home> {
  const shell = createAsyncStorage('gold-reed-shell');
  const demoOffered = await offersDemo();
  const chosen = await shell.getItem(CHOICE);
  const whose: Whose = demoOffered && chosen !== 'mine' ? 'demo' : 'mine';
  const storage = createAsyncStorage(whose === 'demo' ? 'gold-reed-demo' : 'gold-reed');
  const store = new LedgerStore(storage);
  if (whose === 'demo') await loadDemo(storage, store);
  await store.sweep(new Date());
  return { whose, demoOffered, store, running: new RunningStore(storage), storage };
}

export async function chooseHome(whose: Whose): Promise<void> {
  await createAsyncStorage('gold-reed-shell').setItem(CHOICE, whose);
}

async function offersDemo(): Promise<boolean> {
  try {
    const health = healthSchema.safeParse(await (await fetch('/api/health')).json());
    return health.success && health.data.demo;
  } catch {
    // Without a server (a copy on a shelf, no network) there is the player's own log.
    return false;
  }
}
