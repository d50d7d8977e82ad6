import { greatest, rollups } from 'd3-array';
import * as z from 'zod';
import { entrySchema, packedCellsSchema } from '@/core/ledger';
import { removeAudio, writeAudio } from './audioChunks';
import { deskWrites, readDesk } from './desk';
import { exclusively } from './exclusively';
import { filed, readEntries } from './filing';
import { storedWrites, TAKE, TRACE } from './ledgerStore';
import { defaultSettings, SETTINGS_KEY } from './settings';
import type { Storage } from './storage';

/** The demo store as the server sends it: takes as they are stored, each with its row and cells. */
export const demoSchema = z.object({
  schema: z.literal('gold-reed/demo@4'),
  /** Changes whenever the demo does, so that a browser knows whether it has this one. */
  edition: z.string(),
  story: z.string(),
  takes: z.array(
    z.object({
      stored: z.object({ take: z.string(), trace: z.string() }),
      entry: entrySchema,
      cells: packedCellsSchema,
    }),
  ),
});
export type Demo = z.infer<typeof demoSchema>;

const EDITION = 'demo-edition';
const isOfDemo = (id: string) => id.startsWith('demo-');

/** Brings the demo store up to the served edition; the player's changes to an edition stay until the next. */
export async function loadDemo(storage: Storage, name: string): Promise<void> {
  const response = await fetch('/api/demo').catch(() => null);
  if (!response?.ok) {
    // Where there is no network, what was brought before is there.
    if ((await storage.getItem(EDITION)) !== null) return;
    throw new Error('the demo could not be fetched');
  }
  const { edition, takes } = demoSchema.parse(await response.json());
  if ((await storage.getItem(EDITION)) === edition) return;
  await exclusively(name, async () => {
    const { entries } = await readEntries(storage, Infinity);
    const desk = await readDesk(storage);
    const asFound = (await storage.getItem(SETTINGS_KEY)) === null;
    await storage.setMany({
      ...(asFound && {
        [SETTINGS_KEY]: JSON.stringify({ ...defaultSettings, instrumentId: mostPlayed(takes) }),
      }),
      ...storedWrites(takes.map(({ entry: { id }, stored }) => ({ id, stored }))),
      ...(await filed(storage, { add: takes, remove: entries.filter(({ id }) => isOfDemo(id)) })),
      ...deskWrites({ ...desk, bin: desk.bin.filter(({ id }) => !isOfDemo(id)) }),
      [EDITION]: edition,
    });
  });
  await removeEarlier(storage, new Set(takes.map(({ entry }) => entry.id)));
}

/** What its player plays most: who opens the demo sees it first. */
const mostPlayed = (takes: Demo['takes']): string =>
  greatest(
    rollups(
      takes,
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
