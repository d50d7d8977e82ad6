/** For tests: as much of the browser's sound as the metronome, the drone and a session use, with a clock that is set. */

export class FakeParam {
  readonly targets: { value: number; at: number }[] = [];
  constructor(public value: number) {}
  setTargetAtTime(value: number, at: number): void {
    this.targets.push({ value, at });
    this.value = value;
  }
  cancelScheduledValues(): void {
    this.targets.length = 0;
  }
}

export class FakeNode {
  readonly outputs: unknown[] = [];
  connect<N>(node: N): N {
    this.outputs.push(node);
    return node;
  }
  disconnect(): void {
    this.outputs.length = 0;
  }
}

export class FakeGain extends FakeNode {
  readonly gain: FakeParam;
  constructor(_context: unknown, { gain = 1 }: { gain?: number } = {}) {
    super();
    this.gain = new FakeParam(gain);
  }
}

/** Everything that makes sound by itself: buffers, oscillators, constants. */
export class FakeSounding extends FakeNode {
  static made: FakeSounding[] = [];
  started: number | null = null;
  stopped = false;
  onended: (() => void) | null = null;
  constructor(
    _context: unknown,
    readonly options: Record<string, unknown> = {},
  ) {
    super();
    FakeSounding.made.push(this);
  }
  start(at = 0): void {
    this.started = at;
  }
  stop(): void {
    this.stopped = true;
  }
}

export class FakeWorkletNode extends FakeNode {
  static last: FakeWorkletNode;
  readonly messages: unknown[] = [];
  readonly port = { postMessage: (message: unknown) => this.messages.push(message) };
  constructor() {
    super();
    FakeWorkletNode.last = this;
  }
}

export class FakeContext {
  static last: FakeContext;
  currentTime = 0;
  readonly sampleRate = 48_000;
  readonly baseLatency = 0.01;
  readonly outputLatency = 0.03;
  readonly destination = new FakeNode();
  readonly audioWorklet = { addModule: () => Promise.resolve() };
  closed = false;
  state: AudioContextState = 'running';
  private changed: (() => void) | null = null;
  constructor() {
    FakeContext.last = this;
  }
  addEventListener(_: 'statechange', listener: () => void): void {
    this.changed = listener;
  }
  removeEventListener(): void {
    this.changed = null;
  }
  /** The device takes the sound away. */
  suspendedByDevice(): void {
    this.state = 'suspended';
    this.changed?.();
  }
  resume(): Promise<void> {
    return Promise.resolve();
  }
  close(): Promise<void> {
    this.closed = true;
    return Promise.resolve();
  }
  createBuffer(_channels: number, length: number, sampleRate: number) {
    return { length, duration: length / sampleRate, copyToChannel: () => undefined };
  }
  createPeriodicWave(real: Float32Array, imag: Float32Array) {
    return { real, imag };
  }
  createMediaStreamSource() {
    return new FakeNode();
  }
}

/** Puts the stand-ins where the browser keeps its own. */
export function installWebAudio(): void {
  FakeSounding.made = [];
  Object.assign(globalThis, {
    AudioContext: FakeContext,
    GainNode: FakeGain,
    AudioBufferSourceNode: FakeSounding,
    OscillatorNode: FakeSounding,
    ConstantSourceNode: FakeSounding,
    AudioWorkletNode: FakeWorkletNode,
  });
}

/** A stand-in where the browser's own type is asked for. */
export const contextOf = (fake: FakeContext): AudioContext => fake as unknown as AudioContext;
export const nodeOf = (fake: FakeNode): AudioNode => fake as unknown as AudioNode;
