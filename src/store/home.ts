import { createAsyncStorage } from '@react-native-async-storage/async-storage';
import * as z from 'zod';
import { setAside } from './aside';
import { believeClock } from './clock';
import { loadDemo, loadDemoTakes } from './demo';
import { LedgerStore, type Digesting } from './ledgerStore';
import { RunningStore } from './runningStore';
import { toldPlainly, type Storage } from './storage';
import { claimTab, type Tab } from './tab';

export type Whose = 'mine' | 'demo';

const healthSchema = z.object({
  ok: z.literal(true),
  demo: z.boolean(),
  edition: z.string().nullable(),
});
const CHOICE = 'whose';
const NAMES: Readonly<Record<Whose, string>> = { mine: 'gold-reed', demo: 'gold-reed-demo' };

/** Which log is open. The demo lives in a store of its own and never touches the player's. */
export interface Home {
  readonly whose: Whose;
  /** Of the storage: tabs with the same one take turns at changing it. */
  readonly name: string;
  readonly demoOffered: boolean;
  readonly tab: Tab;
  readonly store: LedgerStore;
  readonly running: RunningStore;
  readonly storage: Storage;
  /** Brings what does not have to be there for the first page. */
  readonly rest: () => Promise<void>;
}

let judging: Digesting = () => {
  throw new Error('Nothing here can judge a take yet.');
};

/** What judges a take that is kept. It is brought by the app: with all it needs it is too much for the first load. */
export function judgeBy(by: Digesting): void {
  judging = by;
}

let tab: Promise<Tab> | null = null;

/** Opens the player's log, or the demo's where the server offers one and the player has not left it. */
export async function openHome(): Promise<Home> {
  const shell = createAsyncStorage('gold-reed-shell');
  const { demoOffered, edition } = await offersDemo(shell);
  const chosen = await shell.getItem(CHOICE);
  const whose: Whose = demoOffered && chosen !== 'mine' ? 'demo' : 'mine';
  const name = NAMES[whose];
  const storage = toldPlainly(createAsyncStorage(name));
  const here = await (tab ??= claimTab().catch((problem: unknown) => {
    // What failed once may go well the next time that the log is opened.
    tab = null;
    throw problem;
  }));
  const store = new LedgerStore(storage, name, (...take) => judging(...take));
  const now = new Date();
  await setAside(storage, name, now);
  await believeClock(storage, now);
  if (whose === 'demo') await loadDemo(storage, name, edition);
  let rest: Promise<void> | null = null;
  return {
    whose,
    name,
    demoOffered,
    tab: here,
    store,
    running: new RunningStore(storage, name, here),
    storage,
    // Where there was no network for it, it is asked for anew; where it is there, that is soon seen.
    rest: () =>
      (rest ??= (whose === 'demo' ? loadDemoTakes(storage, name) : Promise.resolve()).finally(
        () => (rest = null),
      )),
  };
}

export async function chooseHome(whose: Whose): Promise<void> {
  await createAsyncStorage('gold-reed-shell').setItem(CHOICE, whose);
}

const OFFERED = 'demo-offered';
/** A network that takes what is sent and answers nothing does not keep the log closed. */
const ANSWER_MS = 3000;

/** Where there is no network, what was so when there was. */
async function offersDemo(shell: Storage): Promise<{ demoOffered: boolean; edition: string | null }> {
  try {
    const response = await fetch('/api/health', { signal: AbortSignal.timeout(ANSWER_MS) });
    const health = healthSchema.safeParse(await response.json());
    const demoOffered = health.success && health.data.demo;
    // What is being written when a page is left holds up the next one: only what has changed is.
    if ((await shell.getItem(OFFERED)) !== String(demoOffered))
      await shell.setItem(OFFERED, String(demoOffered));
    return { demoOffered, edition: health.data?.edition ?? null };
  } catch {
    return { demoOffered: (await shell.getItem(OFFERED)) === 'true', edition: null };
  }
}
