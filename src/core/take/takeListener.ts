import type { Timing } from '@/core/assess';
import type { Score } from '@/core/exercises';
import { findInstrument, soundingRange, type Instrument } from '@/core/instruments';
import { hearNotes, ORDINARY_PURITY, type Note, type NoteEvent } from '@/core/notes';
import { clickMask, Listener, locateClicks, type Click, type LiveFrame } from '@/core/signal';
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
const COUNT_IN_MARGIN = 0.6;

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

  constructor(private readonly request: TakeRequest) {
    const instrument = findInstrument(request.score.instrumentId);
    if (!instrument) throw new Error(`there is no instrument "${request.score.instrumentId}"`);
    this.instrument = instrument;
    this.listener = new Listener(request.sampleRate, soundingRange(instrument, request.a4), (frame) => this.follow(frame));
  }

  /** @param frame place of the first sample on the audio clock, in samples. */
  push(frame: number, samples: Float32Array): void {
    this.firstFrame ??= frame;
    // A dropout in the capture is silence, not a shorter take.
    const missing = frame - this.firstFrame - this.recorder.length;
    if (missing > 0 && missing < this.request.sampleRate) this.take(new Float32Array(missing));
    this.take(samples);
  }

  addClicks(clicks: readonly Click[]): void {
    this.clicks.push(...clicks);
  }

  /** The live frames since the last call, and whether a tone is sounding now. */
  takeLive(): { frames: Float32Array<ArrayBuffer>; sounding: boolean } {
    const frames = Float32Array.from(this.live);
    this.live = [];
    return { frames, sounding: this.soundingFor * this.listener.settings.hopSeconds > BLIP_SECONDS };
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
    const origin = (this.firstFrame ?? 0) / request.sampleRate;
    const clicks = this.clicks.map((click) => ({ ...click, seconds: click.seconds - origin }));
    const timing = this.timing(clicks, origin, audio);
    if (clicks.length > 0 && timing.heard) {
      const { settings } = frames;
      const reach = Math.max(settings.pitch.window * settings.pitch.decimation, settings.levelHops * 2 * settings.hop) / 2 / settings.sampleRate;
      frames.masked.set(clickMask(frames.count, frames.hopSeconds, clicks, timing.roundTrip.seconds, reach));
    }
    const heard = hearNotes(frames, this.instrument, {
      a4: request.a4,
      gainControlled: request.gainControlled,
      purity: { ...ORDINARY_PURITY, vibratoAllowed: request.score.vibrato !== 'none' },
    });
    return {
      durationSeconds: audio.length / request.sampleRate,
      notes: heard.notes,
      events: heard.events,
      floorDb: heard.floorDb,
      clipped: frames.clipped.some((c) => c === 1),
      trace: traceOf(frames, request.a4),
      timing: { firstBeatSeconds: timing.firstBeatSeconds, roundTrip: timing.roundTrip },
      audio,
    };
  }

  private take(samples: Float32Array): void {
    this.recorder.push(samples);
    this.listener.push(samples);
  }

  private follow({ index, f0, levelDb, airinessDb }: LiveFrame): void {
    this.live.push(index * this.listener.settings.hopSeconds, f0, levelDb, airinessDb);
    const hop = this.listener.settings.hopSeconds;
    // The room is learnt from what is heard first; a room that grows louder is followed slowly.
    this.quietest = Math.min(levelDb, this.quietest + hop * 0.5);
    const sounds = f0 > 0 && levelDb > Math.max(-72, this.quietest + SOUNDING_DB);
    this.soundingFor = sounds ? this.soundingFor + 1 : 0;
    if (this.soundingFor * hop > BLIP_SECONDS) this.silentFor = 0;
    else this.silentFor++;
    if (this.soundingFor * hop >= LEAST_TONE_SECONDS) this.toneHeard = true;
  }

  /** Where the beats fall on the take's own time line, measured by the clicks of the count-in where they can be heard. */
  private timing(clicks: readonly Click[], origin: number, audio: Int16Array): Timing & { heard: boolean } {
    const { firstBeat, roundTrip, sampleRate } = this.request;
    if (firstBeat === null) return { firstBeatSeconds: null, roundTrip, heard: false };
    const firstBeatSeconds = firstBeat - origin;
    const countIn = clicks.filter((click) => click.seconds < firstBeatSeconds - 0.01);
    const until = Math.min(audio.length, Math.ceil((firstBeatSeconds + COUNT_IN_MARGIN) * sampleRate));
    const quiet = Float32Array.from(audio.subarray(0, Math.max(0, until)), (x) => x / 32_768);
    const lag = locateClicks(quiet, sampleRate, countIn);
    if (lag === null) return { firstBeatSeconds, roundTrip, heard: false };
    const how = roundTrip.how === 'exact' ? 'exact' : 'measured';
    return { firstBeatSeconds, roundTrip: { seconds: how === 'exact' ? roundTrip.seconds : lag, how }, heard: true };
  }
}

