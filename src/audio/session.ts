import type { Midi } from '@/core/base';
import { beatsToSeconds, expectsPartner, pulsesFrom, type Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import type { Click } from '@/core/hearing/signal';
import type { Player, RoomName } from '@/core/lab';
import type { Timing } from '@/core/take';
import { midiToHertz, type Offsets } from '@/core/tuning';
import { AnalysisClient, type Result, type TakeRequestMessage } from '@/worker';
import { closeContext, captureIn, openContext } from './context';
import { Drone, type DroneSound } from './drone';
import { Metronome } from './metronome';
import { openMicrophone } from './microphone';
import { openRecording } from './recording';
import { silentSource } from './silent';
import { openSimulatedPlayer } from './simulated';
import type { SoundSource } from './source';
import { SOUND_STOPPED, watchSound } from './watchSound';

/** Where the sound of a take is to come from. */
export type SourceChoice =
  | { readonly kind: 'microphone' }
  | {
      readonly kind: 'simulated';
      readonly player: Player;
      readonly seed: number;
      readonly heardIn?: RoomName | undefined;
    }
  | { readonly kind: 'file'; readonly file: File }
  /** An exercise without the instrument. */
  | { readonly kind: 'none' };

export interface MetronomeChoice {
  readonly sounds: boolean;
  readonly subdivision: number;
  readonly accents: boolean;
}

export interface DroneChoice {
  readonly pitches: readonly number[];
  readonly sound: DroneSound;
  readonly volume: number;
}

export interface SessionOptions {
  /** With its repeats written out. */
  readonly score: Score;
  readonly instrument: Instrument;
  /** Beat of the music to begin with, and what of the score is left from there. */
  readonly fromBeat: number;
  readonly rest: Score;
  readonly a4: number;
  /** Where notes ought to lie against equal temperament. */
  readonly offsets: Offsets;
  readonly purity: { readonly cents: number; readonly decibels: number };
  readonly source: SourceChoice;
  /** Null: nothing beats, the player leads. */
  readonly metronome: MetronomeChoice | null;
  readonly drone: DroneChoice | null;
  /** Nothing of metronome and drone reaches the microphone. */
  readonly headphones: boolean;
  /** Loudspeaker to microphone as it was measured on a device, by the device's name. */
  readonly roundTrips: Readonly<Record<string, number>>;
  /** The count-in waits for `beginBeat`. */
  readonly waits: boolean;
  /** New frames, in rows of LIVE_STRIDE values. */
  readonly onLive: (frames: Float32Array) => void;
  /** Sound so far, for keeping. */
  readonly onSound: (audio: Int16Array, kept: KeptBeside) => void;
  /** The take is over and measured. */
  readonly onResult: (result: Result, source: SoundSource, sampleRate: number) => void;
  readonly onProblem: (problem: string) => void;
  /** The sound stopped without having been asked to. The session listens to nothing any more, and is to be finished or cancelled. */
  readonly onStopped: (reason: string) => void;
}

/** What has to be kept beside the sound, so that it can be measured later. */
export interface KeptBeside {
  readonly request: TakeRequestMessage;
  readonly origin: number;
  readonly clicks: readonly Click[];
  readonly source: Pick<SoundSource, 'kind' | 'name' | 'processing'>;
}

/** With nobody at it: longer than any dose. */
const LONGEST_SECONDS = 62 * 60;
const FIRST_CLICK_IN = 0.35;
const METRONOME_GAIN = 0.35;
/** The simulated player's room: how loud the loudspeaker comes back into the microphone. */
const ROOM_BLEED = 0.12;
/** Without a count-in to measure it by: what loudspeaker and microphone take on most devices. */
const ASSUMED_INPUT_SECONDS = 0.02;

/** One stretch of playing: source, metronome, drone, capture and analysis, from start to result. */
export class Session {
  private closed = false;
  private metronome: Metronome | null = null;
  private drone: Drone | null = null;
  private readonly clicks: Click[] = [];
  private silent: Click[] = [];
  private audible = true;
  private hasStopped = false;
  private unwatch: () => void = () => undefined;
  private request: TakeRequestMessage;

  private constructor(
    private readonly options: SessionOptions,
    private readonly context: AudioContext,
    private readonly client: AnalysisClient,
    private readonly source: SoundSource,
    private readonly capture: AudioWorkletNode,
  ) {
    this.request = this.requestFor();
  }

  /**
   * Opens the source and starts to listen. Call it from a touch or a key, or the browser will keep the sound back.
   * @throws SourceProblem with words for the player.
   */
  static async start(options: SessionOptions): Promise<Session> {
    const context = await openContext();
    const client = new AnalysisClient();
    let source: SoundSource | null = null;
    try {
      source = await openSource(options, context, client);
      const session = new Session(options, context, client, source, captureIn(context));
      session.listen();
      return session;
    } catch (error) {
      source?.close();
      client.close();
      closeContext(context);
      throw error;
    }
  }

  private listen(): void {
    const { client, source, capture, context, options } = this;
    const samples = new MessageChannel();
    client.listen(this.request, samples.port2, {
      onLive: options.onLive,
      onSound: (audio) => options.onSound(audio, this.beside),
      onResult: (result) => {
        this.close();
        options.onResult(result, source, context.sampleRate);
      },
      onProblem: (problem) => {
        this.close();
        options.onProblem(problem);
      },
    });
    capture.port.postMessage({ out: samples.port1 }, [samples.port1]);
    if (options.drone) this.drone = new Drone(context, { ...options.drone, outputs: this.outputs() });
    source.onEnd((reason) => (reason === null ? this.finish() : this.stopped(reason)));
    this.unwatch = watchSound(context, () => this.stopped(SOUND_STOPPED));
    if (options.metronome && source.followsBeat) {
      if (options.waits) source.start(context, capture, null);
      else source.start(context, capture, this.beginBeat());
    } else source.start(context, capture, null);
  }

  /** Sets the metronome going, count-in first. @returns audio-clock time of the first beat that is played. */
  beginBeat(): number {
    const { options, context, client } = this;
    const { score, metronome } = options;
    const firstClick = context.currentTime + FIRST_CLICK_IN;
    const countIn = Math.max(score.countInBeats, options.fromBeat > 0 ? 2 : 0);
    const firstBeat = firstClick + beatsToSeconds(score, countIn);
    client.setFirstBeat(firstBeat);
    this.request = { ...this.request, firstBeat };
    // Its first clicks are planned while it is made: whether they are heard has to be known before.
    this.audible = metronome?.sounds ?? false;
    this.metronome = new Metronome(context, {
      tempo: score.tempo ?? 60,
      pulses: pulsesFrom(score, options.fromBeat - countIn),
      firstBeat: options.fromBeat - countIn,
      fromBeat: options.fromBeat,
      firstClick,
      subdivision: metronome?.subdivision ?? 1,
      accents: metronome?.accents ?? true,
      gain: METRONOME_GAIN,
      outputs: this.outputs(),
      onScheduled: (clicks) => this.scheduled(clicks),
    });
    this.metronome.setSounding(this.audible);
    return firstBeat;
  }

  /** The metronome has been set going. */
  get isBeating(): boolean {
    return this.metronome !== null;
  }

  /** Beat of the music now, before the first one during the count-in; null without a metronome. */
  get beat(): number | null {
    return this.metronome ? this.metronome.beatAt(this.context.currentTime) : null;
  }

  setMetronomeSounding(sounding: boolean): void {
    this.metronome?.setSounding(sounding);
    const { currentTime } = this.context;
    const turnedOn = sounding && !this.audible;
    this.audible = sounding;
    if (!turnedOn) return;
    const planned = this.silent.filter((click) => click.seconds > currentTime);
    this.silent = [];
    this.scheduled(planned);
  }

  /** What is seen only is not in the recording either; clicks that have been planned may still become audible. */
  private scheduled(clicks: readonly Click[]): void {
    if (!this.audible) {
      this.silent.push(...clicks);
      return;
    }
    this.clicks.push(...clicks);
    this.client.addClicks([...clicks]);
  }

  setDroneSounding(sounding: boolean): void {
    this.drone?.setSounding(sounding);
  }

  /** The drone leaves out the player's own note, in whatever octave. @param sounding undefined: none. */
  leaveOut(sounding: Midi | undefined): void {
    this.drone?.leaveOut(sounding === undefined ? null : midiToHertz(sounding, this.options.a4));
  }

  get hasDrone(): boolean {
    return this.drone !== null;
  }

  /** Seconds since the sound at a moment of the take was heard, by the audio clock. */
  ageOf(takeSeconds: number): number {
    return this.context.currentTime - this.client.takeOrigin - takeSeconds;
  }

  /** Ends the stretch; its result comes through `onResult`. */
  finish(interruption: string | null = null): void {
    if (!this.closed) this.client.finish(interruption);
  }

  /** Gives the stretch up. */
  cancel(): void {
    this.close();
  }

  private get beside(): KeptBeside {
    const { kind, name, processing } = this.source;
    return {
      request: this.request,
      origin: this.client.takeOrigin,
      clicks: this.clicks,
      source: { kind, name, processing },
    };
  }

  private requestFor(): TakeRequestMessage {
    const { options, context, source } = this;
    return {
      sampleRate: context.sampleRate,
      a4: options.a4,
      offsets: [...options.offsets],
      score: options.score,
      instrument: options.instrument,
      gainControlled: source.processing.includes('gain-control'),
      longestSeconds: LONGEST_SECONDS,
      firstBeat: null,
      fromBeat: options.fromBeat,
      drone: options.drone && !options.headphones ? [...options.drone.pitches] : [],
      // Where single notes are known to be shared, only those are.
      company:
        options.score.company &&
        options.score.drone.length === 0 &&
        !options.score.notes.some((note) => note.company),
      partner: expectsPartner(options.score),
      purity: { ...options.purity },
      roundTrip: this.roundTrip(),
    };
  }

  private roundTrip(): Timing['roundTrip'] {
    const { source, context, options } = this;
    if (source.kind === 'simulated') return { seconds: 0, how: 'exact' };
    const known = options.roundTrips[source.name];
    if (known !== undefined) return { seconds: known, how: 'device' };
    return {
      seconds: context.baseLatency + (context.outputLatency || 0) + ASSUMED_INPUT_SECONDS,
      how: 'assumed',
    };
  }

  /** Who hears metronome and drone: the loudspeaker, and with a simulated player the room. */
  private outputs(): AudioNode[] {
    const outputs: AudioNode[] = [this.context.destination];
    if (this.source.kind === 'simulated' && !this.options.headphones) {
      const bleed = new GainNode(this.context, { gain: ROOM_BLEED });
      bleed.connect(this.capture);
      outputs.push(bleed);
    }
    return outputs;
  }

  private stopped(reason: string): void {
    if (this.closed || this.hasStopped) return;
    this.hasStopped = true;
    this.options.onStopped(reason);
  }

  private close(): void {
    if (this.closed) return;
    this.closed = true;
    this.unwatch();
    this.metronome?.stop();
    this.drone?.stop();
    this.source.close();
    this.capture.disconnect();
    this.client.close();
    closeContext(this.context);
  }
}

function openSource(
  options: SessionOptions,
  context: AudioContext,
  client: AnalysisClient,
): Promise<SoundSource> {
  const { source, rest, instrument, a4 } = options;
  if (source.kind === 'none') return Promise.resolve(silentSource());
  if (source.kind === 'microphone') return openMicrophone();
  if (source.kind === 'file') return openRecording(context, source.file);
  return openSimulatedPlayer({
    client,
    score: rest,
    instrument,
    a4,
    player: source.player,
    seed: source.seed,
    heardIn: source.heardIn,
    sampleRate: context.sampleRate,
  });
}
