import type * as z from 'zod';
import { checked } from './checked';
import { failure, type Outcome } from './outcome';

/** Steps that bring an older record up to date: `migrations[n]` turns version n into version n + 1. */
export type Migrations = Readonly<
  Record<number, (record: Record<string, unknown>) => Record<string, unknown>>
>;

/** How one kind of record is written and read. */
export interface RecordKind<T> {
  readonly name: string;
  readonly version: number;
  readonly schema: z.ZodType<T>;
  readonly migrations: Migrations;
}

/** Reads a stored text, or what has been parsed of one: migrations, then the schema. Never throws. */
export function readRecord<T>(kind: RecordKind<T>, stored: string | Record<string, unknown>): Outcome<T> {
  let raw: unknown = stored;
  try {
    if (typeof stored === 'string') raw = JSON.parse(stored);
  } catch {
    return failure(`${kind.name}: the stored text is damaged`);
  }
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw))
    return failure(`${kind.name}: not a record`);
  let record = raw as Record<string, unknown>;
  let version = typeof record['version'] === 'number' ? record['version'] : NaN;
  if (version > kind.version) {
    return failure(
      `${kind.name}: written by a newer Gold Reed (version ${version}); reload the page to update`,
    );
  }
  for (; version < kind.version; version++) {
    const step = kind.migrations[version];
    if (!step) return failure(`${kind.name}: version ${version} is too old to be read`);
    try {
      record = { ...step(record), version: version + 1 };
    } catch {
      return failure(`${kind.name}: what is stored as version ${version} is not of that version`);
    }
  }
  const read = checked(kind.schema, record, 'the record');
  return read.ok ? read : failure(`${kind.name}: ${read.problem}`);
}
