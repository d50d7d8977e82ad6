import * as z from 'zod';
import { failure, success, type Outcome } from '@/core/base';
import { decodeWavBlocks, readWavLayout } from '@/core/formats';
import {
  MUSIC,
  PLANS,
  SETTINGS,
  soundPath,
  takeIdsIn,
  takePath,
  tracePath,
  type Archive,
} from '@/core/formats/archive';
import { toInt16, readRecord, takenBack } from '@/core/base';
import type { Entry } from '@/core/ledger';
import { hasAudio, readAudio, removeAudio, writeAudio } from './audioChunks';
import { binnedRow, deskWrites, readDesk, type Desk } from './desk';
import { exclusively } from './exclusively';
import { filed, filedIds, readEntries, readEntry } from './filing';
import { storedWrites, TAKE, TRACE } from './ledgerStore';
import { addMissingPieces, musicIn, removePieces } from './musicStore';
import { changePlans, plansKind, withPlansOf, type Plans } from './planStore';
import { changeSettings, ownInstruments, settingsKind, type Settings } from './settings';
import type { Storage, Writes } from './storage';
import type { Digested, Lying } from './upkeep';

/** What an archive would bring, before it is brought in. */
export interface Preview {
  readonly createdAt: string;
  readonly takes: number;
  /** Of them, not here yet. */
  readonly fresh: number;
  readonly withSound: number;
  readonly pieces: number;
  /** Pieces of music that cannot be read. */
  readonly unreadPieces: number;
  readonly hasSettings: boolean;
}

export interface ImportOptions {
  readonly storage: Storage;
  readonly name: string;
  readonly archive: Archive;
  /** `merge` adds what is not here; `replace` puts what is here into the bin first, and takes the archive's settings. */
  readonly mode: 'merge' | 'replace';
  readonly digest: (takes: readonly Lying[]) => Promise<readonly Outcome<Digested>[]>;
  readonly onProgress: (done: number, of: number) => void;
  readonly signal: AbortSignal;
  readonly now: Date;
}

/** What something was before and after an import. */
interface Change<T> {
  readonly before: T;
  readonly after: T;
}

/** What has been done, for undoing it. */
export interface Imported {
  /** Takes that were not in the log. */
  readonly added: readonly string[];
  /** Takes of the log that went into the bin, or that the archive's own took the place of. */
  readonly replaced: readonly string[];
  /** Takes of before that the archive's own took the place of, as they lay. */
  readonly overwritten: Writes;
  /** Pieces of music that were added. */
  readonly pieces: readonly string[];
  readonly settings: Change<Settings> | null;
  readonly plans: Change<Plans> | null;
  readonly unread: number;
  readonly unreadPieces: number;
}

const AT_ONCE = 12;
const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
const heldSchema = z.object({ id: z.string(), audio: z.object({ bytes: z.number() }).nullable() });

/** What is in an archive, against what is here. */
export async function previewOf(storage: Storage, archive: Archive): Promise<Preview> {
  const ids = takeIdsIn(archive.manifest);
  const here = await filedIds(storage);
  const paths = new Set(archive.manifest.files.map(({ path }) => path));
  const music = paths.has(MUSIC) ? await archive.read(MUSIC) : null;
  const found = music?.ok ? musicIn(text(music.value), await ownInstruments(storage)) : null;
  return {
    createdAt: archive.manifest.createdAt,
    takes: ids.length,
    fresh: ids.filter((id) => !here.has(id)).length,
    withSound: ids.filter((id) => paths.has(soundPath(id))).length,
    pieces: found?.pieces.length ?? 0,
    unreadPieces: found?.unread.length ?? (music === null ? 0 : 1),
    hasSettings: paths.has(SETTINGS),
  };
}

/** Reads the whole archive once and changes nothing: what is damaged is found before anything is written. */
async function verified({ archive, onProgress, signal }: ImportOptions): Promise<Outcome<null>> {
  const { files } = archive.manifest;
  for (const [i, { path }] of files.entries()) {
    if (signal.aborted) return failure('it was stopped; nothing was changed');
    onProgress(i, 2 * files.length);
    const read = await archive.read(path);
    if (!read.ok) return failure(`${read.problem}. Nothing was changed`);
  }
  return success(null);
}

/** What has been done so far. */
interface Progress {
  readonly added: string[];
  readonly replaced: string[];
  readonly overwritten: Writes;
  settings: Change<Settings> | null;
  plans: Change<Plans> | null;
  pieces: string[];
  unread: number;
  unreadPieces: number;
}

/**
 * Brings an archive in. Damage is found before anything is written; what was stopped half-way can be undone, or begun again; what
 * failed half-way is taken back. What it replaces is moved last, when all of it is there.
 */
export async function importArchive(options: ImportOptions): Promise<Outcome<Imported>> {
  const whole = await verified(options);
  if (!whole.ok) return whole;
  const done: Progress = {
    added: [],
    replaced: [],
    overwritten: {},
    settings: null,
    plans: null,
    pieces: [],
    unread: 0,
    unreadPieces: 0,
  };
  try {
    await bringAll(options, done);
    return success(done);
  } catch (error) {
    const words = error instanceof Error ? error.message : String(error);
    return failure(
      (await unravelled(options, done))
        ? `${words} What had come in was taken out again: your log is as it was.`
        : `${words} Part of it had come in, and could not be taken out again: what was there before is still there.`,
    );
  }
}

/** Takes back what an import did before it failed: on a full disk what takes the room goes first. */
async function unravelled({ storage, name, digest, now }: ImportOptions, done: Imported): Promise<boolean> {
  const fresh = done.added.filter((id) => !(TAKE + id in done.overwritten));
  try {
    await exclusively(name, () => removeAudio(storage, ...fresh));
    await undoImport(storage, name, done, digest, now);
    await exclusively(name, async () => {
      const desk = await readDesk(storage);
      await storage.setMany(deskWrites({ ...desk, bin: desk.bin.filter(({ id }) => !fresh.includes(id)) }));
      await storage.removeMany(fresh.flatMap((id) => [TAKE + id, TRACE + id]));
    });
    return true;
  } catch {
    return false;
  }
}

async function bringAll(options: ImportOptions, done: Progress): Promise<void> {
  const { storage, name, archive, mode, onProgress, signal, now } = options;
  const here = await filedIds(storage);
  const inArchive = takeIdsIn(archive.manifest);
  const ids = mode === 'replace' ? inArchive : inArchive.filter((id) => !here.has(id));
  for (let at = 0; at < ids.length && !signal.aborted; at += AT_ONCE) {
    onProgress(ids.length + at, 2 * ids.length);
    await bringIn(options, ids.slice(at, at + AT_ONCE), here, done);
  }
  await bringSettings(options, done);
  await bringMusic(options, done);
  await bringPlans(options, done);
  if (mode === 'replace' && !signal.aborted)
    done.replaced.push(...(await othersToBin(storage, name, new Set(inArchive), now)));
}

/** @param here in the log when it began: when everything is replaced, they are too. */
async function bringIn(
  { storage, name, archive, digest, mode }: ImportOptions,
  ids: readonly string[],
  here: ReadonlySet<string>,
  done: Progress,
): Promise<void> {
  const content = async (path: string) => {
    const found = await archive.read(path);
    return found.ok ? found.value : null;
  };
  const lying: Lying[] = [];
  for (const id of ids) {
    const [take, trace] = [await content(takePath(id)), await content(tracePath(id))];
    const sound =
      archive.manifest.files.some(({ path }) => path === soundPath(id)) || (await hasAudio(storage, id));
    lying.push({
      take: take ? withoutMissingSound(text(take), sound) : '',
      trace: trace && text(trace),
    });
  }
  const outcomes = await digest(lying);
  await exclusively(name, async () => {
    const read = ids.flatMap((id, i) => {
      const outcome = outcomes[i]!;
      return outcome.ok && outcome.value.entry.id === id ? [{ id, ...outcome.value }] : [];
    });
    // What has come into the log meanwhile stays as it is.
    const good: typeof read = [];
    for (const each of read) {
      const isHere = (await readEntry(storage, each.entry)) !== null;
      if (!isHere || (mode === 'replace' && here.has(each.id))) good.push(each);
    }
    // Noted before it is written: what fails on the way is taken back whole.
    const added = good.map(({ id }) => id).filter((id) => !here.has(id));
    const ours = new Set(good.map(({ id }) => id));
    const before = await storage.getMany([...ours].flatMap((id) => [TAKE + id, TRACE + id]));
    for (const [key, value] of Object.entries(before)) if (value !== null) done.overwritten[key] = value;
    done.added.push(...added);
    done.replaced.push(...good.map(({ id }) => id).filter((id) => here.has(id)));
    for (const { id, entry } of good) {
      // What is here whole is the same sound: a recording never changes.
      if ((await readAudio(storage, id))?.byteLength === entry.audioBytes) continue;
      const wav = await content(soundPath(id));
      const samples = wav && samplesOf(wav);
      if (samples) await writeAudio(storage, id, samples);
    }
    const desk = await readDesk(storage);
    await storage.setMany({
      ...storedWrites(good),
      ...(await filed(storage, { add: good })),
      // What lay in the bin, and is brought in, is in the log again.
      ...deskWrites({ ...desk, bin: desk.bin.filter(({ id }) => !ours.has(id)) }),
    });
    done.unread += ids.length - read.length;
  });
}

/** An archive may have been written without sound: the take then says that it has none. */
function withoutMissingSound(stored: string, sound: boolean): string {
  if (sound) return stored;
  try {
    const take: unknown = JSON.parse(stored);
    return heldSchema.safeParse(take).success ? JSON.stringify({ ...(take as object), audio: null }) : stored;
  } catch {
    return stored;
  }
}

function samplesOf(wav: Uint8Array): Int16Array | null {
  const layout = readWavLayout(wav, wav.length);
  if (!layout.ok) return null;
  const { dataOffset, dataBytes } = layout.value;
  return toInt16(decodeWavBlocks(wav.subarray(dataOffset, dataOffset + dataBytes), layout.value));
}

/** Own instruments are added by id; everything is in place of what was here only when all is replaced. */
async function bringSettings({ storage, name, archive, mode }: ImportOptions, done: Progress): Promise<void> {
  const file = await archive.read(SETTINGS);
  const read = file.ok ? readRecord(settingsKind, text(file.value)) : file;
  if (!read.ok) return;
  await changeSettings(storage, name, (before) => {
    const { ownInstruments: own } = before;
    const known = new Set([...own, ...before.removedInstruments].map(({ id }) => id));
    const missing = read.value.ownInstruments.filter(({ id }) => !known.has(id));
    const part = mode === 'replace' ? read.value : { ownInstruments: [...own, ...missing] };
    done.settings = { before, after: { ...before, ...part } };
    return part;
  });
}

/** Plans of instruments that have none here, and routines that are not here; all of them in place of these when everything is replaced. */
async function bringPlans({ storage, name, archive, mode }: ImportOptions, done: Progress): Promise<void> {
  const file = await archive.read(PLANS);
  const read = file.ok ? readRecord(plansKind, text(file.value)) : file;
  if (!read.ok) return;
  await changePlans(storage, name, (before) => {
    const after = mode === 'replace' ? read.value : withPlansOf(before, read.value);
    done.plans = { before, after };
    return after;
  });
}

async function bringMusic({ storage, name, archive }: ImportOptions, done: Progress): Promise<void> {
  const file = await archive.read(MUSIC);
  if (!file.ok) return;
  const music = musicIn(text(file.value), await ownInstruments(storage));
  done.unreadPieces = music?.unread.length ?? 1;
  done.pieces = await exclusively(name, () => addMissingPieces(storage, music?.pieces ?? []));
}

/** Moves what is in the log and not in the archive into the bin. @returns the ids of it. */
function othersToBin(
  storage: Storage,
  name: string,
  inArchive: ReadonlySet<string>,
  now: Date,
): Promise<string[]> {
  return exclusively(name, async () => {
    const { entries } = await readEntries(storage, Infinity);
    const others = entries.filter(({ id }) => !inArchive.has(id));
    await storage.setMany({
      ...(await filed(storage, { remove: others })),
      ...deskWrites(await binnedWith(storage, others, now)),
    });
    return others.map(({ id }) => id);
  });
}

async function binnedWith(storage: Storage, entries: readonly Entry[], now: Date): Promise<Desk> {
  const desk = await readDesk(storage);
  const rows = entries.map((entry) => binnedRow(entry, 'import', now));
  const ids = new Set(rows.map(({ id }) => id));
  return { ...desk, bin: [...desk.bin.filter(({ id }) => !ids.has(id)), ...rows] };
}

/**
 * Takes back what an import did, and nothing that came after it: what came with it goes into the bin, what it replaced comes out
 * again, what is set or planned otherwise since stays so.
 */
export async function undoImport(
  storage: Storage,
  name: string,
  { added, replaced, overwritten, pieces, settings, plans }: Imported,
  digest: ImportOptions['digest'],
  now: Date,
): Promise<void> {
  await exclusively(name, async () => {
    const ours = new Set(added);
    const { entries } = await readEntries(storage, Infinity);
    const gone = entries.filter(({ id }) => ours.has(id));
    const rows = await filed(storage, { remove: gone });
    await storage.setMany({
      ...rows,
      ...overwritten,
      ...deskWrites(await binnedWith(storage, gone, now)),
    });
  });
  for (let at = 0; at < replaced.length; at += AT_ONCE) {
    const { bin } = await readDesk(storage);
    // What the player has thrown away since stays thrown away.
    const thrown = new Set(bin.filter(({ why }) => why !== 'import').map(({ id }) => id));
    const ids = replaced.slice(at, at + AT_ONCE).filter((id) => !thrown.has(id));
    const stored = await storage.getMany(ids.flatMap((id) => [TAKE + id, TRACE + id]));
    const outcomes = await digest(
      ids.map((id) => ({ take: stored[TAKE + id] ?? '', trace: stored[TRACE + id] ?? null })),
    );
    await exclusively(name, async () => {
      const back = outcomes.flatMap((outcome) => (outcome.ok ? [outcome.value] : []));
      const ids = new Set(back.map(({ entry }) => entry.id));
      const desk = await readDesk(storage);
      await storage.setMany({
        ...(await filed(storage, { add: back })),
        ...deskWrites({ ...desk, bin: desk.bin.filter(({ id }) => !ids.has(id)) }),
      });
    });
  }
  if (pieces.length > 0) await exclusively(name, () => removePieces(storage, pieces));
  if (settings) await changeSettings(storage, name, (now) => takenBack(settings.before, settings.after, now));
  if (plans) await changePlans(storage, name, (now) => takenBack(plans.before, plans.after, now));
}
