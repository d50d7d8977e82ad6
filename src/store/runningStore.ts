import * as z from 'zod';
import { scoreSchema, type Score } from '@/core/music';
import { conditionsSchema } from '@/core/take';
import { resultSchema, takeRequestSchema } from '@/worker';
import { appendAudio, readAudio, removeAudio } from './audioChunks';
import type { Storage } from './storage';

/** What was measured of a stretch; its sound lies beside it. */
const heardSchema = resultSchema.omit({ audio: true });

const stretchSchema = z.object({
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
  heard: heardSchema.nullable(),
});
export type RunningStretch = z.infer<typeof stretchSchema>;

const runningSchema = z.object({ startedAt: z.string(), score: scoreSchema, count: z.number().int() });
const blockSchema = z.object({ score: scoreSchema, from: z.string() });

/** What is on the stand: the music, and the page it was taken from. */
export type Block = z.infer<typeof blockSchema>;

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

const BLOCK = 'block';
const RUNNING = 'running';
const stretchKey = (index: number) => `running/${index}`;
const soundId = (index: number) => `running-${index}`;

/** Keeps a block while it is played, so that a closed page or a call loses nothing that was heard. */
export class RunningStore {
  constructor(private readonly storage: Storage) {}

  async writeBlock(block: Block): Promise<void> {
    await this.storage.setItem(BLOCK, JSON.stringify(block));
  }

  readBlock(): Promise<Block | null> {
    return this.read(BLOCK, blockSchema);
  }

  async begin(score: Score, startedAt: string): Promise<void> {
    await this.clear();
    await this.storage.setItem(RUNNING, JSON.stringify({ startedAt, score, count: 0 }));
  }

  /** Adds sound to a stretch, and says what is so now of it. @param piece which piece of the stretch's sound it is. */
  async addSound(index: number, piece: number, audio: Int16Array, stretch: RunningStretch): Promise<void> {
    await appendAudio(this.storage, soundId(index), piece, audio);
    await this.writeStretch(index, stretch);
  }

  async writeStretch(index: number, stretch: RunningStretch): Promise<void> {
    await this.storage.setItem(stretchKey(index), JSON.stringify(stretch));
    const running = await this.read(RUNNING, runningSchema);
    if (running && running.count <= index)
      await this.storage.setItem(RUNNING, JSON.stringify({ ...running, count: index + 1 }));
  }

  /** What was begun and not finished; null when nothing was heard of it. */
  async readRunning(): Promise<Running | null> {
    const running = await this.read(RUNNING, runningSchema);
    if (!running || running.count === 0) return null;
    const stretches: KeptStretch[] = [];
    for (let i = 0; i < running.count; i++) {
      const stretch = await this.read(stretchKey(i), stretchSchema);
      const audio = await readAudio(this.storage, soundId(i));
      if (stretch && audio) stretches.push({ ...stretch, audio: audio as Int16Array<ArrayBuffer> });
    }
    return stretches.length > 0 ? { startedAt: running.startedAt, score: running.score, stretches } : null;
  }

  async clear(): Promise<void> {
    const keys = (await this.storage.getAllKeys()).filter((key) => key.startsWith(RUNNING));
    for (const key of keys.filter((each) => each.startsWith(`${RUNNING}/`)))
      await removeAudio(this.storage, soundId(Number(key.slice(RUNNING.length + 1))));
    await this.storage.removeMany(keys);
  }

  private async read<T>(key: string, schema: z.ZodType<T>): Promise<T | null> {
    const text = await this.storage.getItem(key);
    if (text === null) return null;
    try {
      return schema.parse(JSON.parse(text));
    } catch {
      // What cannot be read any more is no block to go on with; the log is not touched by it.
      return null;
    }
  }
}
