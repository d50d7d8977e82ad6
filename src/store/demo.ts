import { greatest, rollups } from 'd3-array';
import * as z from 'zod';
import { MEASURED_BY, type Entry, type PackedCells } from '@/core/ledger';
import { removeAudio, writeAudio } from './audioChunks';
import { deskWrites, readDesk } from './desk';
import { exclusively } from './exclusively';
import { filed, readEntries } from './filing';
import { storedWrites, TAKE, TRACE } from './ledgerStore';
import { defaultSettings, SETTINGS_KEY } from './settings';
import type { Storage } from './storage';

/** A row with its cells as the server sends it. What is in it is checked when it is read from the store, as everything is. */
const rowSchema = z.object({
  entry: z.custom<Entry>(
    (row) =>
      z.looseObject({ id: z.string(), instrumentId: z.string(), createdAt: z.string() }).safeParse(row)
        .success,
  ),
  cells: z.custom<PackedCells>((cells) => typeof cells === 'object' && cells !== null),
});
/** What pages show of the demo: rows and cells. */
export const demoSchema = z.object({
  schema: z.literal('gold-reed/demo@5'),
  /** Changes whenever the demo does, so that a browser knows whether it has this one. */
  edition: z.string(),
  story: z.string(),
  rows: z.array(rowSchema),
});
export type Demo = z.infer<typeof demoSchema>;

/** Its takes, as they are stored. */
const takesSchema = z.object({
  schema: z.literal('gold-reed/demo-takes@1'),
  edition: z.string(),
  takes: z.array(z.object({ id: z.string(), stored: z.object({ take: z.string(), trace: z.string() }) })),
});

/** Of the rows that are here. */
const EDITION = 'demo-edition';
/** Of the takes that are here: they come after the first page. */
const TAKES_EDITION = 'demo-takes-edition';
const isOfDemo = (id: string) => id.startsWith('demo-');

/**
 * Brings the rows of the demo store up to the served edition; the player's changes to an edition stay until the next.
 * @param served edition; null: there is no network to ask.
 */
export async function loadDemo(storage: Storage, name: string, served: string | null): Promise<void> {
  const here = await storage.getItem(EDITION);
  if (here !== null && (served === null || here === served)) return;
  const response = await fetch('/api/demo').catch(() => null);
  if (!response?.ok) {
    if (here !== null) return;
    throw new Error('the demo could not be fetched');
  }
  const { edition, rows } = demoSchema.parse(await response.json());
  await exclusively(name, async () => {
    const { entries } = await readEntries(storage, Infinity);
    const desk = await readDesk(storage);
    const asFound = (await storage.getItem(SETTINGS_KEY)) === null;
    await storage.setMany({
      ...(asFound && {
        [SETTINGS_KEY]: JSON.stringify({ ...defaultSettings, instrumentId: mostPlayed(rows) }),
      }),
      ...(await filed(storage, {
        add: rows,
        remove: entries.filter(({ id }) => isOfDemo(id)),
        filedBy: MEASURED_BY,
      })),
      ...deskWrites({ ...desk, bin: desk.bin.filter(({ id }) => !isOfDemo(id)) }),
      [EDITION]: edition,
    });
  });
}

/** Brings the takes of the rows that are here, when they are not here yet. */
export async function loadDemoTakes(storage: Storage, name: string): Promise<void> {
  const edition = await storage.getItem(EDITION);
  if ((await storage.getItem(TAKES_EDITION)) === edition) return;
  const response = await fetch('/api/demo/takes').catch(() => null);
  if (!response?.ok) return;
  const sent = takesSchema.parse(await response.json());
  // The demo was made anew since: its rows come when it is opened next.
  if (sent.edition !== edition) return;
  await exclusively(name, () => storage.setMany({ ...storedWrites(sent.takes), [TAKES_EDITION]: edition }));
  await removeEarlier(storage, new Set(sent.takes.map(({ id }) => id)));
}

/** What its player plays most: who opens the demo sees it first. */
const mostPlayed = (rows: Demo['rows']): string =>
  greatest(
    rollups(
      rows,
      (same) => same.length,
      ({ entry }) => entry.instrumentId,
    ),
    ([, count]) => count,
  )?.[0] ?? defaultSettings.instrumentId;

/** Takes of earlier editions that are in this one no more. */
async function removeEarlier(storage: Storage, now: ReadonlySet<string>): Promise<void> {
  const keys = await storage.getAllKeys();
  const old = keys
    .filter((key) => key.startsWith(TAKE))
    .map((key) => key.slice(TAKE.length))
    .filter((id) => isOfDemo(id) && !now.has(id));
  await removeAudio(storage, ...old);
  await storage.removeMany(old.flatMap((id) => [TAKE + id, TRACE + id]));
}

/** The sound of a demo take: fetched when it is first listened to, and kept. */
export async function fetchDemoSound(storage: Storage, id: string): Promise<Int16Array | null> {
  const response = await fetch(`/api/demo/sound/${encodeURIComponent(id)}`);
  if (!response.ok) return null;
  const samples = new Int16Array(await response.arrayBuffer());
  await writeAudio(storage, id, samples);
  return samples;
}
