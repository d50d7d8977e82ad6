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
  /** From one client, so that nobody keeps the others out. */
  readonly ofOneClient: number;
  /** From the first byte to the last. */
  readonly longestMs: number;
  /** Bytes a second on average: what comes more slowly is no recording on its way. */
  readonly slowest: number;
  /** Within which nothing is said of how slowly it comes. */
  readonly beginsMs: number;
}

/** Recordings on their way in: each in a folder of its own, which is gone when it has been used. */
export class Uploads {
  /** How many come, by client. */
  private readonly coming = new Map<string, number>();

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
   * Takes a body in, and gives its path to `work`. @param client who sends it, by address.
   * @throws TooMany before a byte was read, TooLarge, TooSlow.
   */
  async with<T>(
    client: string,
    body: Readable,
    signal: AbortSignal,
    work: (path: string) => Promise<T>,
  ): Promise<T> {
    const all = [...this.coming.values()].reduce((sum, count) => sum + count, 0);
    const own = this.coming.get(client) ?? 0;
    if (all >= this.limits.atOnce || own >= this.limits.ofOneClient) throw new TooMany();
    this.coming.set(client, own + 1);
    let folder: string | null = null;
    try {
      folder = await mkdtemp(join(this.folder, PREFIX));
      const path = join(folder, 'recording.wav');
      await this.store(body, path, signal);
      return await work(path);
    } finally {
      this.leave(client);
      if (folder !== null) await rm(folder, { recursive: true, force: true });
    }
  }

  private leave(client: string): void {
    const left = (this.coming.get(client) ?? 1) - 1;
    if (left === 0) this.coming.delete(client);
    else this.coming.set(client, left);
  }

  private async store(body: Readable, path: string, signal: AbortSignal): Promise<void> {
    const { mostBytes, longestMs, slowest, beginsMs } = this.limits;
    const begun = Date.now();
    let bytes = 0;
    const counted = async function* (chunks: AsyncIterable<Buffer>) {
      for await (const chunk of chunks) {
        bytes += chunk.length;
        if (bytes > mostBytes) throw new TooLarge();
        yield chunk;
      }
    };
    const late = lateAfter(longestMs, signal);
    const dribbling = new AbortController();
    const watch = setInterval(() => {
      const ms = Date.now() - begun;
      if (ms > beginsMs && bytes < (slowest * ms) / 1000) dribbling.abort();
    }, beginsMs / 4);
    try {
      await pipeline(body, counted, createWriteStream(path), {
        signal: AbortSignal.any([late.signal, dribbling.signal]),
      });
    } catch (error) {
      throw late.isLate() || dribbling.signal.aborted ? new TooSlow() : error;
    } finally {
      clearInterval(watch);
      late.clear();
    }
  }
}
