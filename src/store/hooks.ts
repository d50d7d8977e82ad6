import useSWR, { mutate } from 'swr';
import type { Score } from '@/core/music';
import type { Take } from '@/core/take';
import { chooseHome, openHome, type Home, type Whose } from './home';
import type { Log, StorageUse } from './ledgerStore';
import type { Block, Running, RunningStretch } from './runningStore';
import { addPiece, readMusic, removePiece, restorePiece, type Piece } from './musicStore';
import { defaultSettings, type Settings } from './settings';

const HOME = 'home';
const data = (name: string) => ['data', name] as const;
const LOCAL = { revalidateOnFocus: false, revalidateOnReconnect: false } as const;

/** The open log; everything else is read through it. */
let opening: ReturnType<typeof openHome> | null = null;
const home = () => (opening ??= openHome());

/** Reads again everything that was read from the store. */
async function refresh(): Promise<void> {
  await mutate((key) => Array.isArray(key) && key[0] === 'data');
}

export function useHome() {
  return useSWR<Home, Error>(HOME, home, LOCAL);
}

export function useLog() {
  return useSWR<Log>(data('log'), async () => (await home()).store.readLog(), LOCAL);
}

export function useTake(id: string) {
  return useSWR<Take | null>(data(`take/${id}`), async () => (await home()).store.readTake(id), LOCAL);
}

export function useDraft() {
  return useSWR<Take | null>(data('draft'), async () => (await home()).store.readDraft(), LOCAL);
}

export function useStorageUse() {
  return useSWR<StorageUse>(data('use'), async () => (await home()).store.use(), LOCAL);
}

/** The player's own music, newest first. */
export function useMusic() {
  return useSWR<Piece[], Error>(data('music'), async () => readMusic((await home()).storage), LOCAL);
}

export async function addMusic(fileName: string, score: Score): Promise<Piece> {
  const piece = await addPiece((await home()).storage, fileName, score, new Date());
  await refresh();
  return piece;
}

/** @returns the piece, for putting it back. */
export async function removeMusic(id: string): Promise<Piece | null> {
  const piece = await removePiece((await home()).storage, id);
  await refresh();
  return piece;
}

export async function restoreMusic(piece: Piece): Promise<void> {
  await restorePiece((await home()).storage, piece);
  await refresh();
}

let changing: Promise<void> = Promise.resolve();

/** Each change is stored on what the one before it left: two quick taps must not lose the first. */
function inTurn(change: () => Promise<void>): Promise<void> {
  const done = changing.then(change);
  changing = done.catch(() => undefined);
  return done;
}

/** Settings, and a way to change some of them at once. `ready` is false until they have been read. */
export function useSettings(): {
  settings: Settings;
  ready: boolean;
  change: (part: Partial<Settings>) => Promise<void>;
} {
  const { data: stored, mutate: update } = useSWR<Settings>(
    data('settings'),
    async () => (await home()).store.readSettings(),
    LOCAL,
  );
  const change = (part: Partial<Settings>) => {
    // Seen at once: the next tap has to begin from this one, even before it is stored.
    if (stored) void update((now) => ({ ...(now ?? stored), ...part }), { revalidate: false });
    return inTurn(async () => {
      const { store } = await home();
      const next = { ...(await store.readSettings()), ...part };
      if (!stored) await update(next, { revalidate: false });
      await store.writeSettings(next);
    });
  };
  return { settings: stored ?? defaultSettings, ready: stored !== undefined, change };
}

export async function saveDraft(take: Take, audio: Int16Array): Promise<void> {
  await (await home()).store.writeDraft(take, audio);
  await refresh();
}

export async function keepDraft(remark: string): Promise<{ take: Take; soundKept: boolean }> {
  const { store } = await home();
  const kept = await store.keepDraft(remark, await store.readSettings());
  await refresh();
  return kept;
}

/** @returns the id by which `undeleteTake` brings it back, into the log. */
export async function discardDraft(): Promise<string | null> {
  const id = await (await home()).store.discardDraft(new Date());
  await refresh();
  return id;
}

export async function changeDraft(id: string, change: (draft: Take) => Take): Promise<void> {
  await (await home()).store.changeDraft(id, change);
  await refresh();
}

export async function changeRemark(id: string, remark: string): Promise<void> {
  await (await home()).store.changeRemark(id, remark);
  await refresh();
}

export async function deleteTake(id: string): Promise<void> {
  await (await home()).store.deleteTake(id, new Date());
  await refresh();
}

export async function undeleteTake(id: string): Promise<void> {
  await (await home()).store.undelete(id);
  await refresh();
}

export async function loadAudio(id: string): Promise<Int16Array | null> {
  return (await home()).store.readAudio(id);
}

export async function changeHome(whose: Whose): Promise<void> {
  await chooseHome(whose);
  opening = null;
  await mutate(() => true, undefined, { revalidate: true });
}

let placing: Promise<void> = Promise.resolve();

/** What is on the stand now. */
export function useBlock() {
  return useSWR<Block | null>(
    data('block'),
    async () => {
      await placing;
      return (await home()).running.readBlock();
    },
    LOCAL,
  );
}

/** Puts music on the stand. @param from path of the page it was taken from. */
export async function putOnStand(score: Score, from: string): Promise<void> {
  const block: Block = { score, from };
  // The stand is gone to in the same moment, and must find this block and not the one before, however slow the store.
  void mutate(data('block'), block, { revalidate: false });
  const written = home().then(({ running }) => running.writeBlock(block));
  placing = written.catch(() => undefined);
  await written;
}

/** A block that was begun and not finished. */
export function useRunning() {
  return useSWR<Running | null>(data('running'), async () => (await home()).running.readRunning(), LOCAL);
}

export async function beginRunning(score: Score): Promise<void> {
  await (await home()).running.begin(score, new Date().toISOString());
}

export async function keepSound(
  index: number,
  piece: number,
  audio: Int16Array,
  stretch: RunningStretch,
): Promise<void> {
  await (await home()).running.addSound(index, piece, audio, stretch);
}

export async function clearRunning(): Promise<void> {
  await (await home()).running.clear();
  await mutate(data('running'), null, { revalidate: false });
}

/** Reads again what was begun and not finished: the stand has been left in the middle. */
export async function refreshRunning(): Promise<void> {
  await mutate(data('running'));
}
