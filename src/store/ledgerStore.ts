import { rollups, sum } from 'd3-array';
import { DAY_MS, type Outcome } from '@/core/base';
import { nameWithin } from '@/core/instruments';
import type { Digest, Entry, PackedCells, Played } from '@/core/ledger';
import { storedOf, takeFromStored, type StoredTake, type Take } from '@/core/take';
import type { Naming } from '@/core/tuning';
import { limitsOf, type Limits } from '@/core/verdict';
import { readAudio, removeAudio, writeAudio } from './audioChunks';
import type { Clock } from './clock';
import {
  binnedRow,
  deskWrites,
  readDesk,
  unfinishedFor,
  UNREADABLE,
  withoutDraft,
  type Binned,
  type Desk,
} from './desk';
import { exclusively } from './exclusively';
import { filed, findEntry, readCells, readEntries, readEntry, readMeta, readPlayed } from './filing';
import { ownInstruments, readSettings, type Settings } from './settings';
import type { Storage, Writes } from './storage';
import type { Tab } from './tab';
import { readUnread, unreadWrites } from './unread';

export const TAKE = 'take/';
export const TRACE = 'trace/';
/** A take in the bin can be had back for this long. */
export const BIN_DAYS = 7;
const IN_THE_BIN =
  'This take was discarded in another tab. It lies in the bin, and can be had back from there.';
const BYTES_IN_MEGABYTE = 1_000_000;

export interface StorageUse {
  readonly audioBytes: number;
  readonly takes: number;
}

/** What is kept with a take. */
export interface Kept {
  readonly take: Take;
  readonly soundKept: boolean;
}

/** Judges a take, and makes its row and cells. */
export type Digesting = (take: Take, limits: Limits, naming: Naming) => Digest | Promise<Digest>;

/**
 * The log, over any text storage. A take lies under `take/`, its curves under `trace/`, its sound under `audio/`, from the
 * moment that it was played; where it stands is said once: in the rows (kept), or on the desk (draft, bin). Each change is one
 * transaction, made while no other tab makes one.
 */
export class LedgerStore {
  constructor(
    private readonly storage: Storage,
    /** Of the storage: tabs with the same one take turns. */
    private readonly name: string,
    private readonly digest: Digesting,
  ) {}

  /** Rows, newest first, whole months of them until there are enough. */
  readEntries(enough: number, instrumentId?: string): Promise<{ entries: Entry[]; total: number }> {
    return readEntries(this.storage, enough, instrumentId);
  }

  /** The newest row of an instrument that is like this; null: none is. */
  findEntry(instrumentId: string, isWanted: (entry: Entry) => boolean): Promise<Entry | null> {
    return findEntry(this.storage, instrumentId, isWanted);
  }

  readCells(instrumentId: string): Promise<Record<string, PackedCells>> {
    return readCells(this.storage, instrumentId);
  }

  /** All that was played on an instrument, oldest first. @param since in months from this one on; ever, without it. */
  readPlayed(instrumentId: string, since?: string, now?: Date): Promise<readonly Played[]> {
    return readPlayed(this.storage, instrumentId, since, now && now.getTime() / DAY_MS);
  }

  /** Instruments in the log and how many takes each has, the most played first. */
  async instrumentsPlayed(): Promise<{ instrumentId: string; takes: number }[]> {
    const { months } = await readMeta(this.storage);
    const counts = rollups(
      months,
      (same) => sum(same, ({ takes }) => takes),
      ({ instrumentId }) => instrumentId,
    );
    return counts.map(([instrumentId, takes]) => ({ instrumentId, takes })).sort((a, b) => b.takes - a.takes);
  }

  /** A take, wherever it stands. What cannot be read stays where it is, and is listed. */
  async readTake(id: string): Promise<Take | null> {
    const read = await this.readStored(id);
    if (read === null || read.ok) return read?.value ?? null;
    await this.alone(async () => {
      const unread = await readUnread(this.storage);
      await this.storage.setMany(unreadWrites(unread, { [TAKE + id]: read.problem }));
    });
    return null;
  }

  /** Takes in the bin, newest first. */
  async readBin(): Promise<Binned[]> {
    return (await readDesk(this.storage)).bin.filter(({ gone }) => !gone).reverse();
  }

  /** Puts a fresh take, with its sound, where a reload finds it again. One of this tab that was there before goes to the bin. */
  async writeDraft(take: Take, audio: Int16Array | null, tab: Tab): Promise<void> {
    if (audio) await writeAudio(this.storage, take.id, audio);
    await this.alone(async () => {
      let desk = await readDesk(this.storage);
      for (const before of desk.drafts.filter((draft) => draft.tab === tab.id))
        desk = await this.binned(desk, before.id, 'again', new Date(take.createdAt));
      desk = { ...desk, drafts: [...desk.drafts, { id: take.id, tab: tab.id }] };
      await this.storage.setMany({ ...takeWrites(take), ...deskWrites(desk) });
    });
  }

  /** The take that was just played here; else one that was left by a tab that is gone. */
  async readDraft(tab: Tab): Promise<Take | null> {
    const id = await unfinishedFor((await readDesk(this.storage)).drafts, tab);
    return id === null ? null : this.readTake(id);
  }

  /**
   * Makes a draft a take of the log. Its sound is kept when it is wanted and there is room. A take that is in the log already
   * stays as it is.
   */
  async keepDraft(id: string, remark: string): Promise<Kept> {
    const kept = await this.alone(async () => {
      const desk = await readDesk(this.storage);
      const draft = await this.readWhole(id);
      if (!desk.drafts.some((each) => each.id === id)) {
        if ((await readEntry(this.storage, underOf(draft))) === null) throw new Error(IN_THE_BIN);
        return { take: draft, soundKept: draft.audio !== null };
      }
      const settings = await readSettings(this.storage);
      const room = settings.audioQuotaMegabytes * BYTES_IN_MEGABYTE - (await this.use()).audioBytes;
      const soundKept = settings.keepAudio && draft.audio !== null && draft.audio.bytes <= room;
      const take: Take = { ...draft, remark, audio: soundKept ? draft.audio : null };
      await this.storage.setMany({
        [TAKE + id]: storedOf(take).take,
        ...(await filed(this.storage, { add: [await this.digested(take, settings)] })),
        ...deskWrites(withoutDraft(desk, id)),
      });
      return { take, soundKept };
    });
    // The take says that it has none: whatever happens here, no other record counts on this sound.
    if (!kept.soundKept) await removeAudio(this.storage, id);
    return kept;
  }

  /** Says otherwise of a draft what the player knows better; nothing happens when it is none any more. */
  async changeDraft(id: string, change: (draft: Take) => Take): Promise<void> {
    await this.alone(async () => {
      const desk = await readDesk(this.storage);
      if (!desk.drafts.some((draft) => draft.id === id)) return;
      await this.storage.setMany({ [TAKE + id]: storedOf(change(await this.readWhole(id))).take });
    });
  }

  /** Puts a draft into the bin. */
  async discardDraft(id: string, now: Date): Promise<void> {
    await this.alone(async () => {
      const desk = await readDesk(this.storage);
      if (!desk.drafts.some((draft) => draft.id === id)) return;
      await this.storage.setMany(deskWrites(await this.binned(desk, id, 'discarded', now)));
    });
  }

  async changeRemark(id: string, remark: string): Promise<void> {
    await this.alone(async () => {
      const take = { ...(await this.readWhole(id)), remark };
      const entry = await readEntry(this.storage, underOf(take));
      const rows = entry && (await this.refiled([take]));
      await this.storage.setMany({ [TAKE + id]: storedOf(take).take, ...rows });
    });
  }

  async deleteTake(id: string, now: Date): Promise<void> {
    await this.alone(async () => {
      const take = await this.readWhole(id);
      const desk = await this.binned(await readDesk(this.storage), id, 'deleted', now);
      const rows = await filed(this.storage, { remove: [underOf(take)] });
      await this.storage.setMany({ ...rows, ...deskWrites(desk) });
    });
  }

  /** Takes a take out of the bin, into the log. @returns whether it was there. */
  async undelete(id: string): Promise<boolean> {
    return this.alone(async () => {
      const desk = await readDesk(this.storage);
      if (!desk.bin.some((each) => each.id === id && !each.gone)) return false;
      const rows = await this.refiled([await this.readWhole(id)]);
      await this.storage.setMany({
        ...rows,
        ...deskWrites({ ...desk, bin: desk.bin.filter((each) => each.id !== id) }),
      });
      return true;
    });
  }

  /**
   * Removes for good what has been in the bin for a week. A clock that is wrong for one opening takes nothing: what is due has to be
   * due still a day later, and what was found again where nothing was known of it is the player's to remove.
   */
  async sweep({ now, jumped }: Clock): Promise<void> {
    if (jumped) return;
    const isDue = ({ deletedAt, why }: Binned) =>
      why !== 'found' && now.getTime() - Date.parse(deletedAt) >= BIN_DAYS * DAY_MS;
    const sinceOf = (each: Binned) => (isDue(each) ? (each.dueSince ?? now.toISOString()) : null);
    await this.alone(async () => {
      const desk = await readDesk(this.storage);
      const bin = desk.bin.map((each) => ({ ...each, dueSince: sinceOf(each) }));
      if (bin.some(({ dueSince }, i) => dueSince !== desk.bin[i]!.dueSince))
        await this.storage.setMany(deskWrites({ ...desk, bin }));
    });
    await this.removeForGood(
      ({ gone, dueSince }) => gone || (dueSince !== null && now.getTime() - Date.parse(dueSince) >= DAY_MS),
    );
  }

  /** Removes for good all that is in the bin, for who needs the room now. */
  async emptyBin(): Promise<void> {
    try {
      await this.removeForGood(() => true);
    } catch {
      // On a full disk not even what is to go can be written down: what takes the room goes first.
      await this.alone(async () => {
        const { bin } = await readDesk(this.storage);
        await removeAudio(this.storage, ...bin.map(({ id }) => id));
      });
      await this.removeForGood(() => true);
    }
  }

  /** Cut short, it goes on the next time that the bin is swept. What an import brings back meanwhile is not in the bin any more. */
  private async removeForGood(due: (binned: Binned) => boolean): Promise<void> {
    await this.alone(async () => {
      const desk = await readDesk(this.storage);
      const gone = desk.bin.filter(due).map(({ id }) => id);
      if (gone.length === 0) return;
      const marked = desk.bin.map((each) => (due(each) ? { ...each, gone: true } : each));
      await this.storage.setMany(deskWrites({ ...desk, bin: marked }));
      await removeAudio(this.storage, ...gone);
      await this.storage.removeMany(gone.flatMap((id) => [TAKE + id, TRACE + id]));
      const bin = desk.bin.filter(({ id }) => !gone.includes(id));
      await this.storage.setMany(deskWrites({ ...desk, bin }));
    });
  }

  readAudio(id: string): Promise<Int16Array | null> {
    return readAudio(this.storage, id);
  }

  /** Sound kept with takes; the draft's and the bin's do not count against the player. */
  async use(): Promise<StorageUse> {
    const { months } = await readMeta(this.storage);
    return {
      audioBytes: months.reduce((sum, month) => sum + month.audioBytes, 0),
      takes: months.reduce((sum, month) => sum + month.takes, 0),
    };
  }

  /** Does the work while no other tab changes this log. */
  private alone<T>(work: () => Promise<T>): Promise<T> {
    return exclusively(this.name, work);
  }

  private async readStored(id: string): Promise<Outcome<Take> | null> {
    const { [TAKE + id]: take, [TRACE + id]: trace } = await this.storage.getMany([TAKE + id, TRACE + id]);
    return take == null
      ? null
      : takeFromStored({ take, trace: trace ?? null }, await ownInstruments(this.storage));
  }

  private async readWhole(id: string): Promise<Take> {
    const read = await this.readStored(id);
    if (!read) throw new Error('This take is not here any more. It may have been deleted in another tab.');
    if (!read.ok) throw new Error(`This take could not be read, and was left as it is (${read.problem}).`);
    return read.value;
  }

  private async refiled(takes: readonly Take[]): Promise<Writes> {
    const settings = await readSettings(this.storage);
    return filed(this.storage, {
      add: await Promise.all(takes.map((take) => this.digested(take, settings))),
    });
  }

  private async digested(take: Take, { level, ownLimits, naming }: Settings): Promise<Digest> {
    return this.digest(take, limitsOf(level, ownLimits), naming);
  }

  private async binned(desk: Desk, id: string, why: Binned['why'], now: Date): Promise<Desk> {
    const read = await this.readStored(id);
    const take = read?.ok ? read.value : null;
    const row = binnedRow(
      {
        id,
        title: take?.score.title ?? UNREADABLE,
        instrumentName: take?.instrument ? nameWithin(take.instrument) : (take?.score.instrumentId ?? ''),
        createdAt: take?.createdAt ?? now.toISOString(),
      },
      why,
      now,
    );
    return { ...withoutDraft(desk, id), bin: [...desk.bin.filter((each) => each.id !== id), row] };
  }
}

/** A take and its curves, to be written. */
export const takeWrites = (take: Take): Writes => storedWrites([{ id: take.id, stored: storedOf(take) }]);

/** Takes in their stored form, to be written. */
export function storedWrites(takes: readonly { id: string; stored: StoredTake }[]): Writes {
  const writes: Writes = {};
  for (const { id, stored } of takes) {
    writes[TAKE + id] = stored.take;
    writes[TRACE + id] = stored.trace;
  }
  return writes;
}

const underOf = ({ id, createdAt, score }: Take) => ({ id, createdAt, instrumentId: score.instrumentId });
