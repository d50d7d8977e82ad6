import { newId } from './newId';

const REMEMBERED = 'gold-reed-tab';
const lockOf = (tab: string) => `gold-reed-tab/${tab}`;

/** This tab among others of the same browser. */
export interface Tab {
  /** The same after a reload; another one in a tab that was made by doubling this one. */
  readonly id: string;
  /** Those that are open now. What is left by others is nobody's, and may be taken up. */
  open(): Promise<ReadonlySet<string>>;
}

/** Holds a lock for as long as the tab is open: by it the others know. */
export async function claimTab(): Promise<Tab> {
  const remembered = read();
  const id = remembered !== null && (await claimed(remembered)) ? remembered : newId(new Date());
  if (id !== remembered) {
    await claimed(id);
    write(id);
  }
  return { id, open: () => openTabs(id) };
}

/** A page that is being left may hold its lock a moment longer than the next one takes to begin. */
const LEAVING_MS = 800;

function claimed(id: string): Promise<boolean> {
  if (!('locks' in navigator)) return Promise.resolve(true);
  return new Promise((resolve) => {
    navigator.locks
      .request(lockOf(id), { signal: AbortSignal.timeout(LEAVING_MS) }, () => {
        resolve(true);
        return new Promise<void>(() => undefined);
      })
      .catch(() => resolve(false));
  });
}

async function openTabs(own: string): Promise<ReadonlySet<string>> {
  if (!('locks' in navigator)) return new Set([own]);
  const { held } = await navigator.locks.query();
  const prefix = lockOf('');
  return new Set(
    (held ?? []).flatMap(({ name }) => (name?.startsWith(prefix) ? [name.slice(prefix.length)] : [])),
  );
}

// A browser that forbids it gives the tab a new name at each load; what was left is then taken up as somebody else's.
function read(): string | null {
  try {
    return sessionStorage.getItem(REMEMBERED);
  } catch {
    return null;
  }
}

function write(id: string): void {
  try {
    sessionStorage.setItem(REMEMBERED, id);
  } catch {
    return;
  }
}
