import type { Timing } from '@/core/assess';
import type { Score } from '@/core/exercises';
import { findInstrument, listeningRange, type Instrument } from '@/core/instruments';
import { hearNotes, ORDINARY_PURITY, type Note, type NoteEvent } from '@/core/notes';
import {
  CLICK_SECONDS,
  clickMask,
  droneFrequencies,
  Listener,
  locateClicks,
  type Click,
  type LiveFrame,
} from '@/core/signal';
import type { Offsets } from '@/core/tuning';
import { Recorder } from './recorder';
import type { Trace } from './take';
import { traceOf } from './trace';

/** What has to be known before a take begins. */
export interface TakeRequest {
  readonly score: Score;
  readonly sampleRate: number;
  readonly a4: number;
  readonly gainControlled: boolean;
  /** Ends the take after this much silence once a note has been heard; null never. */
  readonly silenceSeconds: number | null;
  readonly longestSeconds: number;
  /** Clock time of the first beat of the music; null without a metronome. */
  readonly firstBeat: number | null;
  /** Where notes ought to lie against equal temperament, cents by MIDI number. */
  readonly offsets?: Offsets | undefined;
  /** Pitches of a drone that sounds in the room, Hz; none with headphones. */
  readonly drone?: readonly number[] | undefined;
  /** Someone else plays or hums along. */
  readonly company?: boolean | undefined;
  /** How sound gets from the metronome into the recording. */
  readonly roundTrip: Timing['roundTrip'];
}

/** Everything that was heard in a take, and its sound. */
export interface HeardTake {
  readonly durationSeconds: number;
  readonly notes: Note[];
  readonly events: NoteEvent[];
  readonly floorDb: number;
  readonly clipped: boolean;
  readonly trace: Trace;
  readonly timing: Timing;
  readonly audio: Int16Array<ArrayBuffer>;
}

/** A tone has to last this long before silence can end the take: a cough or a click does not start one. */
const LEAST_TONE_SECONDS = 0.35;
/** This far over the quietest that has been heard counts as sounding. */
const SOUNDING_DB = 9;
/** Sounds shorter than this in the middle of silence (clicks) do not break it. */
const BLIP_SECONDS = 0.09;
const LONGEST_DROPOUT_SECONDS = 10;

/** Follows one take from its first sample to its measures. Knows nothing of workers and messages. */
export class TakeListener {
  private readonly instrument: Instrument;
  private readonly listener: Listener;
  private readonly recorder = new Recorder();
  private readonly clicks: Click[] = [];
  private firstFrame: number | null = null;
  private live: number[] = [];
  private quietest = Infinity;
  private soundingFor = 0;
  private silentFor = 0;
  private toneHeard = false;
  /** How late clicks are heard; null when they are not, undefined until the count-in is over. */
  private clickLag: number | null | undefined = undefined;

  constructor(private readonly request: TakeRequest) {
    const instrument = findInstrument(request.score.instrumentId);
    if (!instrument) throw new Error(`there is no instrument "${request.score.instrumentId}"`);
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

  addClicks(clicks: readonly Click[]): void {
    this.clicks.push(...clicks);
  }

  /** The live frames since the last call, whether a tone is sounding now, and when the take began on the audio clock. */
  takeLive(): { frames: Float32Array<ArrayBuffer>; sounding: boolean; origin: number } {
    const frames = Float32Array.from(this.live);
    this.live = [];
    const sounding = this.soundingFor * this.listener.settings.hopSeconds > BLIP_SECONDS;
    return { frames, sounding, origin: this.origin };
  }

  /** Why the take should end now, if it should. */
  get over(): 'silence' | 'length' | null {
    const { silenceSeconds, longestSeconds, sampleRate } = this.request;
    if (this.recorder.length >= longestSeconds * sampleRate) return 'length';
    const silent = this.silentFor * this.listener.settings.hopSeconds;
    return silenceSeconds !== null && this.toneHeard && silent >= silenceSeconds ? 'silence' : null;
  }

  finish(): HeardTake {
    const { request } = this;
    const frames = this.listener.finish();
    const audio = this.recorder.toArray();
    const lag = this.clickLag ?? this.findClicks();
    if (lag !== null) {
      const clicks = this.clicks.map((click) => ({ ...click, seconds: click.seconds - this.origin }));
      frames.masked.set(clickMask(frames.count, frames.hopSeconds, clicks, lag, this.maskReach));
    }
    const heard = hearNotes(frames, this.instrument, {
      a4: request.a4,
      gainControlled: request.gainControlled,
      company: request.company ?? false,
      ...(request.offsets && { offsets: request.offsets }),
      purity: { ...ORDINARY_PURITY, vibratoAllowed: request.score.vibrato !== 'none' },
    });
    return {
      durationSeconds: audio.length / request.sampleRate,
      notes: heard.notes,
      events: heard.events,
      floorDb: heard.floorDb,
      clipped: frames.clipped.some((c) => c === 1),
      trace: traceOf(frames, request.a4),
      timing: this.timing(lag),
      audio,
    };
  }

  private take(samples: Float32Array): void {
    this.recorder.push(samples);
    this.listener.push(samples);
  }

  private follow({ index, f0, levelDb, airinessDb }: LiveFrame): void {
    const hop = this.listener.settings.hopSeconds;
    const seconds = index * hop;
    const { firstBeat } = this.request;
    if (this.clickLag === undefined && firstBeat !== null && seconds + this.origin >= firstBeat)
      this.clickLag = this.findClicks();
    // What a click covers is no part of the thread.
    if (this.isClick(seconds)) return;
    this.live.push(seconds, f0, levelDb, airinessDb);
    // The room is learnt from what is heard first; a room that grows louder is followed slowly.
    this.quietest = Math.min(levelDb, this.quietest + hop * 0.5);
    const sounds = f0 > 0 && levelDb > Math.max(-72, this.quietest + SOUNDING_DB);
    this.soundingFor = sounds ? this.soundingFor + 1 : 0;
    if (this.soundingFor * hop > BLIP_SECONDS) this.silentFor = 0;
    else this.silentFor++;
    if (this.soundingFor * hop >= LEAST_TONE_SECONDS) this.toneHeard = true;
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
    const { firstBeat, sampleRate } = this.request;
    if (firstBeat === null) return null;
    const countIn = this.clicks.filter((click) => click.seconds < firstBeat - 0.01);
    if (countIn.length < 2) return null;
    const onset = (firstBeat - this.origin) * sampleRate;
    const quiet = Float32Array.from(this.recorder.head(Math.ceil(onset)), (x) => x / 32_768);
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
    const { firstBeat, roundTrip } = this.request;
    if (firstBeat === null) return { firstBeatSeconds: null, roundTrip };
    const firstBeatSeconds = firstBeat - this.origin;
    if (lag === null || roundTrip.how === 'exact') return { firstBeatSeconds, roundTrip };
    return { firstBeatSeconds, roundTrip: { seconds: lag, how: 'measured' } };
  }
}
