import * as z from 'zod';
import { readRecord, type RecordKind } from '@/core/base';
import { takeKindFor, type Take } from '@/core/take';
import { readAudio, removeAudio, writeAudio } from './audioChunks';
import { defaultSettings, settingsKind, type Settings } from './settings';
import type { Storage } from './storage';

const TAKE = 'take/';
const TRASH = 'trash/';
const DAMAGED = 'damaged/';
const DRAFT = 'draft';
const SETTINGS = 'settings';
/** A deleted take can be had back for this long. */
const TRASH_DAYS = 7;
const BYTES_IN_MEGABYTE = 1_000_000;

const binnedSchema = z.object({ deletedAt: z.string(), text: z.string() });
const asideSchema = z.object({ problem: z.string(), text: z.string() });

export interface Log {
  /** Newest first. */
  readonly takes: Take[];
  /** Records that could not be read; they are set aside, not lost. */
  readonly damaged: { readonly key: string; readonly problem: string }[];
}

export interface StorageUse {
  readonly audioBytes: number;
  readonly takes: number;
}

/**
 * All that is remembered, over any text storage. Takes live under `take/`, deleted ones under `trash/`, what cannot be
 * read under `damaged/`; the take that has just been played and is not yet kept is the `draft`.
 */
export class LedgerStore {
  constructor(private readonly storage: Storage) {}

  async readLog(): Promise<Log> {
    const keys = await this.storage.getAllKeys();
    const stored = await this.storage.getMany(keys.filter((key) => key.startsWith(TAKE)));
    const takes: Take[] = [];
    const kind = await this.takeKind();
    const aside: Record<string, string> = {};
    for (const [key, text] of Object.entries(stored)) {
      if (text === null) continue;
      const read = readRecord(kind, text);
      if (read.ok) takes.push(read.value);
      else aside[key] = JSON.stringify({ problem: read.problem, text });
    }
    await this.setAside(aside);
    takes.sort((a, b) => (a.createdAt < b.createdAt ? 1 : -1));
    return { takes, damaged: await this.readDamaged() };
  }

  async readTake(id: string): Promise<Take | null> {
    return this.read(TAKE + id, await this.takeKind());
  }

  /** Puts a fresh take, with its sound, where a reload finds it again. One that was there before goes to the bin. */
  async writeDraft(take: Take, audio: Int16Array | null): Promise<void> {
    await this.discardDraft(new Date(take.createdAt));
    if (audio) await writeAudio(this.storage, take.id, audio);
    await this.storage.setItem(DRAFT, JSON.stringify(take));
  }

  async readDraft(): Promise<Take | null> {
    return this.read(DRAFT, await this.takeKind());
  }

  /**
   * Makes the draft a take. Its sound is kept when it is wanted and there is room.
   * @returns whether the sound could be kept.
   */
  async keepDraft(remark: string, settings: Settings): Promise<{ take: Take; soundKept: boolean }> {
    const draft = await this.readDraft();
    if (!draft) throw new Error('there is no take to keep');
    const room = settings.audioQuotaMegabytes * BYTES_IN_MEGABYTE - (await this.use()).audioBytes;
    const soundKept = settings.keepAudio && draft.audio !== null && draft.audio.bytes <= room;
    const take: Take = { ...draft, remark, audio: soundKept ? draft.audio : null };
    if (!soundKept) await removeAudio(this.storage, draft.id);
    await this.storage.setItem(TAKE + take.id, JSON.stringify(take));
    await this.storage.removeItem(DRAFT);
    return { take, soundKept };
  }

  /** Says otherwise of the draft what the player knows better; nothing happens when it is another take by now. */
  async changeDraft(id: string, change: (draft: Take) => Take): Promise<void> {
    const draft = await this.readDraft();
    if (draft?.id === id) await this.storage.setItem(DRAFT, JSON.stringify(change(draft)));
  }

  /** Puts the draft into the bin. @returns its id, by which it can be had back. */
  async discardDraft(now: Date): Promise<string | null> {
    const draft = await this.readDraft();
    if (!draft) return null;
    await this.bin(draft.id, JSON.stringify(draft), now);
    await this.storage.removeItem(DRAFT);
    return draft.id;
  }

  async changeRemark(id: string, remark: string): Promise<void> {
    const take = await this.readTake(id);
    if (take) await this.storage.setItem(TAKE + id, JSON.stringify({ ...take, remark }));
  }

  async deleteTake(id: string, now: Date): Promise<void> {
    const text = await this.storage.getItem(TAKE + id);
    if (text === null) return;
    await this.bin(id, text, now);
    await this.storage.removeItem(TAKE + id);
  }

  async undelete(id: string): Promise<void> {
    const entry = await this.storage.getItem(TRASH + id);
    if (entry === null) return;
    const read = parsed(binnedSchema, entry);
    if (!read) return;
    await this.storage.setItem(TAKE + id, read.text);
    await this.storage.removeItem(TRASH + id);
  }

  /** Empties what has been in the bin for a week. */
  async sweep(now: Date): Promise<void> {
    const keys = (await this.storage.getAllKeys()).filter((key) => key.startsWith(TRASH));
    const stored = await this.storage.getMany(keys);
    for (const key of keys) {
      const read = parsed(binnedSchema, stored[key] ?? null);
      if (read && now.getTime() - Date.parse(read.deletedAt) < TRASH_DAYS * 86_400_000) continue;
      await removeAudio(this.storage, key.slice(TRASH.length));
      await this.storage.removeItem(key);
    }
  }

  readAudio(id: string): Promise<Int16Array | null> {
    return readAudio(this.storage, id);
  }

  /** Sound kept with takes; the draft's and the bin's do not count against the player. */
  async use(): Promise<StorageUse> {
    const { takes } = await this.readLog();
    return {
      audioBytes: takes.reduce((sum, take) => sum + (take.audio?.bytes ?? 0), 0),
      takes: takes.length,
    };
  }

  async readSettings(): Promise<Settings> {
    return (await this.read(SETTINGS, settingsKind)) ?? defaultSettings;
  }

  async writeSettings(settings: Settings): Promise<void> {
    await this.storage.setItem(SETTINGS, JSON.stringify(settings));
  }

  /** Writes takes that come from elsewhere (the demo) as they are. */
  async importTakes(takes: readonly { take: Take; audio: Int16Array | null }[]): Promise<void> {
    for (const { take, audio } of takes) if (audio) await writeAudio(this.storage, take.id, audio);
    await this.storage.setMany(
      Object.fromEntries(takes.map(({ take }) => [TAKE + take.id, JSON.stringify(take)])),
    );
  }

  /** Old takes only named their instruments; the player's own are looked up in the settings. */
  private async takeKind(): Promise<RecordKind<Take>> {
    const { ownInstruments, removedInstruments } = await this.readSettings();
    return takeKindFor([...ownInstruments, ...removedInstruments]);
  }

  private async read<T>(key: string, kind: RecordKind<T>): Promise<T | null> {
    const text = await this.storage.getItem(key);
    if (text === null) return null;
    const read = readRecord(kind, text);
    if (read.ok) return read.value;
    await this.setAside({ [key]: JSON.stringify({ problem: read.problem, text }) });
    return null;
  }

  private async setAside(entries: Record<string, string>): Promise<void> {
    for (const [key, value] of Object.entries(entries)) {
      await this.storage.setItem(DAMAGED + key, value);
      await this.storage.removeItem(key);
    }
  }

  private async readDamaged(): Promise<Log['damaged']> {
    const keys = (await this.storage.getAllKeys()).filter((key) => key.startsWith(DAMAGED));
    const stored = await this.storage.getMany(keys);
    return keys.map((key) => ({
      key: key.slice(DAMAGED.length),
      problem: parsed(asideSchema, stored[key] ?? null)?.problem ?? 'unreadable',
    }));
  }

  private async bin(id: string, text: string, now: Date): Promise<void> {
    await this.storage.setItem(TRASH + id, JSON.stringify({ deletedAt: now.toISOString(), text }));
  }
}

/** JSON checked against a schema; null where it does not fit. */
function parsed<T>(schema: z.ZodType<T>, text: string | null): T | null {
  try {
    return text === null ? null : schema.parse(JSON.parse(text));
  } catch {
    return null;
  }
}
