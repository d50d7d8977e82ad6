import type { Score } from '@/core/exercises';
import type { Player } from '@/core/simulate';
import type { Offsets } from '@/core/tuning';
import { AnalysisClient, type Result } from '@/worker';
import { Metronome } from './metronome';
import { openMicrophone } from './microphone';
import { openRecording } from './recording';
import { openSimulatedPlayer } from './simulated';
import type { SoundSource } from './source';

/** Where the sound of a take is to come from. */
export type SourceChoice =
  | { readonly kind: 'microphone' }
  | { readonly kind: 'simulated'; readonly player: Player; readonly seed: number }
  | { readonly kind: 'file'; readonly file: File };

export interface SessionOptions {
  readonly score: Score;
  readonly a4: number;
  /** Where notes ought to lie against equal temperament. */
  readonly offsets: Offsets;
  readonly source: SourceChoice;
  readonly metronomeSound: boolean;
  /** New frames, in rows of LIVE_STRIDE values. */
  readonly onLive: (frames: Float32Array, sounding: boolean) => void;
  /** The take is over and measured. */
  readonly onResult: (result: Result, source: SoundSource, sampleRate: number) => void;
  readonly onProblem: (problem: string) => void;
}

const WORKLET_URL = '/capture-worklet.js';
const SILENCE_SECONDS = 1.4;
const LONGEST_SECONDS = 15 * 60;
const FIRST_CLICK_IN = 0.35;
const METRONOME_GAIN = 0.35;
/** The simulated player's room: how loud the loudspeaker comes back into the microphone. */
const ROOM_BLEED = 0.12;
/** Without a count-in to measure it by: what loudspeaker and microphone take on most devices. */
const ASSUMED_INPUT_SECONDS = 0.02;

/** One take being played: source, metronome, capture and analysis, from start to result. */
export class Session {
  private closed = false;

  private constructor(
    private readonly context: AudioContext,
    private readonly client: AnalysisClient,
    private readonly source: SoundSource,
    private readonly metronome: Metronome | null,
    private readonly capture: AudioWorkletNode,
  ) {}

  /**
   * Opens the source and starts to listen. Call it from a touch or a key, or the browser will keep the sound back.
   * @throws SourceProblem with words for the player.
   */
  static async start(options: SessionOptions): Promise<Session> {
    const context = new AudioContext({ latencyHint: 'interactive' });
    const client = new AnalysisClient();
    let source: SoundSource | null = null;
    try {
      await context.resume();
      await context.audioWorklet.addModule(WORKLET_URL);
      source = await openSource(options, context, client);
      return Session.run(options, context, client, source);
    } catch (error) {
      source?.close();
      client.close();
      void context.close();
      throw error;
    }
  }

  private static run(
    options: SessionOptions,
    context: AudioContext,
    client: AnalysisClient,
    source: SoundSource,
  ): Session {
    const { score, a4 } = options;
    const capture = new AudioWorkletNode(context, 'gold-reed-capture', { numberOfOutputs: 0 });
    const beats = score.tempo !== null && source.followsBeat;
    const firstClick = context.currentTime + FIRST_CLICK_IN;
    const firstBeat = beats ? firstClick + (score.countInBeats * 60) / (score.tempo ?? 60) : null;
    const samples = new MessageChannel();
    client.listen(
      {
        sampleRate: context.sampleRate,
        a4,
        offsets: [...options.offsets],
        score,
        gainControlled: source.processing.includes('gain-control'),
        silenceSeconds: source.kind === 'file' ? null : SILENCE_SECONDS,
        longestSeconds: LONGEST_SECONDS,
        firstBeat,
        roundTrip: roundTripOf(source, context),
      },
      samples.port2,
      {
        onLive: options.onLive,
        onResult: (result) => {
          session.close();
          options.onResult(result, source, context.sampleRate);
        },
        onProblem: (problem) => {
          session.close();
          options.onProblem(problem);
        },
      },
    );
    capture.port.postMessage({ out: samples.port1 }, [samples.port1]);
    const metronome = beats ? startMetronome(options, context, client, source, capture, firstClick) : null;
    const session = new Session(context, client, source, metronome, capture);
    source.onEnd((interruption) => session.finish(interruption));
    source.start(context, capture, firstBeat);
    document.addEventListener('visibilitychange', session.onVisibility);
    return session;
  }

  /** Beat of the music now, negative during the count-in; null without a metronome. */
  get beat(): number | null {
    return this.metronome ? this.metronome.beatAt(this.context.currentTime) : null;
  }

  /** Seconds since the sound at a moment of the take was heard, by the audio clock. */
  ageOf(takeSeconds: number): number {
    return this.context.currentTime - this.client.takeOrigin - takeSeconds;
  }

  /** Ends the take; its result comes through `onResult`. */
  finish(interruption: string | null = null): void {
    if (!this.closed) this.client.finish(interruption);
  }

  /** Gives the take up. */
  cancel(): void {
    this.close();
  }

  private readonly onVisibility = () => {
    if (document.hidden)
      this.finish('The page was hidden, so the take ended there; what was heard until then is kept.');
  };

  private close(): void {
    if (this.closed) return;
    this.closed = true;
    document.removeEventListener('visibilitychange', this.onVisibility);
    this.metronome?.stop();
    this.source.close();
    this.capture.disconnect();
    this.client.close();
    void this.context.close();
  }
}

function openSource(
  options: SessionOptions,
  context: AudioContext,
  client: AnalysisClient,
): Promise<SoundSource> {
  const { source, score, a4 } = options;
  if (source.kind === 'microphone') return openMicrophone();
  if (source.kind === 'file') return openRecording(context, source.file);
  return openSimulatedPlayer({
    client,
    score,
    a4,
    player: source.player,
    seed: source.seed,
    sampleRate: context.sampleRate,
  });
}

function roundTripOf(
  source: SoundSource,
  context: AudioContext,
): { seconds: number; how: 'exact' | 'assumed' } {
  if (source.kind === 'simulated') return { seconds: 0, how: 'exact' };
  return {
    seconds: context.baseLatency + (context.outputLatency || 0) + ASSUMED_INPUT_SECONDS,
    how: 'assumed',
  };
}

function startMetronome(
  { score, metronomeSound }: SessionOptions,
  context: AudioContext,
  client: AnalysisClient,
  source: SoundSource,
  capture: AudioNode,
  firstClick: number,
): Metronome {
  const outputs: AudioNode[] = [context.destination];
  if (source.kind === 'simulated') {
    const bleed = new GainNode(context, { gain: ROOM_BLEED });
    bleed.connect(capture);
    outputs.push(bleed);
  }
  return new Metronome(context, {
    tempo: score.tempo ?? 60,
    beatsPerBar: score.beatsPerBar,
    countInBeats: score.countInBeats,
    firstClick,
    gain: metronomeSound ? METRONOME_GAIN : 0,
    outputs,
    onScheduled: (clicks) => client.addClicks(clicks),
  });
}
