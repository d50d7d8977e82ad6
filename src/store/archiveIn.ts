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
import { toInt16, readRecord } from '@/core/base';
import { writeAudio } from './audioChunks';
import { deskWrites, readDesk, type Binned } from './desk';
import { exclusively } from './exclusively';
import { filed, filedIds, readEntries, readEntry } from './filing';
import { storedWrites, TAKE, TRACE } from './ledgerStore';
import { addMissingPieces, musicIn, removePieces } from './musicStore';
import { changePlans, NO_PLANS, plansKind, withPlansOf, type Plans } from './planStore';
import { changeSettings, settingsKind, type Settings } from './settings';
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

/** What has been done, for undoing it. */
export interface Imported {
  readonly added: readonly string[];
  readonly replaced: readonly string[];
  /** Takes of before that the archive's own took the place of, as they lay. */
  readonly overwritten: Writes;
  /** Pieces of music that were added. */
  readonly pieces: readonly string[];
  readonly settings: Partial<Settings> | null;
  /** Plans and routines as they were; null: they are as they were. */
  readonly plans: Plans | null;
  readonly unread: number;
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
  const pieces = music?.ok ? musicIn(text(music.value)) : [];
  return {
    createdAt: archive.manifest.createdAt,
    takes: ids.length,
    fresh: ids.filter((id) => !here.has(id)).length,
    withSound: ids.filter((id) => paths.has(soundPath(id))).length,
    pieces: pieces.length,
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

/** Brings an archive in. Damage is found before anything is written; what was stopped half-way can be undone, or begun again. */
export async function importArchive(options: ImportOptions): Promise<Outcome<Imported>> {
  const { storage, name, archive, mode, onProgress, signal, now } = options;
  const whole = await verified(options);
  if (!whole.ok) return whole;
  const replaced = mode === 'replace' ? await allToBin(storage, name, now) : [];
  const here = await filedIds(storage);
  const ids = takeIdsIn(archive.manifest).filter((id) => !here.has(id));
  const added: string[] = [];
  const overwritten: Writes = {};
  let unread = 0;
  for (let at = 0; at < ids.length && !signal.aborted; at += AT_ONCE) {
    onProgress(ids.length + at, 2 * ids.length);
    const batch = await bringIn(options, ids.slice(at, at + AT_ONCE));
    added.push(...batch.added);
    Object.assign(overwritten, batch.overwritten);
    unread += batch.unread;
  }
  const settings = await bringSettings(options);
  const pieces = await bringMusic(options);
  const plans = await bringPlans(options);
  return success({ added, replaced, overwritten, pieces, settings, plans, unread });
}

async function bringIn(
  { storage, name, archive, digest }: ImportOptions,
  ids: readonly string[],
): Promise<{ added: string[]; overwritten: Writes; unread: number }> {
  const content = async (path: string) => {
    const found = await archive.read(path);
    return found.ok ? found.value : null;
  };
  const lying: Lying[] = [];
  for (const id of ids) {
    const [take, trace] = [await content(takePath(id)), await content(tracePath(id))];
    const sound = archive.manifest.files.some(({ path }) => path === soundPath(id));
    lying.push({
      take: take ? withoutMissingSound(text(take), sound) : '',
      trace: trace && text(trace),
    });
  }
  const outcomes = await digest(lying);
  return exclusively(name, async () => {
    const read = ids.flatMap((id, i) => {
      const outcome = outcomes[i]!;
      return outcome.ok && outcome.value.entry.id === id ? [{ id, ...outcome.value }] : [];
    });
    // What has come into the log meanwhile stays as it is.
    const good: typeof read = [];
    for (const each of read) if (!(await readEntry(storage, each.entry))) good.push(each);
    for (const { id } of good) {
      const wav = await content(soundPath(id));
      const samples = wav && samplesOf(wav);
      if (samples) await writeAudio(storage, id, samples);
    }
    const desk = await readDesk(storage);
    const ours = new Set(good.map(({ id }) => id));
    const before = await storage.getMany([...ours].flatMap((id) => [TAKE + id, TRACE + id]));
    const overwritten: Writes = {};
    for (const [key, value] of Object.entries(before)) if (value !== null) overwritten[key] = value;
    await storage.setMany({
      ...storedWrites(good),
      ...(await filed(storage, { add: good })),
      // What lay in the bin, and is brought in, is in the log again.
      ...deskWrites({ ...desk, bin: desk.bin.filter(({ id }) => !ours.has(id)) }),
    });
    return { added: [...ours], overwritten, unread: ids.length - good.length };
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

/**
 * Own instruments are added by id; everything is in place of what was here only when all is replaced.
 * @returns what was so before, of what was changed.
 */
async function bringSettings({
  storage,
  name,
  archive,
  mode,
}: ImportOptions): Promise<Partial<Settings> | null> {
  const file = await archive.read(SETTINGS);
  const read = file.ok ? readRecord(settingsKind, text(file.value)) : file;
  if (!read.ok) return null;
  let replaced: Partial<Settings> = {};
  await changeSettings(storage, name, (before) => {
    const { ownInstruments } = before;
    replaced = mode === 'replace' ? before : { ownInstruments };
    const known = new Set([...ownInstruments, ...before.removedInstruments].map(({ id }) => id));
    const missing = read.value.ownInstruments.filter(({ id }) => !known.has(id));
    return mode === 'replace' ? read.value : { ownInstruments: [...ownInstruments, ...missing] };
  });
  return replaced;
}

/** Plans of instruments that have none here, and routines that are not here; all of them in place of these when everything is replaced. */
async function bringPlans({ storage, name, archive, mode }: ImportOptions): Promise<Plans | null> {
  const file = await archive.read(PLANS);
  const read = file.ok ? readRecord(plansKind, text(file.value)) : file;
  if (!read.ok) return null;
  let before: Plans = NO_PLANS;
  await changePlans(storage, name, (plans) => {
    before = plans;
    return mode === 'replace' ? read.value : withPlansOf(plans, read.value);
  });
  return before;
}

async function bringMusic({ storage, name, archive }: ImportOptions): Promise<string[]> {
  const file = await archive.read(MUSIC);
  return file.ok ? exclusively(name, () => addMissingPieces(storage, musicIn(text(file.value)))) : [];
}

function allToBin(storage: Storage, name: string, now: Date): Promise<string[]> {
  return exclusively(name, async () => {
    const { entries } = await readEntries(storage, Infinity);
    await storage.setMany({
      ...(await filed(storage, { remove: entries })),
      ...deskWrites(await binnedWith(storage, entries, now)),
    });
    return entries.map(({ id }) => id);
  });
}

async function binnedWith(
  storage: Storage,
  entries: Awaited<ReturnType<typeof readEntries>>['entries'],
  now: Date,
) {
  const desk = await readDesk(storage);
  const rows = entries.map((entry): Binned => ({
    id: entry.id,
    deletedAt: now.toISOString(),
    why: 'import',
    title: entry.title,
    instrumentName: entry.instrumentName,
    playedAt: entry.createdAt,
    gone: false,
  }));
  const ids = new Set(rows.map(({ id }) => id));
  return { ...desk, bin: [...desk.bin.filter(({ id }) => !ids.has(id)), ...rows] };
}

/** Puts back what was so before an import: what came with it goes into the bin, what it replaced comes out again. */
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
    const ids = replaced.slice(at, at + AT_ONCE);
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
  if (settings) await changeSettings(storage, name, settings);
  if (plans) await changePlans(storage, name, () => plans);
}
