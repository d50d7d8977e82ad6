import * as z from 'zod';
import { TAKE_VERSION } from '@/core/take';
import { readSingle, type Single } from './single';
import type { Storage, Writes } from './storage';

/** By which version of all records reading was tried: a newer one tries again. */
export const READ_BY = TAKE_VERSION;

const rowSchema = z.object({ key: z.string(), problem: z.string(), triedBy: z.number().int() });
/** A record that could not be read. It lies where it lay, untouched. */
export type UnreadRecord = z.infer<typeof rowSchema>;

const unreadSchema = z.object({ version: z.literal(1), records: z.array(rowSchema) });
export const UNREAD: Single<z.infer<typeof unreadSchema>> = {
  key: 'unread',
  kind: { name: 'unread', version: 1, schema: unreadSchema, migrations: {} },
  empty: { version: 1, records: [] },
};

export const readUnread = async (storage: Storage): Promise<UnreadRecord[]> =>
  (await readSingle(storage, UNREAD)).records;

/** @param problems by key; null: it was read after all. */
export function unreadWrites(
  before: readonly UnreadRecord[],
  problems: Readonly<Record<string, string | null>>,
): Writes {
  const others = before.filter(({ key }) => !(key in problems));
  const found = Object.entries(problems).flatMap(([key, problem]) =>
    problem === null ? [] : [{ key, problem, triedBy: READ_BY }],
  );
  return { [UNREAD.key]: JSON.stringify({ version: 1, records: [...others, ...found] }) };
}
