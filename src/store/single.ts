import { readRecord, type RecordKind } from '@/core/base';
import type { Storage } from './storage';

/** A record that there is one of, under a key of its own. */
export interface Single<T> {
  readonly key: string;
  readonly kind: RecordKind<T>;
  /** What is so before anything was written. */
  readonly empty: T;
}

/**
 * What is stored of a record that can be made again or does without: what cannot be read counts as empty.
 * Not for what a player would miss.
 */
export async function readSingle<T>(storage: Storage, { key, kind, empty }: Single<T>): Promise<T> {
  const text = await storage.getItem(key);
  const read = text === null ? null : readRecord(kind, text);
  return read?.ok ? read.value : empty;
}
