import { useEffect } from 'react';
import useSWR from 'swr';
import { DAY_MS } from '@/core/base';
import { monthOf, type Entry, type PackedCells, type Played } from '@/core/ledger';
import type { Take } from '@/core/take';
import { fetchDemoSound } from './demo';
import type { Binned } from './desk';
import type { Kept, StorageUse } from './ledgerStore';
import { changed, data, home, LOCAL, lookingAt, readAheadOf, useStored, type Stored } from './opened';
import { readUnread, type UnreadRecord } from './unread';

/** Lists of rows that are remembered: the same rows are the same objects. */
const sameRows = <T>(known: readonly T[] | undefined, read: readonly T[] | undefined): boolean =>
  known === read ||
  (known !== undefined && known.length === read?.length && known.every((row, i) => row === read[i]));

interface Rows {
  readonly entries: Entry[];
  readonly total: number;
}

const storedEntries = (enough: number): Stored<Rows> => ({
  key: data('log', 'entries', enough),
  read: async () => (await home()).store.readEntries(enough),
  isSame: (known, read) => known?.total === read?.total && sameRows(known?.entries, read?.entries),
});

/** Rows of the log, newest first; whole months of them, until there are enough. */
export const useEntries = (enough: number) => useStored(storedEntries(enough), true);

/** What is known of an instrument, by the take that told it. */
export const useCells = (instrumentId: string) =>
  useStored<Record<string, PackedCells>>({
    key: data('log', 'cells', instrumentId),
    read: async () => (await home()).store.readCells(instrumentId),
  });

/** What counts on a map: in half a year a take has nearly lost its weight, and many years are long to read. */
const HALF_A_YEAR_MS = 183 * DAY_MS;
const halfAYearAgo = () => monthOf(new Date(Date.now() - HALF_A_YEAR_MS).toISOString());

const storedPlayed = (instrumentId: string, whole: boolean): Stored<readonly Played[]> => ({
  key: data('log', 'played', instrumentId, String(whole)),
  read: async () =>
    (await home()).store.readPlayed(instrumentId, whole ? undefined : halfAYearAgo(), new Date()),
  isSame: Object.is,
});

/**
 * What was played on an instrument, oldest first: rows with what each told of notes and slurs.
 * @param whole all that there is, and not the last half year.
 */
export const usePlayed = (instrumentId: string, whole: boolean) =>
  useStored(storedPlayed(instrumentId, whole), true);

const storedInstruments: Stored<{ instrumentId: string; takes: number }[]> = {
  key: data('log', 'instruments'),
  read: async () => (await home()).store.instrumentsPlayed(),
};

/** Instruments that there are takes of, with how many, the most played first. */
export const useInstrumentsPlayed = () => useStored(storedInstruments);

/** The newest take of an instrument that is like this; null: none is. */
export async function findEntry(
  instrumentId: string,
  isWanted: (entry: Entry) => boolean,
): Promise<Entry | null> {
  return (await home()).store.findEntry(instrumentId, isWanted);
}

/** A take, wherever it stands; null: there is none of this id, or it cannot be read and is listed as such. */
export async function loadTake(id: string): Promise<Take | null> {
  const { store, rest } = await home();
  let take = await store.readTake(id);
  if (!take) {
    await rest();
    take = await store.readTake(id);
  }
  if (!take) await changed('unread');
  return take;
}

export function useTake(id: string | null) {
  useEffect(() => {
    if (id !== null) lookingAt(data('take', id));
  }, [id]);
  return useSWR<Take | null, Error>(id === null ? null : data('take', id), () => loadTake(id!), LOCAL);
}

const storedUse: Stored<StorageUse> = {
  key: data('log', 'use'),
  read: async () => (await home()).store.use(),
};
export const useStorageUse = () => useStored(storedUse);

const storedBin: Stored<Binned[]> = { key: data('bin'), read: async () => (await home()).store.readBin() };

/** Takes in the bin, newest first. */
export const useBin = () => useStored(storedBin);

export async function emptyBin(): Promise<void> {
  await (await home()).store.emptyBin();
  await changed('bin');
}

const storedUnread: Stored<UnreadRecord[]> = {
  key: data('unread'),
  read: async () => readUnread((await home()).storage),
};

/** Records that could not be read. They lie where they lay. */
export const useUnread = () => useStored(storedUnread);

const storedDraft: Stored<Take | null> = {
  key: data('draft'),
  read: async () => {
    const { store, tab } = await home();
    return store.readDraft(tab);
  },
};
export const useDraft = () => useStored(storedDraft);

/** Rows that the log shows at first. */
export const FIRST_ROWS = 60;

/** Reads what the main pages show before they are gone to, so that they open at once after years of takes too. */
export async function readLedgerAhead(instrumentId: string): Promise<readonly Played[]> {
  const played = await readAheadOf(storedPlayed(instrumentId, false));
  for (const enough of [1, FIRST_ROWS]) await readAheadOf(storedEntries(enough));
  await Promise.all([
    readAheadOf(storedInstruments),
    readAheadOf(storedUse),
    readAheadOf(storedBin),
    readAheadOf(storedUnread),
    readAheadOf(storedDraft),
  ]);
  return played ?? [];
}

export async function saveDraft(take: Take, audio: Int16Array): Promise<void> {
  const { store, tab } = await home();
  await store.writeDraft(take, audio, tab);
  await changed('draft', 'bin');
}

export async function keepDraft(id: string, remark: string): Promise<Kept> {
  const kept = await (await home()).store.keepDraft(id, remark);
  // Asked when there is something to lose; a browser may say no, and then clears away when its disk is full.
  if (typeof navigator !== 'undefined' && 'storage' in navigator) void navigator.storage.persist?.();
  await changed('draft', 'log', 'take');
  return kept;
}

export async function discardDraft(id: string): Promise<void> {
  await (await home()).store.discardDraft(id, new Date());
  await changed('draft', 'bin');
}

export async function changeDraft(id: string, change: (draft: Take) => Take): Promise<void> {
  await (await home()).store.changeDraft(id, change);
  await changed('draft', 'take');
}

export async function changeRemark(id: string, remark: string): Promise<void> {
  await (await home()).store.changeRemark(id, remark);
  await changed('log', 'take');
}

export async function deleteTake(id: string): Promise<void> {
  await (await home()).store.deleteTake(id, new Date());
  await changed('log', 'bin');
}

/** @returns whether the take was still in the bin. */
export async function undeleteTake(id: string): Promise<boolean> {
  const was = await (await home()).store.undelete(id);
  await changed('log', 'bin', 'take');
  return was;
}

export async function loadAudio(id: string): Promise<Int16Array | null> {
  const { store, storage, whose } = await home();
  const kept = await store.readAudio(id);
  return kept ?? (whose === 'demo' ? fetchDemoSound(storage, id) : null);
}
