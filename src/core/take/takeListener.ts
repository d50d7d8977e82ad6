import { fromInt16 } from '@/core/base';
import { listeningRange } from '@/core/instruments';
import {
  CLICK_SECONDS,
  clickMask,
  droneFrequencies,
  Listener,
  locateClicks,
  type Click,
  type LiveFrame,
} from '@/core/hearing/signal';
import { heardTake, type HeardTake, type Sounded } from './heardTake';
import { Recorder } from './recorder';
import type { TakeRequest } from './takeRequest';
import type { Timing } from './timing';

const LONGEST_DROPOUT_SECONDS = 10;

/** Follows one take from its first sample to its measures. Knows nothing of workers and messages. */
export class TakeListener {
  private readonly listener: Listener;
  private readonly recorder = new Recorder();
  private readonly clicks: Click[] = [];
  private firstFrame: number | null = null;
  private live: number[] = [];
  /** How late clicks are heard; null when they are not, undefined until the count-in is over. */
  private clickLag: number | null | undefined = undefined;

  private firstBeat: number | null;
  /** Samples that `takeSound` has given away. */
  private kept = 0;

  constructor(private readonly request: TakeRequest) {
    this.firstBeat = request.firstBeat;
    this.listener = new Listener(request.sampleRate, listeningRange(request.instrument, request.a4), {
      onFrame: (frame) => this.follow(frame),
      removed: droneFrequencies(request.drone ?? [], request.sampleRate),
    });
  }

  /** @param frame place of the first sample on the audio clock, in samples. */
  push(frame: number, samples: Float32Array): void {
    this.firstFrame ??= frame;
    // A dropout in the capture is silence, not a shorter take.
    const missing = frame - this.firstFrame - this.recorder.length;
    if (missing > 0 && missing < LONGEST_DROPOUT_SECONDS * this.request.sampleRate)
      this.take(new Float32Array(missing));
    this.take(samples);
  }

  /** The metronome was set going later than the take: clock time of the first beat of the music. */
  setFirstBeat(seconds: number): void {
    this.firstBeat = seconds;
    this.clickLag = undefined;
  }

  addClicks(clicks: readonly Click[]): void {
    this.clicks.push(...clicks);
  }

  /** The live frames since the last call, and when the take began on the audio clock. */
  takeLive(): { frames: Float32Array<ArrayBuffer>; origin: number } {
    const frames = Float32Array.from(this.live);
    this.live = [];
    return { frames, origin: this.origin };
  }

  /** Sound that has not been asked for yet, once there is enough of it: for keeping while the take lasts. */
  takeSound(leastSeconds: number): Int16Array<ArrayBuffer> | null {
    const { recorder, request } = this;
    if (recorder.length - this.kept < leastSeconds * request.sampleRate) return null;
    const part = recorder.slice(this.kept, recorder.length);
    this.kept = recorder.length;
    return part;
  }

  /** Whether the take has reached its longest length and should end now. */
  get full(): boolean {
    return this.recorder.length >= this.request.longestSeconds * this.request.sampleRate;
  }

  finish(): HeardTake {
    return heardTake(this.request, this.sounded());
  }

  /** Ends listening. What was heard so far, not yet told apart into notes: frames, sound, and where the beats fall. */
  sounded(): Sounded {
    const frames = this.listener.finish();
    const lag = this.clickLag ?? this.findClicks();
    if (lag !== null) {
      const clicks = this.clicks.map((click) => ({ ...click, seconds: click.seconds - this.origin }));
      const covered = clickMask(frames.count, frames.hopSeconds, clicks, lag, this.maskReach);
      for (let i = 0; i < covered.length; i++) if (covered[i]) frames.masked[i] = 1;
    }
    return { frames, audio: this.recorder.toArray(), timing: this.timing(lag) };
  }

  private take(samples: Float32Array): void {
    this.recorder.push(samples);
    this.listener.push(samples);
  }

  private follow({ index, f0, levelDb, airinessDb, richness }: LiveFrame): void {
    const seconds = index * this.listener.settings.hopSeconds;
    const { firstBeat } = this;
    if (this.clickLag === undefined && firstBeat !== null && seconds + this.origin >= firstBeat)
      this.clickLag = this.findClicks();
    // What a click covers is no part of the thread.
    if (!this.isClick(seconds)) this.live.push(seconds, f0, levelDb, airinessDb, richness);
  }

  private get origin(): number {
    return (this.firstFrame ?? 0) / this.request.sampleRate;
  }

  /** Half of the longest window that a frame is measured over. */
  private get maskReach(): number {
    const { pitch, levelHops, hop, sampleRate } = this.listener.settings;
    return Math.max(pitch.window / pitch.rate, (levelHops * 2 * hop) / sampleRate) / 2;
  }

  /** How late the count-in's clicks are heard in this recording; null when they are not heard, or nothing beats. */
  private findClicks(): number | null {
    const { firstBeat } = this;
    const { sampleRate } = this.request;
    if (firstBeat === null) return null;
    const countIn = this.clicks.filter((click) => click.seconds < firstBeat - 0.01);
    if (countIn.length < 2) return null;
    const onset = (firstBeat - this.origin) * sampleRate;
    const quiet = fromInt16(this.recorder.head(Math.ceil(onset)));
    return locateClicks(
      quiet,
      sampleRate,
      countIn.map((click) => ({ ...click, seconds: click.seconds - this.origin })),
    );
  }

  private isClick(seconds: number): boolean {
    const { clickLag, maskReach } = this;
    if (clickLag == null) return false;
    const at = seconds + this.origin - clickLag;
    return this.clicks.some(
      (click) => at > click.seconds - maskReach && at < click.seconds + CLICK_SECONDS + maskReach,
    );
  }

  /** Where the beats fall on the take's own time line, measured by the clicks of the count-in where they can be heard. */
  private timing(lag: number | null): Timing {
    const { firstBeat } = this;
    const { roundTrip } = this.request;
    if (firstBeat === null) return { firstBeatSeconds: null, roundTrip, resumed: [] };
    const firstBeatSeconds = firstBeat - this.origin;
    if (lag === null || roundTrip.how === 'exact') return { firstBeatSeconds, roundTrip, resumed: [] };
    return { firstBeatSeconds, roundTrip: { seconds: lag, how: 'measured' }, resumed: [] };
  }
}
