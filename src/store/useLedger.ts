import useSWR from 'swr';
import { monthOf, type Entry, type PackedCells, type Played } from '@/core/ledger';
import type { Take } from '@/core/take';
import { fetchDemoSound } from './demo';
import type { Binned } from './desk';
import type { Kept, StorageUse } from './ledgerStore';
import { changed, data, home, LOCAL } from './opened';
import { readSettings } from './settings';
import { readUnread, type UnreadRecord } from './unread';

/** Rows of the log, newest first; whole months of them, until there are enough. */
export function useEntries(enough: number) {
  return useSWR<{ entries: Entry[]; total: number }, Error>(
    data('log', 'entries', enough),
    async () => (await home()).store.readEntries(enough),
    { ...LOCAL, keepPreviousData: true },
  );
}

/** What is known of an instrument, by the take that told it. */
export function useCells(instrumentId: string) {
  return useSWR<Record<string, PackedCells>, Error>(
    data('log', 'cells', instrumentId),
    async () => (await home()).store.readCells(instrumentId),
    LOCAL,
  );
}

/** What counts on a map: in half a year a take has nearly lost its weight, and many years are long to read. */
const HALF_A_YEAR_MS = 183 * 86_400_000;
const halfAYearAgo = () => monthOf(new Date(Date.now() - HALF_A_YEAR_MS).toISOString());

/**
 * What was played on an instrument, oldest first: rows with what each told of notes and slurs.
 * @param whole all that there is, and not the last half year.
 */
export function usePlayed(instrumentId: string, whole: boolean) {
  return useSWR<readonly Played[], Error>(
    data('log', 'played', instrumentId, String(whole)),
    async () => {
      return (await home()).store.readPlayed(instrumentId, whole ? undefined : halfAYearAgo());
    },
    { ...LOCAL, keepPreviousData: true },
  );
}

/** Reads what map, trends and plan are made of before they are asked for, so that they open at once after years of takes too. */
export async function readAhead(): Promise<void> {
  const { storage, store } = await home();
  const { instrumentId } = await readSettings(storage);
  await store.readPlayed(instrumentId, halfAYearAgo());
}

/** Instruments that there are takes of, with how many, the most played first. */
export function useInstrumentsPlayed() {
  return useSWR<{ instrumentId: string; takes: number }[], Error>(
    data('log', 'instruments'),
    async () => (await home()).store.instrumentsPlayed(),
    LOCAL,
  );
}

/** The newest take of an instrument that is like this; null: none is. */
export async function findEntry(
  instrumentId: string,
  isWanted: (entry: Entry) => boolean,
): Promise<Entry | null> {
  return (await home()).store.findEntry(instrumentId, isWanted);
}

/** A take, wherever it stands; null: there is none of this id, or it cannot be read and is listed as such. */
export async function loadTake(id: string): Promise<Take | null> {
  const take = await (await home()).store.readTake(id);
  if (!take) await changed('unread');
  return take;
}

export function useTake(id: string | null) {
  return useSWR<Take | null, Error>(id === null ? null : data('take', id), () => loadTake(id!), LOCAL);
}

export function useStorageUse() {
  return useSWR<StorageUse, Error>(data('log', 'use'), async () => (await home()).store.use(), LOCAL);
}

/** Takes in the bin, newest first. */
export function useBin() {
  return useSWR<Binned[], Error>(data('bin'), async () => (await home()).store.readBin(), LOCAL);
}

export async function emptyBin(): Promise<void> {
  await (await home()).store.emptyBin();
  await changed('bin');
}

/** Records that could not be read. They lie where they lay. */
export function useUnread() {
  return useSWR<UnreadRecord[], Error>(data('unread'), async () => readUnread((await home()).storage), LOCAL);
}

export function useDraft() {
  return useSWR<Take | null, Error>(
    data('draft'),
    async () => {
      const { store, tab } = await home();
      return store.readDraft(tab);
    },
    LOCAL,
  );
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
