import { closeContext } from './context';
import { fromInt16 } from '@/core/base';

/** Plays a kept take. One at a time. */
export class Playback {
  private context: AudioContext | null = null;

  /** Starts from the beginning, over and over when it is to loop; `onEnd` is called when it has been heard out or stopped. */
  play(samples: Int16Array | Float32Array, sampleRate: number, onEnd: () => void, loop = false): void {
    this.stop();
    const context = new AudioContext();
    const buffer = context.createBuffer(1, Math.max(1, samples.length), sampleRate);
    buffer.copyToChannel(samples instanceof Int16Array ? fromInt16(samples) : new Float32Array(samples), 0);
    const node = new AudioBufferSourceNode(context, { buffer, loop });
    node.connect(context.destination);
    node.onended = () => {
      if (this.context === context) this.context = null;
      closeContext(context);
      onEnd();
    };
    node.start();
    this.context = context;
  }

  stop(): void {
    const context = this.context;
    this.context = null;
    if (context) closeContext(context);
  }
}
