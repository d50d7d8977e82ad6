import * as z from 'zod';
import { findInstrument, type Instrument } from '@/core/instruments';
import { storedScoreSchema, type Score } from '@/core/music';
import { conditionsSchema } from '@/core/take';
import { resultSchema, takeRequestSchema } from '@/worker';
import { pieceWrites, readAudio } from './audioChunks';
import { deskWrites, readDesk, unfinishedFor } from './desk';
import { exclusively } from './exclusively';
import { newId } from './newId';
import { ownInstruments } from './settings';
import type { Storage } from './storage';
import type { Tab } from './tab';

/** What was measured of a stretch; its sound lies beside it. */
const heardSchema = resultSchema.omit({ audio: true });

export const stretchSchema = z.object({
  /** Beat of the music that it began with. */
  beat: z.number(),
  /** Group of the score that was reached. */
  place: z.number().int(),
  source: conditionsSchema.pick({ source: true, sourceName: true, sampleRate: true, processing: true }),
  /** What is needed to measure the sound when that has not been done yet. */
  kept: z.object({
    request: takeRequestSchema,
    origin: z.number(),
    clicks: z.array(z.object({ seconds: z.number(), accent: z.boolean() })),
  }),
  /** Made again from the sound where an earlier version measured otherwise. */
  heard: heardSchema.nullable().catch(null),
});
export type RunningStretch = z.infer<typeof stretchSchema>;

const unnamedSchema = z.object({
  kept: z.looseObject({
    request: z.looseObject({
      instrument: z.never().optional(),
      score: z.object({ instrumentId: z.string() }),
    }),
  }),
});
/** The first version named its instrument only. @param own instruments that the player has or had. */
const storedStretchSchema = (own: readonly Instrument[]) =>
  z.preprocess((stored) => {
    const old = unnamedSchema.safeParse(stored);
    if (!old.success) return stored;
    const { kept } = stored as { kept: { request: object } };
    const instrument = findInstrument(old.data.kept.request.score.instrumentId, own);
    return { ...(stored as object), kept: { ...kept, request: { ...kept.request, instrument } } };
  }, stretchSchema);

export const runningSchema = (own: readonly Instrument[]) =>
  z.object({ startedAt: z.string(), score: storedScoreSchema(own), count: z.number().int() });
export const blockSchema = (own: readonly Instrument[]) =>
  z.object({ score: storedScoreSchema(own), from: z.string() });

/** What is on the stand: the music, and the page it was taken from. */
export type Block = z.infer<ReturnType<typeof blockSchema>>;

/** A stretch with its sound. */
export interface KeptStretch extends RunningStretch {
  readonly audio: Int16Array<ArrayBuffer>;
}

/** A block that was begun and not finished. */
export interface Running {
  readonly startedAt: string;
  readonly score: Score;
  readonly stretches: readonly KeptStretch[];
}

const ON_STAND = 'block';
const RUNNING = 'running/';
const onStandKey = (tab: string) => `${ON_STAND}/${tab}`;
const stretchKey = (id: string, index: number) => `${RUNNING}${id}/${index}`;
const soundOf = (id: string, index: number) => `running-${id}-${index}`;
const OWNED = /^(?:audio\/running-(.+)-\d+\/\d+|running\/([^/]+)(?:\/\d+)?)$/;
/** The block that a key of its sound or of its stretches belongs to; null: it is no such key. */
const runningOwner = (key: string): string | null => {
  const found = OWNED.exec(key);
  return found ? (found[1] ?? found[2] ?? null) : null;
};

/** Keeps a block while it is played, so that a closed page or a call loses nothing that was heard. Each tab has one of its own. */
export class RunningStore {
  private id: string | null = null;

  constructor(
    private readonly storage: Storage,
    /** Of the storage: tabs with the same one take turns. */
    private readonly name: string,
    private readonly tab: Tab,
  ) {}

  async writeBlock(block: Block): Promise<void> {
    const text = JSON.stringify(block);
    await this.storage.setMany({ [onStandKey(this.tab.id)]: text, [ON_STAND]: text });
  }

  /** What is on the stand in this tab; in a new one, what was put there last in any. */
  async readBlock(): Promise<Block | null> {
    return (
      (await this.read(onStandKey(this.tab.id), blockSchema)) ?? (await this.read(ON_STAND, blockSchema))
    );
  }

  async begin(score: Score, now: Date): Promise<void> {
    await this.clear();
    const id = newId(now);
    await exclusively(this.name, async () => {
      const desk = await readDesk(this.storage);
      await this.storage.setMany({
        [RUNNING + id]: JSON.stringify({ startedAt: now.toISOString(), score, count: 0 }),
        ...deskWrites({ ...desk, running: [...desk.running, { id, tab: this.tab.id }] }),
      });
    });
    this.id = id;
  }

  /** Adds sound to a stretch, and says what is so now of it. @param piece which piece of the stretch's sound it is. */
  async addSound(index: number, piece: number, audio: Int16Array, stretch: RunningStretch): Promise<void> {
    const { id } = this;
    const running = id === null ? null : await this.read(RUNNING + id, runningSchema);
    if (id === null || !running) return;
    await this.storage.setMany({
      ...pieceWrites(soundOf(id, index), piece, audio),
      [stretchKey(id, index)]: JSON.stringify(stretch),
      [RUNNING + id]: JSON.stringify({ ...running, count: Math.max(running.count, index + 1) }),
    });
  }

  /** What was begun and not finished, here or in a tab that is gone; null when nothing was heard of it. */
  async readRunning(): Promise<Running | null> {
    const id = await this.takeUp();
    const running = id === null ? null : await this.read(RUNNING + id, runningSchema);
    if (id === null || !running) return null;
    const stretches: KeptStretch[] = [];
    for (let i = 0; i < running.count; i++) {
      const stretch = await this.read(stretchKey(id, i), storedStretchSchema);
      const audio = await readAudio(this.storage, soundOf(id, i));
      if (stretch && audio) stretches.push({ ...stretch, audio: audio as Int16Array<ArrayBuffer> });
    }
    return stretches.length > 0 ? { startedAt: running.startedAt, score: running.score, stretches } : null;
  }

  /** Forgets the block of this tab: it has become a take, or is not wanted. */
  async clear(): Promise<void> {
    const gone = await exclusively(this.name, async () => {
      const desk = await readDesk(this.storage);
      const mine = desk.running.filter(({ tab }) => tab === this.tab.id).map(({ id }) => id);
      if (mine.length === 0) return mine;
      const running = desk.running.filter(({ tab }) => tab !== this.tab.id);
      await this.storage.setMany(deskWrites({ ...desk, running }));
      return mine;
    });
    this.id = null;
    if (gone.length > 0) await removeRunning(this.storage, (id) => gone.includes(id));
  }

  /** Makes a block that was left by a tab that is gone this one's own. */
  private takeUp(): Promise<string | null> {
    return exclusively(this.name, async () => {
      const desk = await readDesk(this.storage);
      const id = await unfinishedFor(desk.running, this.tab);
      if (id !== null && !desk.running.some((each) => each.id === id && each.tab === this.tab.id)) {
        const running = desk.running.map((each) => (each.id === id ? { id, tab: this.tab.id } : each));
        await this.storage.setMany(deskWrites({ ...desk, running }));
      }
      this.id = id;
      return id;
    });
  }

  private async read<T>(
    key: string,
    schemaFor: (own: readonly Instrument[]) => z.ZodType<T>,
  ): Promise<T | null> {
    const text = await this.storage.getItem(key);
    if (text === null) return null;
    try {
      return schemaFor(await ownInstruments(this.storage)).parse(JSON.parse(text));
    } catch {
      // What cannot be read any more is no block to go on with; the log is not touched by it.
      return null;
    }
  }
}

/** Removes what is left of blocks, their sound included. */
export async function removeRunning(storage: Storage, isGone: (id: string) => boolean): Promise<void> {
  const keys = (await storage.getAllKeys()).filter((key) => {
    const id = runningOwner(key);
    return id !== null && isGone(id);
  });
  if (keys.length > 0) await storage.removeMany(keys);
}
