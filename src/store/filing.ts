import { ascending, descending, groups } from 'd3-array';
import * as z from 'zod';
import { readRecord, type RecordKind } from '@/core/base';
import {
  entrySchema,
  monthOf,
  packedCellsSchema,
  playedOf,
  withoutCracks,
  type Digest,
  type Entry,
  type PackedCells,
  type Played,
} from '@/core/ledger';
import { remembered } from './remembered';
import { readSingle, type Single } from './single';
import type { Storage, Writes } from './storage';

const entriesSchema = z.object({ version: z.literal(2), entries: z.array(entrySchema) });
export const entriesKind: RecordKind<z.infer<typeof entriesSchema>> = {
  name: 'entries',
  version: 2,
  schema: entriesSchema,
  migrations: {
    // What is not known of them is found when they are made again, by the version that they were measured by.
    1: ({ entries }) => ({
      entries: (entries as object[]).map((each) => ({ ...each, parameters: {}, tempo: null, a4: null })),
    }),
  },
};

const cellsSchema = z.object({ version: z.literal(2), takes: z.record(z.string(), packedCellsSchema) });
export const cellsKind: RecordKind<z.infer<typeof cellsSchema>> = {
  name: 'cells',
  version: 2,
  schema: cellsSchema,
  migrations: {
    1: ({ takes }) => ({
      takes: Object.fromEntries(
        Object.entries(takes as Record<string, Parameters<typeof withoutCracks>[0]>).map(([id, packed]) => [
          id,
          withoutCracks(packed),
        ]),
      ),
    }),
  },
};

const monthSchema = z.object({
  instrumentId: z.string(),
  month: z.string(),
  takes: z.number().int(),
  audioBytes: z.number(),
});
/** What is filed under one instrument and month. */
export type Month = z.infer<typeof monthSchema>;

const metaSchema = z.object({
  version: z.literal(1),
  months: z.array(monthSchema),
  /** By which version of measuring all rows are made; 0: takes of before there were rows may be missing in them. */
  filedBy: z.number().int(),
});
export type Meta = z.infer<typeof metaSchema>;
export const META: Single<Meta> = {
  key: 'meta',
  kind: { name: 'meta', version: 1, schema: metaSchema, migrations: {} },
  empty: { version: 1, months: [], filedBy: 0 },
};

const entriesKey = ({ instrumentId, month }: Pick<Month, 'instrumentId' | 'month'>) =>
  `entries/${instrumentId}/${month}`;
const cellsKey = ({ instrumentId, month }: Pick<Month, 'instrumentId' | 'month'>) =>
  `cells/${instrumentId}/${month}`;
const monthFor = ({ instrumentId, createdAt }: Pick<Entry, 'instrumentId' | 'createdAt'>) => ({
  instrumentId,
  month: monthOf(createdAt),
});

export const readMeta = (storage: Storage): Promise<Meta> => readSingle(storage, META);

/** Rows or cells of as many months of an instrument are kept at hand. */
const AT_HAND = 36;
// Damaged ones count as none: they are made again from the takes.
const entriesIn = remembered((text): readonly Entry[] => {
  const read = readRecord(entriesKind, text);
  return read.ok ? read.value.entries : [];
}, AT_HAND);
const cellsIn = remembered((text): Readonly<Record<string, PackedCells>> => {
  const read = readRecord(cellsKind, text);
  return read.ok ? read.value.takes : {};
}, AT_HAND);

const NO_ROWS: readonly Entry[] = [];
const NO_CELLS: Readonly<Record<string, PackedCells>> = {};

type MonthKey = Pick<Month, 'instrumentId' | 'month'>;

/** Rows of months, each oldest first; read in one go. */
async function readMonths(storage: Storage, months: readonly MonthKey[]): Promise<(readonly Entry[])[]> {
  const keys = months.map(entriesKey);
  const texts = await storage.getMany(keys);
  return keys.map((key) => (texts[key] == null ? NO_ROWS : entriesIn(key, texts[key])));
}

async function readMonth(storage: Storage, month: MonthKey): Promise<readonly Entry[]> {
  return (await readMonths(storage, [month]))[0]!;
}

async function readMonthsCells(
  storage: Storage,
  months: readonly MonthKey[],
): Promise<Readonly<Record<string, PackedCells>>[]> {
  const keys = months.map(cellsKey);
  const texts = await storage.getMany(keys);
  return keys.map((key) => (texts[key] == null ? NO_CELLS : cellsIn(key, texts[key])));
}

/** Rows, newest first: whole months, until there are enough. @param instrumentId of one instrument only. */
export async function readEntries(
  storage: Storage,
  enough: number,
  instrumentId?: string,
): Promise<{ entries: Entry[]; total: number }> {
  const { months } = await readMeta(storage);
  const wanted = months.filter((each) => instrumentId === undefined || each.instrumentId === instrumentId);
  const total = wanted.reduce((sum, { takes }) => sum + takes, 0);
  const entries: Entry[] = [];
  const byMonth = groups(wanted, ({ month }) => month).sort(([a], [b]) => descending(a, b));
  for (const [, same] of byMonth) {
    if (entries.length >= enough) break;
    const read = await readMonths(storage, same);
    entries.push(...read.flat().sort((a, b) => descending(a.createdAt, b.createdAt)));
  }
  return { entries, total };
}

/** The newest row of an instrument that is like this; null: none is. */
export async function findEntry(
  storage: Storage,
  instrumentId: string,
  isWanted: (entry: Entry) => boolean,
): Promise<Entry | null> {
  const { months } = await readMeta(storage);
  const own = months.filter((each) => each.instrumentId === instrumentId);
  for (const month of own.sort((a, b) => descending(a.month, b.month))) {
    const found = (await readMonth(storage, month)).findLast(isWanted);
    if (found) return found;
  }
  return null;
}

/** Cells of an instrument by the id of their take. @param since of months from this one on: `2026-05`; all of them without it. */
export async function readCells(
  storage: Storage,
  instrumentId: string,
  since = '',
): Promise<Record<string, PackedCells>> {
  const read = await readMonthsCells(storage, await monthsOf(storage, instrumentId, since));
  return Object.assign({}, ...read) as Record<string, PackedCells>;
}

/** What was made of which months, for as long as they are the same. */
const playedIn = new Map<string, { readonly of: readonly unknown[]; readonly value: readonly Played[] }>();

/**
 * All that was played on an instrument, oldest first: the same as before while nothing in it changed.
 * @param since as above. @param until today, in days since 1970; see `playedOf`.
 */
export async function readPlayed(
  storage: Storage,
  instrumentId: string,
  since = '',
  until = Infinity,
): Promise<readonly Played[]> {
  const months = await monthsOf(storage, instrumentId, since);
  const [entries, cells] = await Promise.all([readMonths(storage, months), readMonthsCells(storage, months)]);
  const of = [...entries, ...cells];
  const key = `${instrumentId} ${since}`;
  const known = playedIn.get(key);
  if (known?.of.length === of.length && of.every((each, i) => each === known.of[i])) return known.value;
  const value = playedOf(entries.flat(), Object.assign({}, ...cells) as Record<string, PackedCells>, until);
  playedIn.set(key, { of, value });
  return value;
}

async function monthsOf(storage: Storage, instrumentId: string, since: string): Promise<Month[]> {
  const { months } = await readMeta(storage);
  return months.filter((each) => each.instrumentId === instrumentId && each.month >= since);
}

/** Ids of all takes that are in the rows. */
export async function filedIds(storage: Storage): Promise<Set<string>> {
  const { entries } = await readEntries(storage, Infinity);
  return new Set(entries.map(({ id }) => id));
}

/** Ids of takes that have row and cells, measured by this way or a later one. */
export async function wholeIds(storage: Storage, measuredBy: number): Promise<Set<string>> {
  const { months } = await readMeta(storage);
  const [rows, cells] = await Promise.all([readMonths(storage, months), readMonthsCells(storage, months)]);
  return new Set(
    rows.flatMap((entries, i) =>
      entries.flatMap((entry) => (entry.measuredBy >= measuredBy && entry.id in cells[i]! ? [entry.id] : [])),
    ),
  );
}

const readableSchema = z.object({ version: z.number().max(cellsKind.version) });
const countedSchema = z.object({
  version: z.number().max(entriesKind.version),
  entries: z.array(z.unknown()),
});

/** How many rows there are in months that have as many as they should; null: one has not, or is damaged. */
export async function rowsCounted(storage: Storage): Promise<number | null> {
  const { months } = await readMeta(storage);
  const texts = await storage.getMany(months.flatMap((month) => [entriesKey(month), cellsKey(month)]));
  const parsed = (key: string): unknown => {
    try {
      return JSON.parse(texts[key] ?? '');
    } catch {
      return null;
    }
  };
  let rows = 0;
  for (const month of months) {
    const entries = countedSchema.safeParse(parsed(entriesKey(month))).data?.entries.length;
    if (entries !== month.takes || !readableSchema.safeParse(parsed(cellsKey(month))).success) return null;
    rows += entries;
  }
  return rows;
}

/** The row of a take, by what it is filed under. */
export async function readEntry(
  storage: Storage,
  take: Pick<Entry, 'id' | 'instrumentId' | 'createdAt'>,
): Promise<Entry | null> {
  const entries = await readMonth(storage, monthFor(take));
  return entries.find(({ id }) => id === take.id) ?? null;
}

interface Filed {
  readonly add?: readonly Digest[];
  readonly remove?: readonly Pick<Entry, 'id' | 'instrumentId' | 'createdAt'>[];
  readonly filedBy?: number;
}

/**
 * What is to be written so that rows and cells of takes are there, or are no longer; a row that is there already is replaced.
 * To be called and written without anyone else filing in between.
 */
export async function filed(storage: Storage, { add = [], remove = [], filedBy }: Filed): Promise<Writes> {
  const writes: Writes = {};
  const meta = await readMeta(storage);
  const months = new Map(meta.months.map((each) => [entriesKey(each), each]));
  const touched = groups([...add.map(({ entry }) => monthFor(entry)), ...remove.map(monthFor)], entriesKey);
  for (const [key, [month]] of touched) {
    const here = (each: Pick<Entry, 'instrumentId' | 'createdAt'>) => entriesKey(monthFor(each)) === key;
    const added = add.filter(({ entry }) => here(entry));
    const gone = new Set([...added.map(({ entry }) => entry.id), ...remove.filter(here).map(({ id }) => id)]);
    const before = await readMonth(storage, month!);
    const entries = [...before.filter(({ id }) => !gone.has(id)), ...added.map(({ entry }) => entry)];
    entries.sort((a, b) => ascending(a.createdAt, b.createdAt));
    const [cells = {}] = await readMonthsCells(storage, [month!]);
    const kept = Object.entries(cells).filter(([id]) => !gone.has(id));
    const takes = Object.fromEntries([
      ...kept,
      ...added.map(({ entry, cells }) => [entry.id, cells] as const),
    ]);
    writes[key] = JSON.stringify({ version: 2, entries });
    writes[cellsKey(month!)] = JSON.stringify({ version: 2, takes });
    const audioBytes = entries.reduce((sum, entry) => sum + entry.audioBytes, 0);
    months.set(key, { ...month!, takes: entries.length, audioBytes });
  }
  const next: Meta = {
    version: 1,
    months: [...months.values()].filter(({ takes }) => takes > 0),
    filedBy: filedBy ?? meta.filedBy,
  };
  return { ...writes, [META.key]: JSON.stringify(next) };
}
