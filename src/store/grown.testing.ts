import { DAY_MS } from '@/core/base';
import { digestOf, MEASURED_BY } from '@/core/ledger';
import type { Take } from '@/core/take';
import { limitsOf } from '@/core/verdict';
import { filed } from './filing';
import { takeWrites } from './ledgerStore';
import { MapStorage } from './storage.testing';

const TAKES_A_DAY = 6;
const AT_ONCE = 200;

/** For the bench: everything that a log of so many takes has in its store, filled with these in turn, each of another day. */
export async function logOf(count: number, takes: readonly Take[]): Promise<Map<string, string>> {
  const storage = new MapStorage();
  const digests = takes.map((take) => digestOf(take, limitsOf('steady'), 'english'));
  const newest = Date.now() - DAY_MS;
  for (let from = 0; from < count; from += AT_ONCE) {
    const batch = Array.from({ length: Math.min(AT_ONCE, count - from) }, (_, k) => {
      const i = from + k;
      const createdAt = new Date(newest - (i / TAKES_A_DAY) * DAY_MS).toISOString();
      return { id: `${Date.parse(createdAt).toString(36)}-${i}`, createdAt, of: i % takes.length };
    });
    for (const { id, createdAt, of } of batch)
      await storage.setMany(takeWrites({ ...takes[of]!, id, createdAt }));
    const add = batch.map(({ id, createdAt, of }) => {
      const { entry, cells } = digests[of]!;
      return { entry: { ...entry, id, createdAt }, cells };
    });
    await storage.setMany(await filed(storage, { add, filedBy: MEASURED_BY }));
  }
  storage.map.set('tidied', String(Date.now()));
  return storage.map;
}
