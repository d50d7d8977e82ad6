import type { Pulse } from '@/core/music';
import { clickSamples, type Click } from '@/core/hearing/signal';

/** Clicks are handed to the audio clock this far ahead, so that a busy page cannot delay one. */
const HORIZON_SECONDS = 3;
const REFILL_MS = 400;
/** Clicks between the beats, against those on them. */
const SUBDIVISION_GAIN = 0.35;

export interface MetronomeOptions {
  /** Crotchets a minute. */
  readonly tempo: number;
  /** The beats, from the first that is counted in. */
  readonly pulses: Iterator<Pulse, unknown>;
  /** Audio-clock time of the first click, and where in the music it falls: before what is played, by the count-in. */
  readonly firstClick: number;
  readonly firstBeat: number;
  /** Where the music begins: only from there on beats are divided. */
  readonly fromBeat: number;
  /** Clicks a beat, 1 … 4; the count-in has one. */
  readonly subdivision: number;
  /** The first beat of a bar sounds higher. */
  readonly accents: boolean;
  readonly gain: number;
  /** Nodes that hear the clicks: the loudspeaker, and for a simulated room the capture. */
  readonly outputs: readonly AudioNode[];
  readonly onScheduled: (clicks: Click[]) => void;
}

/** Beats by the audio clock. The timer only tops up what has been scheduled; it never sets the time of a click. */
export class Metronome {
  private readonly timer: ReturnType<typeof setInterval>;
  private readonly gain: GainNode;
  private readonly soft: GainNode;
  private readonly buffers: { accent: AudioBuffer; ordinary: AudioBuffer };
  private next: Pulse | null;

  constructor(
    private readonly context: AudioContext,
    private readonly options: MetronomeOptions,
  ) {
    this.gain = new GainNode(context, { gain: options.gain });
    this.soft = new GainNode(context, { gain: SUBDIVISION_GAIN });
    this.soft.connect(this.gain);
    for (const output of options.outputs) this.gain.connect(output);
    this.next = this.pulse();
    this.buffers = { accent: this.buffer(true), ordinary: this.buffer(false) };
    this.refill();
    this.timer = setInterval(() => this.refill(), REFILL_MS);
  }

  /** Seconds a crotchet. */
  get period(): number {
    return 60 / this.options.tempo;
  }

  /** Beat of the music at an audio-clock time, with its fraction: before `fromBeat` during the count-in. */
  beatAt(seconds: number): number {
    const { firstClick, firstBeat } = this.options;
    return (seconds - firstClick) / this.period + firstBeat;
  }

  /** Whether the clicks are heard. */
  setSounding(sounding: boolean): void {
    this.gain.gain.setTargetAtTime(sounding ? this.options.gain : 0, this.context.currentTime, 0.01);
  }

  stop(): void {
    clearInterval(this.timer);
    this.gain.disconnect();
    this.soft.disconnect();
  }

  private pulse(): Pulse | null {
    const { done, value } = this.options.pulses.next();
    return done ? null : value;
  }

  private buffer(accent: boolean): AudioBuffer {
    const samples = clickSamples(this.context.sampleRate, accent);
    const buffer = this.context.createBuffer(1, samples.length, this.context.sampleRate);
    buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0);
    return buffer;
  }

  private refill(): void {
    const { firstClick, firstBeat, onScheduled } = this.options;
    const scheduled: Click[] = [];
    for (; this.next; this.next = this.pulse()) {
      const seconds = firstClick + (this.next.beat - firstBeat) * this.period;
      if (seconds > this.context.currentTime + HORIZON_SECONDS) break;
      scheduled.push(...this.beat(this.next, seconds));
    }
    if (scheduled.length > 0) onScheduled(scheduled);
  }

  /** The click of a beat, and those that divide it. */
  private beat({ beat, beats, number }: Pulse, seconds: number): Click[] {
    const { fromBeat, accents, subdivision } = this.options;
    const accent = accents && number === 1;
    this.sound(seconds, accent, this.gain);
    const clicks: Click[] = [{ seconds, accent }];
    for (let part = 1; part < subdivision && beat >= fromBeat; part++) {
      const at = seconds + (part * beats * this.period) / subdivision;
      this.sound(at, false, this.soft);
      clicks.push({ seconds: at, accent: false });
    }
    return clicks;
  }

  private sound(seconds: number, accent: boolean, into: AudioNode): void {
    const node = new AudioBufferSourceNode(this.context, {
      buffer: accent ? this.buffers.accent : this.buffers.ordinary,
    });
    node.connect(into);
    node.start(seconds);
  }
}
