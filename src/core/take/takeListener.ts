import { sum } from 'd3-array';
import { fromInt16, type Seconds } from '@/core/base';
import { secondsAt, type Score } from '@/core/music';
import { hearWritten, unfolded } from '@/core/hearing/matching';
import { listeningRange, type Instrument } from '@/core/instruments';
import { hearNotes, ORDINARY_PURITY, type Note, type NoteEvent, type Transition } from '@/core/hearing/notes';
import {
  CLICK_SECONDS,
  clickMask,
  droneFrequencies,
  Listener,
  locateClicks,
  type Click,
  type Frames,
  type LiveFrame,
} from '@/core/hearing/signal';
import type { RoomSound } from '@/core/hearing/room';
import type { Offsets } from '@/core/tuning';
import { hearPartner } from './partner';
import { steadyIn } from './steady';
import { framesWithout } from './without';
import { Recorder } from './recorder';
import { beatsOf, type Timing } from './timing';
import { traceOf, type Trace } from './trace';

/** What has to be known before a take begins. */
export interface TakeRequest {
  readonly score: Score;
  readonly instrument: Instrument;
  readonly sampleRate: number;
  readonly a4: number;
  readonly gainControlled: boolean;
  readonly longestSeconds: number;
  /** Clock time of the first beat of the music; null without a metronome. */
  readonly firstBeat: number | null;
  /** Beat of the music that this is, where it was not begun from the beginning. */
  readonly fromBeat?: number | undefined;
  /** Where notes ought to lie against equal temperament, cents by MIDI number. */
  readonly offsets?: Offsets | undefined;
  /** Pitches of a drone that sounds in the room, Hz; none with headphones. */
  readonly drone?: readonly number[] | undefined;
  /** Someone else plays or hums along. */
  readonly company?: boolean | undefined;
  /** The other one holds a pitch that sounds alone first: it is found there, and then taken out. */
  readonly partner?: boolean | undefined;
  /** How far a tone may move and still be pure: the player's level decides. */
  readonly purity?: { readonly cents: number; readonly decibels: number } | undefined;
  /** How sound gets from the metronome into the recording. */
  readonly roundTrip: Timing['roundTrip'];
}

/** Everything that was heard in a take, and its sound. */
export interface HeardTake {
  readonly durationSeconds: number;
  readonly notes: Note[];
  readonly events: NoteEvent[];
  readonly transitions: Transition[];
  readonly floorDb: number;
  /** How the room answers. */
  readonly room: RoomSound;
  readonly clipped: boolean;
  /** Sound that the device lost, in all. */
  readonly lostSeconds: Seconds;
  readonly trace: Trace;
  readonly timing: Timing;
  /** What a partner was found to hold, Hz; null without one, or where it could not be found. */
  readonly heldHz: number | null;
  /** What sounded all along although nobody told of it, Hz: it was taken out. */
  readonly steadyHz: number[];
  readonly audio: Int16Array<ArrayBuffer>;
}

const LONGEST_DROPOUT_SECONDS = 10;

/** Follows one take from its first sample to its measures. Knows nothing of workers and messages. */
export class TakeListener {
  private readonly instrument: Instrument;
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
    const { instrument } = request;
    this.instrument = instrument;
    this.listener = new Listener(request.sampleRate, listeningRange(instrument, request.a4), {
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
    const { request } = this;
    const frames = this.listener.finish();
    const audio = this.recorder.toArray();
    const lag = this.clickLag ?? this.findClicks();
    if (lag !== null) {
      const clicks = this.clicks.map((click) => ({ ...click, seconds: click.seconds - this.origin }));
      const covered = clickMask(frames.count, frames.hopSeconds, clicks, lag, this.maskReach);
      for (let i = 0; i < covered.length; i++) if (covered[i]) frames.masked[i] = 1;
    }
    const options = {
      a4: request.a4,
      gainControlled: request.gainControlled,
      ...(request.offsets && { offsets: request.offsets }),
      purity: { ...(request.purity ?? ORDINARY_PURITY), vibratoAllowed: request.score.vibrato !== 'none' },
    };
    const timing = this.timing(lag);
    const score = unfolded(request.score);
    const beats = beatsOf(this.timingOfMusic(timing, score), score);
    const hear = (found: Frames, company = false) =>
      hearWritten(found, this.instrument, { ...options, company }, score, beats);
    const range = listeningRange(this.instrument, request.a4);
    const partner = request.partner
      ? hearPartner(
          audio,
          frames,
          hearNotes(frames, this.instrument, options).notes[0],
          range,
          request.sampleRate,
          hear,
        )
      : null;
    const company = (request.company ?? false) && !partner;
    const first = partner?.heard ?? hear(frames, company);
    const known = partner !== null || company || (request.drone ?? []).length > 0;
    const steady = known ? [] : steadyIn(audio, first, request.sampleRate, request.a4);
    const removed = steady.flatMap(({ partials }) => partials);
    const heard =
      removed.length > 0 ? hear(framesWithout(removed, audio, frames, range, request.sampleRate)) : first;
    return {
      durationSeconds: audio.length / request.sampleRate,
      notes: heard.notes,
      events: heard.events,
      transitions: heard.transitions,
      floorDb: heard.room.floorDb,
      room: { decaySeconds: heard.room.decaySeconds, spreadDb: heard.room.spreadDb },
      clipped: frames.clipped.some((c) => c === 1),
      lostSeconds: sum(frames.lost.map(({ startSeconds, endSeconds }) => endSeconds - startSeconds)),
      trace: traceOf(heard.frames, request.a4),
      timing,
      heldHz: partner?.heldHz ?? null,
      steadyHz: steady.map(({ hz }) => hz),
      audio,
    };
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

  /** The same with the first beat of the whole music, whichever beat the take began with. */
  private timingOfMusic(timing: Timing, score: Score): Timing {
    const { firstBeatSeconds } = timing;
    const { fromBeat = 0 } = this.request;
    return firstBeatSeconds === null
      ? timing
      : { ...timing, firstBeatSeconds: firstBeatSeconds - secondsAt(score, fromBeat) };
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
