import { toByteArray } from 'base64-js';
import * as z from 'zod';
import { takeSchema } from '@/core/take';
import type { LedgerStore } from './ledgerStore';
import type { Storage } from './storage';

/** The demo store as the server sends it. */
export const demoSchema = z.object({
  schema: z.literal('gold-reed/demo@1'),
  /** Changes whenever the demo does, so that a browser knows whether it has this one. */
  edition: z.string(),
  story: z.string(),
  takes: z.array(
    z.object({ take: takeSchema, /** 16-bit samples in base64. */ audio: z.string().nullable() }),
  ),
});
export type Demo = z.infer<typeof demoSchema>;

const EDITION = 'demo-edition';

/** Brings the demo store up to the served edition; the player's changes to an edition stay until the next. */
export async function loadDemo(storage: Storage, store: LedgerStore): Promise<void> {
  const response = await fetch('/api/demo');
  if (!response.ok) return;
  const demo = demoSchema.parse(await response.json());
  if ((await storage.getItem(EDITION)) === demo.edition) return;
  const old = (await storage.getAllKeys()).filter((key) => /^(take|trash|audio)\/demo-/.test(key));
  await storage.removeMany(old);
  await store.importTakes(
    demo.takes.map(({ take, audio }) => ({ take, audio: audio === null ? null : samplesOf(audio) })),
  );
  await storage.setItem(EDITION, demo.edition);
}

function samplesOf(base64: string): Int16Array {
  const bytes = toByteArray(base64);
  return new Int16Array(bytes.buffer, bytes.byteOffset, bytes.byteLength >> 1);
}
