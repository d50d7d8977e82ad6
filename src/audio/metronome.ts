import { clickSamples, type Click } from '@/core/signal';

/** Clicks are handed to the audio clock this far ahead, so that a busy page cannot delay one. */
const HORIZON_SECONDS = 3;
const REFILL_MS = 400;

export interface MetronomeOptions {
  readonly tempo: number;
  readonly beatsPerBar: number;
  /** Audio-clock time of the first click, and how many come before the first beat of the music. */
  readonly firstClick: number;
  readonly countInBeats: number;
  readonly gain: number;
  /** Nodes that hear the clicks: the loudspeaker, and for a simulated room the capture. */
  readonly outputs: readonly AudioNode[];
  readonly onScheduled: (clicks: Click[]) => void;
}

/** Beats by the audio clock. The timer only tops up what has been scheduled; it never sets the time of a click. */
export class Metronome {
  private readonly timer: ReturnType<typeof setInterval>;
  private readonly gain: GainNode;
  private readonly buffers: { accent: AudioBuffer; ordinary: AudioBuffer };
  private next = 0;

  constructor(
    private readonly context: AudioContext,
    private readonly options: MetronomeOptions,
  ) {
    this.gain = new GainNode(context, { gain: options.gain });
    for (const output of options.outputs) this.gain.connect(output);
    this.buffers = { accent: this.buffer(true), ordinary: this.buffer(false) };
    this.refill();
    this.timer = setInterval(() => this.refill(), REFILL_MS);
  }

  get period(): number {
    return 60 / this.options.tempo;
  }

  /** Beat of the music at an audio-clock time, with its fraction: negative during the count-in. */
  beatAt(seconds: number): number {
    return (seconds - this.options.firstClick) / this.period - this.options.countInBeats;
  }

  stop(): void {
    clearInterval(this.timer);
    this.gain.disconnect();
  }

  private buffer(accent: boolean): AudioBuffer {
    const samples = clickSamples(this.context.sampleRate, accent);
    const buffer = this.context.createBuffer(1, samples.length, this.context.sampleRate);
    buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0);
    return buffer;
  }

  private refill(): void {
    const { firstClick, countInBeats, beatsPerBar, onScheduled } = this.options;
    const scheduled: Click[] = [];
    for (;;) {
      const seconds = firstClick + this.next * this.period;
      if (seconds > this.context.currentTime + HORIZON_SECONDS) break;
      const accent = (((this.next - countInBeats) % beatsPerBar) + beatsPerBar) % beatsPerBar === 0;
      const node = new AudioBufferSourceNode(this.context, {
        buffer: accent ? this.buffers.accent : this.buffers.ordinary,
      });
      node.connect(this.gain);
      node.start(seconds);
      scheduled.push({ seconds, accent });
      this.next++;
    }
    if (scheduled.length > 0) onScheduled(scheduled);
  }
}
