import * as z from 'zod';
import { binnedRow, deskWrites, readDesk, UNREADABLE, type Desk } from './desk';
import { readUnread, unreadWrites } from './unread';
import type { Storage, Writes } from './storage';

/** Tab of what was played before tabs were told apart: it is open no more. */
const LONG_GONE = 'before';
const DRAFT = 'draft';
const TRASH = 'trash/';
const DAMAGED = 'damaged/';
const RUNNING = 'running';

const trashSchema = z.object({ deletedAt: z.string(), text: z.string() });
const asideSchema = z.object({ text: z.string() });
const titledSchema = z.object({
  id: z.string().min(1),
  createdAt: z.string(),
  score: z.object({ title: z.string(), instrumentId: z.string() }),
});
const runningSchema = z.object({ count: z.number().int() });

/**
 * Brings what lies in the places of before there were rows to the places of now. Every step writes the new before it takes
 * away the old, so that it can be cut short anywhere and begun again. To be called while no other tab changes the log.
 */
export async function leaveOldLayout(storage: Storage): Promise<void> {
  const keys = await storage.getAllKeys();
  for (const key of keys) {
    if (key === DRAFT) await moveDraft(storage);
    else if (key.startsWith(TRASH)) await moveTrash(storage, key);
    else if (key.startsWith(DAMAGED)) await moveDamaged(storage, key, keys);
    else if (key === RUNNING) await moveRunning(storage, keys);
  }
}

async function moveDraft(storage: Storage): Promise<void> {
  const text = (await storage.getItem(DRAFT)) ?? '';
  const draft = parsed(titledSchema, text);
  if (!draft) return listed(storage, DRAFT);
  const desk = await readDesk(storage);
  await replace(storage, DRAFT, {
    [`take/${draft.id}`]: text,
    ...deskWrites({ ...desk, drafts: [{ id: draft.id, tab: LONG_GONE }, ...desk.drafts] }),
  });
}

async function moveTrash(storage: Storage, key: string): Promise<void> {
  const trash = parsed(trashSchema, (await storage.getItem(key)) ?? '');
  if (!trash) return listed(storage, key);
  const id = key.slice(TRASH.length);
  const take = parsed(titledSchema, trash.text);
  const row = binnedRow(
    {
      id,
      title: take?.score.title ?? UNREADABLE,
      instrumentName: take?.score.instrumentId ?? '',
      createdAt: take?.createdAt ?? trash.deletedAt,
    },
    'deleted',
    new Date(trash.deletedAt),
  );
  const desk: Desk = await readDesk(storage);
  await replace(storage, key, {
    [`take/${id}`]: trash.text,
    ...deskWrites({ ...desk, bin: [...desk.bin.filter((each) => each.id !== id), row] }),
  });
}

/** What was set aside goes back to where it lay, to be tried again; where something else lies by now it stays, and is listed. */
async function moveDamaged(storage: Storage, key: string, keys: readonly string[]): Promise<void> {
  const aside = parsed(asideSchema, (await storage.getItem(key)) ?? '');
  const place = key.slice(DAMAGED.length);
  const lies = keys.includes(place) ? await storage.getItem(place) : null;
  if (!aside || !place.startsWith('take/') || (lies !== null && lies !== aside.text))
    return listed(storage, key);
  await replace(storage, key, { [place]: aside.text });
}

async function moveRunning(storage: Storage, keys: readonly string[]): Promise<void> {
  const head = (await storage.getItem(RUNNING)) ?? '';
  const running = parsed(runningSchema, head);
  const old = keys.filter((key) => key === RUNNING || /^running\/\d+$|^audio\/running-\d+\//.test(key));
  const stored = await storage.getMany(old);
  const moved = Object.fromEntries(
    old.map((key) => [
      key
        .replace(/^running(\/\d+)?$/, `running/${LONG_GONE}$1`)
        .replace(/^audio\/running-(\d+)\//, `audio/running-${LONG_GONE}-$1/`),
      stored[key] ?? '',
    ]),
  );
  const desk = await readDesk(storage);
  if (running && running.count > 0)
    await storage.setMany({
      ...moved,
      ...deskWrites({ ...desk, running: [{ id: LONG_GONE, tab: LONG_GONE }, ...desk.running] }),
    });
  await storage.removeMany(old);
}

async function replace(storage: Storage, old: string, writes: Writes): Promise<void> {
  await storage.setMany(writes);
  await storage.removeItem(old);
}

async function listed(storage: Storage, key: string): Promise<void> {
  const unread = await readUnread(storage);
  if (unread.some((each) => each.key === key)) return;
  await storage.setMany(unreadWrites(unread, { [key]: 'the stored text is damaged' }));
}

function parsed<T>(schema: z.ZodType<T>, text: string): T | null {
  try {
    return schema.parse(JSON.parse(text));
  } catch {
    return null;
  }
}
