import { joinHeard, type HeardTake, type ToldConditions } from '@/core/take';
import type { KeptBeside, SoundSource } from '@/audio';
import { keepSound, type KeptStretch, type RunningStretch } from '@/store';
import { AnalysisClient, type Result } from '@/worker';

type Kept = Pick<ToldConditions, 'source' | 'sourceName' | 'sampleRate' | 'processing'>;

interface Stretch {
  readonly beat: number;
  readonly heard: HeardTake;
}

/** The stretches that a block has been played in so far, and their keeping while they last. */
export class Stretches {
  private readonly done: Stretch[] = [];
  private unmeasured: readonly KeptStretch[] = [];
  private count = 0;
  private piece = 0;
  private keptSamples = 0;
  private writing: Promise<void> = Promise.resolve();
  private told: Kept | null = null;
  private latest: KeptBeside | null = null;

  /** @param interrupted what is left of a block that the page was closed in. */
  constructor(interrupted: readonly KeptStretch[] = []) {
    this.unmeasured = interrupted;
    this.count = interrupted.length;
    const last = interrupted[interrupted.length - 1];
    if (last) this.told = last.source;
  }

  get isEmpty(): boolean {
    return this.done.length === 0 && this.unmeasured.length === 0;
  }

  /** What is known of the source that was listened to. */
  get conditions(): Kept | null {
    return this.told;
  }

  /** All that has been handed over so far is stored, or has found no room. */
  get written(): Promise<void> {
    return this.writing;
  }

  /** Sound of the stretch that is being played. */
  keep(audio: Int16Array, beside: KeptBeside, beat: number, place: number): void {
    this.latest = beside;
    this.keptSamples += audio.length;
    this.write(audio, { ...this.stretchOf(beside, beat, place), heard: null });
  }

  /** A stretch is over. */
  finish(result: Result, source: SoundSource, sampleRate: number, beat: number, place: number): void {
    const { audio, ...heard } = result;
    this.told = {
      source: source.kind,
      sourceName: source.name,
      sampleRate,
      processing: source.processing,
    };
    const whole = new Int16Array(audio.buffer, audio.byteOffset, audio.length);
    this.done.push({ beat, heard: { ...heard, audio: whole } });
    if (this.latest)
      this.write(audio.subarray(this.keptSamples), { ...this.stretchOf(this.latest, beat, place), heard });
    this.count++;
    this.piece = 0;
    this.keptSamples = 0;
    this.latest = null;
  }

  /** All of it as one take; what was interrupted is measured now. */
  async whole(): Promise<HeardTake> {
    await this.writing;
    const before: Stretch[] = [];
    for (const stretch of this.unmeasured) {
      const { heard, audio, beat } = stretch;
      before.push({ beat, heard: heard ? { ...heard, audio } : await measured(stretch) });
    }
    return joinHeard([...before, ...this.done]);
  }

  private stretchOf({ request, origin, clicks, source }: KeptBeside, beat: number, place: number) {
    const { kind, name, processing } = source;
    return {
      beat,
      place,
      source: { source: kind, sourceName: name, sampleRate: request.sampleRate, processing },
      kept: { request, origin, clicks: [...clicks] },
    };
  }

  private write(audio: Int16Array, stretch: RunningStretch): void {
    const { count, piece } = this;
    this.piece++;
    // One after the other; a full disk must not end the playing, and the take itself is still in memory.
    this.writing = this.writing.then(() => keepSound(count, piece, audio, stretch)).catch(() => undefined);
  }
}

async function measured({ kept, audio }: KeptStretch): Promise<HeardTake> {
  const client = new AnalysisClient();
  try {
    const { audio: sound, ...heard } = await client.measure(kept.request, {
      origin: kept.origin,
      clicks: kept.clicks,
      audio,
    });
    return { ...heard, audio: new Int16Array(sound.buffer, sound.byteOffset, sound.length) };
  } finally {
    client.close();
  }
}
