import { DAY_MS, type Outcome } from '@/core/base';
import { MEASURED_BY, type Digest } from '@/core/ledger';
import type { StoredTake } from '@/core/take';
import { AUDIO, audioOwner } from './audioChunks';
import { DESK_LOST } from './aside';
import { binnedRow, deskWrites, readDesk } from './desk';
import { exclusively } from './exclusively';
import { filed, filedIds, readMeta, rowsCounted, wholeIds } from './filing';
import { storedWrites, TAKE, TRACE } from './ledgerStore';
import { leaveOldLayout } from './oldLayout';
import { removeRunning } from './runningStore';
import type { Storage } from './storage';
import { READ_BY, readUnread, unreadWrites } from './unread';

/** A take as it lies there, of any version; the first two had their curves within. */
export interface Lying {
  readonly take: string;
  readonly trace: string | null;
}

/** A take that was read, in the form of today, with its row and cells. */
export interface Digested extends Digest {
  readonly stored: StoredTake;
}

export interface UpkeepOptions {
  readonly storage: Storage;
  /** Of the storage: tabs with the same one take turns. */
  readonly name: string;
  /** Reads and judges takes, one answer for each: not here, where the screen would wait for it. */
  readonly digest: (takes: readonly Lying[]) => Promise<readonly Outcome<Digested>[]>;
  readonly onProgress: (done: number, of: number) => void;
  readonly signal: AbortSignal;
  readonly now: Date;
}

/** So many takes are read, judged and written at once: what is lost when it is cut short. */
const BATCH = 24;
const TIDIED = 'tidied';

/** Whether something has to be brought up to date, or a day has gone since it was last looked. */
export async function isUpkeepDue(storage: Storage, now: Date): Promise<boolean> {
  const { filedBy } = await readMeta(storage);
  const unread = await readUnread(storage);
  const tidied = Number(await storage.getItem(TIDIED));
  return (
    filedBy < MEASURED_BY ||
    unread.some(({ triedBy }) => triedBy < READ_BY) ||
    !(Math.abs(now.getTime() - tidied) < DAY_MS) ||
    !(await areRowsWhole(storage))
  );
}

/** Whether there are as many rows as takes, without looking at what they say: it is asked whenever the log is opened. */
async function areRowsWhole(storage: Storage): Promise<boolean> {
  const takes = new Set((await storage.getAllKeys()).filter((key) => key.startsWith(TAKE)));
  const { drafts, bin } = await readDesk(storage);
  for (const { id } of [...drafts, ...bin]) takes.delete(TAKE + id);
  for (const { key } of await readUnread(storage)) takes.delete(key);
  return (await rowsCounted(storage)) === takes.size;
}

/**
 * Makes rows for takes that have none, or rows of an older way of measuring; tries again what could not be read; clears away
 * what belongs to nothing. Can be stopped at any time, and goes on from there.
 */
export async function upkeep(options: UpkeepOptions): Promise<void> {
  const { storage, name, signal, now, onProgress } = options;
  await exclusively(name, () => leaveOldLayout(storage));
  const due = await takesDue(storage);
  for (let at = 0; at < due.length; at += BATCH) {
    if (signal.aborted) return;
    onProgress(at, due.length);
    await refile(options, due.slice(at, at + BATCH));
  }
  onProgress(due.length, due.length);
  await exclusively(name, async () => {
    await storage.setMany(await filed(storage, { filedBy: MEASURED_BY }));
    await storage.removeItem(DESK_LOST);
  });
  // Not while an import writes sound whose takes come after it.
  await exclusively(name, () => clearAway(options));
  await storage.setItem(TIDIED, String(now.getTime()));
}

/** Ids of takes that ought to be in the rows, with their cells and measured as today, and are not; oldest first. */
async function takesDue(storage: Storage): Promise<string[]> {
  const keys = await storage.getAllKeys();
  const known = await wholeIds(storage, MEASURED_BY);
  const { drafts, bin } = await readDesk(storage);
  for (const { id } of [...drafts, ...bin]) known.add(id);
  for (const { key, triedBy } of await readUnread(storage))
    if (triedBy >= READ_BY && key.startsWith(TAKE)) known.add(key.slice(TAKE.length));
  return keys
    .filter((key) => key.startsWith(TAKE) && !known.has(key.slice(TAKE.length)))
    .map((key) => key.slice(TAKE.length))
    .sort();
}

async function refile(
  { storage, name, digest, now: at }: UpkeepOptions,
  ids: readonly string[],
): Promise<void> {
  const read = async () => storage.getMany(ids.flatMap((id) => [TAKE + id, TRACE + id]));
  const before = await read();
  const lying = ids.map((id) => ({ take: before[TAKE + id] ?? '', trace: before[TRACE + id] ?? null }));
  const outcomes = await digest(lying);
  await exclusively(name, async () => {
    const now = await read();
    const { drafts, bin } = await readDesk(storage);
    const elsewhere = new Set([...drafts, ...bin].map(({ id }) => id));
    // What was changed or deleted while it was being judged is left for the next time.
    const same = ids
      .map((id, i) => ({ id, outcome: outcomes[i]! }))
      .filter(({ id }) => now[TAKE + id] === before[TAKE + id] && !elsewhere.has(id));
    const good = same.flatMap(({ id, outcome }) => (outcome.ok ? [{ id, ...outcome.value }] : []));
    const problems = Object.fromEntries(
      same.map(({ id, outcome }) => [TAKE + id, outcome.ok ? null : outcome.problem]),
    );
    // Where the desk was lost a take without a row may have been thrown away: the player says what becomes of it.
    const isLost = (await storage.getItem(DESK_LOST)) !== null;
    const rows = isLost ? await filedIds(storage) : null;
    const isKnown = ({ id }: { id: string }) => rows === null || rows.has(id);
    const desk = await readDesk(storage);
    const found = good.filter((each) => !isKnown(each)).map(({ entry }) => binnedRow(entry, 'found', at));
    await storage.setMany({
      ...storedWrites(good),
      ...(await filed(storage, { add: good.filter(isKnown) })),
      ...(found.length > 0 && deskWrites({ ...desk, bin: [...desk.bin, ...found] })),
      ...unreadWrites(await readUnread(storage), problems),
    });
  });
}

/** Removes sound and curves of takes that are no more, and blocks that nobody knows of, when they are a day old. */
async function clearAway({ storage, now }: UpkeepOptions): Promise<void> {
  const keys = await storage.getAllKeys();
  const takes = new Set(keys.filter((key) => key.startsWith(TAKE)).map((key) => key.slice(TAKE.length)));
  const { running } = await readDesk(storage);
  const begun = new Set(running.map(({ id }) => id));
  const isOld = (id: string) => now.getTime() - parseInt(id, 36) > DAY_MS;
  const orphans = keys.filter((key) => {
    if (key.startsWith(TRACE)) return !takes.has(key.slice(TRACE.length)) && isOld(key.slice(TRACE.length));
    if (!key.startsWith(AUDIO) || key.startsWith(`${AUDIO}running-`)) return false;
    return !takes.has(audioOwner(key)) && isOld(audioOwner(key));
  });
  if (orphans.length > 0) await storage.removeMany(orphans);
  await removeRunning(storage, (id) => !begun.has(id) && isOld(id));
}
