import * as z from 'zod';
import { encodeWav, notesCsv, takesCsv } from '@/core/formats';
import {
  MUSIC,
  PLANS,
  SETTINGS,
  soundPath,
  takePath,
  tracePath,
  type ArchivePart,
} from '@/core/formats/archive';
import { TAKE_VERSION, takeFromStored } from '@/core/take';
import { readAudio } from './audioChunks';
import { readEntries } from './filing';
import { TAKE, TRACE } from './ledgerStore';
import { MUSIC_KEY } from './musicStore';
import { PLANS_KEY } from './planStore';
import { ownInstruments, SETTINGS_KEY, SETTINGS_VERSION } from './settings';
import type { Storage } from './storage';

/** What of a stored take is looked at when it is written out: the rest goes as it lies. */
const soundingSchema = z.object({
  audio: z.object({ bytes: z.number() }).nullable(),
  conditions: z.object({ sampleRate: z.number() }),
});

const utf8 = (text: string) => new TextEncoder().encode(text);

export interface ExportOptions {
  readonly withSound: boolean;
  readonly onProgress: (done: number, of: number) => void;
}

/** Versions of the records in an archive that is written now. */
export const VERSIONS = { take: TAKE_VERSION, settings: SETTINGS_VERSION } as const;

/**
 * Everything that is kept, as the files of an archive: takes, curves and sound one take after the other, then music, settings
 * with the player's instruments, and the tables. No more than one take is held at a time.
 */
export async function* archiveParts(
  storage: Storage,
  { withSound, onProgress }: ExportOptions,
): AsyncGenerator<ArchivePart> {
  const { entries } = await readEntries(storage, Infinity);
  const own = await ownInstruments(storage);
  const notes: string[] = [];
  for (const [i, { id }] of entries.entries()) {
    onProgress(i, entries.length);
    const stored = await storage.getMany([TAKE + id, TRACE + id]);
    const [take, trace] = [stored[TAKE + id] ?? null, stored[TRACE + id] ?? null];
    // Deleted while the export was under way.
    if (take === null) continue;
    yield { path: takePath(id), bytes: utf8(take) };
    if (trace !== null) yield { path: tracePath(id), bytes: utf8(trace) };
    const sounding = soundingSchema.safeParse(JSON.parse(take));
    const audio = withSound && sounding.data?.audio ? await readAudio(storage, id) : null;
    if (audio && sounding.success)
      yield { path: soundPath(id), bytes: encodeWav(audio, sounding.data.conditions.sampleRate) };
    const read = takeFromStored({ take, trace }, own);
    if (read.ok) notes.push(notesCsv(read.value, notes.length === 0));
  }
  for (const [path, key] of [
    [MUSIC, MUSIC_KEY],
    [SETTINGS, SETTINGS_KEY],
    [PLANS, PLANS_KEY],
  ] as const) {
    const text = await storage.getItem(key);
    if (text !== null) yield { path, bytes: utf8(text) };
  }
  yield { path: 'takes.csv', bytes: utf8(takesCsv(entries)) };
  yield { path: 'notes.csv', bytes: utf8(notes.join('')) };
  onProgress(entries.length, entries.length);
}
