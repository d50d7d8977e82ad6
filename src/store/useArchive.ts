import { success, type Outcome } from '@/core/base';
import { limitsOf } from '@/core/verdict';
import { AnalysisClient } from '@/worker';
import type { Imported, ImportOptions, Preview } from './archiveIn';
import { PARTS } from './changes';
import { growingFile, removeOldFiles } from './growingFile';
import { changed, home } from './opened';
import { changeSettings, ownInstruments, readSettings } from './settings';
import { loadAudio, loadTake } from './useLedger';

/** How far a long work has come, and a way to stop it. */
export interface Work {
  readonly onProgress: (done: number, of: number) => void;
  readonly signal: AbortSignal;
}

/** A take without its sound, with its curves, takes less than this in an archive. */
const TAKE_BYTES = 100_000;

/** Everything that is kept, as one file. */
export async function exportLog(withSound: boolean, { onProgress, signal }: Work): Promise<Blob> {
  const { storage, store, name, rest } = await home();
  await rest();
  const { archiveParts, VERSIONS, writeArchive } = await import('./archives');
  const now = new Date();
  const createdAt = now.toISOString();
  await removeOldFiles(now);
  const { takes, audioBytes } = await store.use();
  const { writable, done } = await growingFile((withSound ? audioBytes : 0) + takes * TAKE_BYTES, now);
  try {
    await writeArchive(
      archiveParts(storage, { withSound, onProgress }),
      { createdAt, versions: VERSIONS, takes },
      writable,
      signal,
    );
  } catch (error) {
    await writable.abort(error).catch(() => undefined);
    throw error;
  }
  await changeSettings(storage, name, { lastExportAt: createdAt });
  await changed('settings');
  return new Blob([await done()], { type: 'application/zip' });
}

/** Rows of all takes, or of all their notes, as a table. */
export async function exportTable(of: 'takes' | 'notes'): Promise<string> {
  const { store, rest } = await home();
  await rest();
  const { notesCsv, takesCsv } = await import('./archives');
  const { entries } = await store.readEntries(Infinity);
  if (of === 'takes') return takesCsv(entries);
  const tables: string[] = [];
  for (const { id } of entries) {
    const take = await store.readTake(id);
    if (take) tables.push(notesCsv(take, tables.length === 0));
  }
  return tables.join('');
}

/** A piece of a take's sound as a WAV file; null where take or sound is gone. */
export async function soundOf(
  id: string,
  fromSeconds: number,
  toSeconds: number,
): Promise<Uint8Array | null> {
  const [take, audio] = await Promise.all([loadTake(id), loadAudio(id)]);
  if (!take || !audio) return null;
  const { encodeWav } = await import('./archives');
  const { sampleRate } = take.conditions;
  return encodeWav(
    audio.slice(Math.floor(fromSeconds * sampleRate), Math.ceil(toSeconds * sampleRate)),
    sampleRate,
  );
}

/** An archive that has been looked into, and nothing more. */
export interface LookedInto {
  readonly preview: Preview;
  readonly bringIn: (mode: ImportOptions['mode'], work: Work) => Promise<Outcome<Imported>>;
  readonly close: () => Promise<void>;
}

/** Looks into a file that is to be brought in; nothing is changed by it. */
export async function lookInto(file: Blob): Promise<Outcome<LookedInto>> {
  const { storage, name, rest } = await home();
  await rest();
  const { importArchive, openArchive, previewOf } = await import('./archives');
  const archive = await openArchive(file);
  if (!archive.ok) return archive;
  return success({
    preview: await previewOf(storage, archive.value),
    bringIn: (mode, { onProgress, signal }) =>
      judging(async (digest) => {
        const now = new Date();
        const options = { storage, name, archive: archive.value, mode, digest, onProgress, signal, now };
        const done = await importArchive(options);
        await changed(...PARTS);
        return done;
      }),
    close: archive.value.close,
  });
}

/** Puts back what was so before an import. */
export async function takeBack(imported: Imported): Promise<void> {
  const { storage, name } = await home();
  const { undoImport } = await import('./archives');
  await judging((digest) => undoImport(storage, name, imported, digest, new Date()));
  await changed(...PARTS);
}

/** Work in which takes are read and judged, in the worker. */
async function judging<T>(work: (digest: ImportOptions['digest']) => Promise<T>): Promise<T> {
  const { storage } = await home();
  const { level, ownLimits, naming } = await readSettings(storage);
  const own = await ownInstruments(storage);
  const limits = limitsOf(level, ownLimits);
  const client = new AnalysisClient();
  try {
    return await work((takes) => client.digest({ takes: [...takes], own, limits, naming }));
  } finally {
    client.close();
  }
}
