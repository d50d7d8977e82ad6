import { createWriteStream } from 'node:fs';
import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { lateAfter } from './late';

const PREFIX = 'gold-reed-upload-';

/** A body that is larger than any recording may be. */
export class TooLarge extends Error {}
/** A body that stopped coming. */
export class TooSlow extends Error {}
/** More come at once than there is room for. */
export class TooMany extends Error {}

export interface UploadLimits {
  readonly mostBytes: number;
  readonly atOnce: number;
  /** From the first byte to the last. */
  readonly longestMs: number;
}

/** Recordings on their way in: each in a folder of its own, which is gone when it has been used. */
export class Uploads {
  private coming = 0;

  constructor(
    private readonly limits: UploadLimits,
    private readonly folder = tmpdir(),
  ) {}

  /** Removes what earlier runs of the server left when they were killed. */
  static async sweep(folder = tmpdir()): Promise<void> {
    const names = await readdir(folder);
    await Promise.all(
      names
        .filter((name) => name.startsWith(PREFIX))
        .map((name) => rm(join(folder, name), { recursive: true, force: true })),
    );
  }

  /**
   * Takes a body in, and gives its path to `work`.
   * @throws TooMany before a byte was read, TooLarge, TooSlow.
   */
  async with<T>(body: Readable, signal: AbortSignal, work: (path: string) => Promise<T>): Promise<T> {
    if (this.coming >= this.limits.atOnce) throw new TooMany();
    this.coming++;
    let folder: string | null = null;
    try {
      folder = await mkdtemp(join(this.folder, PREFIX));
      const path = join(folder, 'recording.wav');
      await this.store(body, path, signal);
      return await work(path);
    } finally {
      this.coming--;
      if (folder !== null) await rm(folder, { recursive: true, force: true });
    }
  }

  private async store(body: Readable, path: string, signal: AbortSignal): Promise<void> {
    const { mostBytes, longestMs } = this.limits;
    const counted = async function* (chunks: AsyncIterable<Buffer>) {
      let bytes = 0;
      for await (const chunk of chunks) {
        bytes += chunk.length;
        if (bytes > mostBytes) throw new TooLarge();
        yield chunk;
      }
    };
    const late = lateAfter(longestMs, signal);
    try {
      await pipeline(body, counted, createWriteStream(path), { signal: late.signal });
    } catch (error) {
      throw late.isLate() ? new TooSlow() : error;
    } finally {
      late.clear();
    }
  }
}
