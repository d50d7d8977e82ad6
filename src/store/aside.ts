import * as z from 'zod';
import { readRecord, type Outcome, type RecordKind } from '@/core/base';
import { DESK } from './desk';
import { exclusively } from './exclusively';
import { META } from './filing';
import { MUSIC_KEY, musicKind } from './musicStore';
import { PLANS_KEY, plansIn, SESSIONS_KEY, sessionsKind } from './planStore';
import type { Storage, Writes } from './storage';
import { UNREAD } from './unread';

const ASIDE = 'aside/';
/** Its being there says that nothing is known of takes that are in no row: whether they were thrown away, or not yet kept. */
export const DESK_LOST = 'desk-lost';

const asideSchema = z.object({
  version: z.literal(1),
  /** Under which it was stored. */
  key: z.string(),
  text: z.string(),
  problem: z.string(),
  /** ISO 8601. */
  at: z.string(),
});
export const asideKind: RecordKind<z.infer<typeof asideSchema>> = {
  name: 'aside',
  version: 1,
  schema: asideSchema,
  migrations: {},
};

/** A record that could not be read, put aside whole so that the rest goes on working. */
export interface Aside {
  /** Under which it lies now. */
  readonly id: string;
  readonly text: string;
  readonly problem: string;
  readonly at: string;
  /** What is lost by it and what is not, in words. */
  readonly words: string;
}

/** A record that there is one of, with what a player loses where it cannot be read. */
interface Guarded {
  readonly key: string;
  readonly read: (text: string) => Outcome<unknown>;
  readonly words: string;
}

const GUARDED: readonly Guarded[] = [
  {
    key: DESK.key,
    read: (text) => readRecord(DESK.kind, text),
    words:
      'Which takes were thrown away, or not kept yet, could not be read. No take is lost: those that no list knows of are in the bin, as found again, until you remove them. Blocks that were left half-way cannot be gone on with.',
  },
  {
    key: PLANS_KEY,
    read: (text) => plansIn(PLANS_KEY, text),
    words:
      'Your plans, routines and the list of past sessions could not be read. Nothing that you played is lost, and plans are made anew from it.',
  },
  {
    key: MUSIC_KEY,
    read: (text) => readRecord(musicKind, text),
    words:
      'Your own music could not be read. What you played of it is in the log as before; music can be added again.',
  },
  {
    key: SESSIONS_KEY,
    read: (text) => readRecord(sessionsKind, text),
    words: 'The session that was under way could not be read. Its takes are in the log.',
  },
  {
    key: META.key,
    read: (text) => readRecord(META.kind, text),
    words:
      'The table of contents of your log could not be read. Nothing is lost: it is made again from the takes.',
  },
  {
    key: UNREAD.key,
    read: (text) => readRecord(UNREAD.kind, text),
    words: 'The list of what could not be read could itself not be read. It is made again.',
  },
];

/** What of these records lies there and cannot be read. */
async function unreadable(storage: Storage): Promise<{ key: string; text: string; problem: string }[]> {
  const texts = await storage.getMany(GUARDED.map(({ key }) => key));
  return GUARDED.flatMap(({ key, read: reading }) => {
    const text = texts[key];
    const read = text == null ? null : reading(text);
    return text == null || read === null || read.ok ? [] : [{ key, text, problem: read.problem }];
  });
}

/**
 * Puts aside what cannot be read, before anything is written in its place. Where all is well, as nearly always, nobody waits for
 * what another tab is changing just now.
 */
export async function setAside(storage: Storage, name: string, now: Date): Promise<void> {
  if ((await unreadable(storage)).length === 0) return;
  await exclusively(name, async () => {
    const damaged = await unreadable(storage);
    if (damaged.length === 0) return;
    const at = now.toISOString();
    const writes: Writes = {};
    for (const { key, text, problem } of damaged)
      writes[`${ASIDE}${key}@${at}`] = JSON.stringify({ version: 1, key, text, problem, at });
    if (damaged.some(({ key }) => key === DESK.key)) writes[DESK_LOST] = at;
    await storage.setMany(writes);
    // From here on it counts as never written. Cut short before this, it is put aside once more.
    await storage.removeMany(damaged.map(({ key }) => key));
  });
}

/** What was put aside, newest first. */
export async function readAside(storage: Storage): Promise<Aside[]> {
  const keys = (await storage.getAllKeys()).filter((key) => key.startsWith(ASIDE));
  const texts = await storage.getMany(keys);
  return keys
    .flatMap((id) => {
      const read = texts[id] == null ? null : readRecord(asideKind, texts[id]);
      if (!read?.ok) return [];
      const { key, text, problem, at } = read.value;
      const words =
        GUARDED.find((each) => each.key === key)?.words ?? `What was stored as ${key} could not be read.`;
      return [{ id, text, problem, at, words }];
    })
    .sort((a, b) => (a.at < b.at ? 1 : -1));
}

/** The player has seen it, and does not want it. */
export const forgetAside = (storage: Storage, id: string): Promise<void> => storage.removeItem(id);
