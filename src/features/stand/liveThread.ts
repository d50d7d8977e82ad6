import type { Cents } from '@/core/base';
import { LiveWords, NoteNow, type Conductor, type HeardNow, type LiveRemark } from '@/core/hearing/following';
import type { Group } from '@/core/hearing/matching';
import { ringing } from '@/core/hearing/signal';
import { hertzToMidi, type Offsets } from '@/core/tuning';
import type { ThreadPoint } from '@/ui';
import { LIVE_STRIDE } from '@/worker';

/** Frames that wait to be painted are kept for no longer than this while nothing is painted. */
const MOST_WAITING = 400;
/** Where nothing is asked, the thread of a tone goes once through its eye in this time, and then anew. */
export const FREE_SECONDS = 8;

/** A live frame that waits to be painted: where the music was by the player, if the player leads. */
type Waiting = Omit<ThreadPoint, 'seconds'> & { readonly music: number };

/** Live frames on their way from the worker to the eye and to the one who follows the music. */
export class LiveThread {
  private readonly words: LiveWords;
  private readonly ear: NoteNow;
  private waiting: Waiting[] = [];
  private newestSeconds = 0;
  private asked: Group | null = null;

  constructor(
    private readonly conductor: Conductor,
    private readonly a4: number,
    private readonly offsets: Offsets,
    private readonly byBeat: boolean,
    limitCents: Cents,
    /** Nothing is asked: each tone is its own target, and where it began is where its thread begins. */
    private readonly free: { readonly step: number } | null,
  ) {
    this.words = new LiveWords(limitCents);
    this.ear = new NoteNow(offsets, free?.step);
  }

  receive(frames: Float32Array): void {
    for (let i = 0; i < frames.length; i += LIVE_STRIDE) {
      const seconds = frames[i] ?? 0;
      const midi = hertzToMidi(frames[i + 1] ?? NaN, this.a4);
      const levelDb = frames[i + 2] ?? -120;
      const airinessDb = frames[i + 3] ?? NaN;
      const heard = {
        at: seconds,
        midi,
        levelDb,
        airinessDb,
        ring: ringing(frames[i + 4] ?? NaN, airinessDb),
      };
      this.newestSeconds = seconds;
      if (this.free) {
        this.hearFreely(heard);
        continue;
      }
      this.conductor.hear({ seconds, midi, levelDb });
      const place = this.byBeat ? null : this.conductor.tell(seconds, null);
      if (place) this.ask(place.group);
      this.words.push(seconds, this.centsOf(midi), levelDb);
      this.waiting.push({ ...heard, music: place?.musicSeconds ?? NaN });
    }
    if (this.waiting.length > MOST_WAITING) this.waiting.splice(0, this.waiting.length - MOST_WAITING);
  }

  private hearFreely(heard: Omit<Waiting, 'music'>): void {
    this.ear.push(heard.at, heard.midi, heard.levelDb);
    const since = this.ear.now?.since ?? heard.at;
    this.waiting.push({ ...heard, music: (heard.at - since) % FREE_SECONDS });
  }

  /** The note that is asked for now. */
  ask(group: number): void {
    const next = this.conductor.groups[group] ?? null;
    if (next === this.asked) return;
    if (next?.sounding !== this.asked?.sounding) this.words.forget();
    this.asked = next;
  }

  /** @param musicSeconds where the music is now by the beat; null in free time, where each frame knows its own place. */
  drain(musicSeconds: number | null): ThreadPoint[] {
    const { newestSeconds } = this;
    const points = this.waiting.map(({ music, ...heard }) => ({
      ...heard,
      seconds: musicSeconds === null || this.free ? music : musicSeconds - (newestSeconds - heard.at),
      // Against the tempered place of its nearest note, so that an eye's middle is in tune.
      midi: heard.midi - (this.offsets[Math.round(heard.midi)] ?? 0) / 100,
    }));
    this.waiting = [];
    return points;
  }

  /** Take time of the newest frame. */
  get newest(): number {
    return this.newestSeconds;
  }

  /** What sounds where nothing is asked; null in silence. */
  get heard(): HeardNow | null {
    return this.free ? this.ear.now : null;
  }

  get remark(): LiveRemark {
    return this.words.now;
  }

  private centsOf(midi: number): number {
    if (!this.asked) return NaN;
    const target = this.asked.sounding + (this.offsets[Math.round(this.asked.sounding)] ?? 0) / 100;
    return 100 * (midi - target);
  }
}
