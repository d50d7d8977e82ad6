import type { BrowserContext } from 'playwright-core';

/** So many times as fast music is played in tests that are about something else than the clock. */
export const TIMES = 4;

/**
 * Lets a page's time run faster, its music with it: clocks, timers and animation frames, and an audio clock at a multiple of
 * the sample rate that the page believes in. The same samples are played, heard and analysed, in a part of the time.
 */
export async function hurry(context: BrowserContext): Promise<void> {
  await context.route('**/capture-worklet.js', async (route) => {
    // A browser that is ended meanwhile needs none.
    const response = await route.fetch().catch(() => null);
    if (!response) return;
    const worklet = await response.text();
    if (!worklet.includes('rate: sampleRate'))
      throw new Error('the worklet no longer says at what rate it hears');
    await route.fulfill({
      response,
      body: worklet.replace('rate: sampleRate', `rate: sampleRate / ${TIMES}`),
    });
  });
  await context.addInitScript(hurriedClocks, TIMES);
}

/* eslint-disable @typescript-eslint/unbound-method -- what is replaced is called with its own `this`, or the window's. */
/** Runs in the page, before anything of its own. */
function hurriedClocks(times: number): void {
  const now = performance.now.bind(performance);
  const [RealDate, begun] = [Date, Date.now()];
  performance.now = () => times * now();
  class HurriedDate extends RealDate {
    constructor(...args: unknown[]) {
      if (args.length === 0) super(HurriedDate.now());
      else super(...(args as [number]));
    }
    static override now() {
      return Math.round(begun + (times - 1) * now() + (RealDate.now() - begun));
    }
  }
  window.Date = HurriedDate as DateConstructor;
  const { setTimeout, setInterval, requestAnimationFrame, cancelAnimationFrame } = window;
  window.setTimeout = ((handler: TimerHandler, ms = 0, ...rest: unknown[]) =>
    setTimeout(handler, ms / times, ...rest)) as typeof setTimeout;
  window.setInterval = ((handler: TimerHandler, ms = 0, ...rest: unknown[]) =>
    setInterval(handler, ms / times, ...rest)) as typeof setInterval;
  // Every second picture: drawing them is the half of what a block costs.
  const second = new Map<number, number>();
  window.requestAnimationFrame = (callback) => {
    const first = requestAnimationFrame(() =>
      second.set(
        first,
        requestAnimationFrame((at) => {
          second.delete(first);
          callback(times * at);
        }),
      ),
    );
    return first;
  };
  window.cancelAnimationFrame = (first) => {
    if (typeof first !== 'number') return;
    cancelAnimationFrame(second.get(first) ?? first);
    second.delete(first);
  };

  const Real = window.AudioContext;
  const clock = Object.getOwnPropertyDescriptor(BaseAudioContext.prototype, 'currentTime')!.get!;
  const rate = Object.getOwnPropertyDescriptor(BaseAudioContext.prototype, 'sampleRate')!.get!;
  let reads = 0;
  window.AudioContext = class extends Real {
    constructor(options: AudioContextOptions = {}) {
      super({ ...options, sampleRate: 48_000 * times });
    }
    // A busy machine's stall is so many times as long here, and no test in this time is about one: the clock never quite stands still.
    override get currentTime() {
      const seconds = times * (clock.call(this) as number);
      return seconds === 0 ? 0 : seconds + 1e-9 * (reads += 1);
    }
    override get sampleRate() {
      return (rate.call(this) as number) / times;
    }
    override get baseLatency() {
      return times * super.baseLatency;
    }
    override get outputLatency() {
      return times * super.outputLatency;
    }
    override createBuffer(channels: number, length: number, sampleRate: number) {
      return super.createBuffer(channels, length, sampleRate * times);
    }
    override async decodeAudioData(data: ArrayBuffer) {
      const decoded = await new OfflineAudioContext(1, 1, 48_000).decodeAudioData(data);
      const buffer = this.createBuffer(decoded.numberOfChannels, decoded.length, decoded.sampleRate);
      for (let i = 0; i < decoded.numberOfChannels; i++) buffer.copyToChannel(decoded.getChannelData(i), i);
      return buffer;
    }
  };
  const { start } = AudioBufferSourceNode.prototype;
  AudioBufferSourceNode.prototype.start = function (when = 0, ...rest) {
    start.call(this, when / times, ...rest);
  };
  const { setTargetAtTime, cancelScheduledValues } = AudioParam.prototype;
  AudioParam.prototype.setTargetAtTime = function (value, at, constant) {
    return setTargetAtTime.call(this, value, at / times, constant / times);
  };
  AudioParam.prototype.cancelScheduledValues = function (at) {
    return cancelScheduledValues.call(this, at / times);
  };
  const RealOscillator = window.OscillatorNode;
  window.OscillatorNode = class extends RealOscillator {
    constructor(context: BaseAudioContext, options: OscillatorOptions = {}) {
      super(context, { ...options, frequency: times * (options.frequency ?? 440) });
    }
  };
}
