/** Plays a kept take. One at a time. */
export class Playback {
  private context: AudioContext | null = null;

  /** Starts from the beginning; `onEnd` is called when it has been heard out or stopped. */
  play(samples: Int16Array | Float32Array, sampleRate: number, onEnd: () => void): void {
    this.stop();
    const context = new AudioContext();
    const buffer = context.createBuffer(1, Math.max(1, samples.length), sampleRate);
    buffer.copyToChannel(
      samples instanceof Int16Array
        ? Float32Array.from(samples, (x) => x / 32_768)
        : new Float32Array(samples),
      0,
    );
    const node = new AudioBufferSourceNode(context, { buffer });
    node.connect(context.destination);
    node.onended = () => {
      if (this.context === context) this.context = null;
      void context.close();
      onEnd();
    };
    node.start();
    this.context = context;
  }

  stop(): void {
    const context = this.context;
    this.context = null;
    if (context && context.state !== 'closed') void context.close();
  }
}
