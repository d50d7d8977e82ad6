/** What a drone sounds like: a soft reed, a pipe, or a struck string that is struck again. */
export type DroneSound = 'reed' | 'pipe' | 'string';

export interface DroneOptions {
  /** Hz. */
  readonly pitches: readonly number[];
  readonly sound: DroneSound;
  /** 0 … 1; kept low unless the player turns it up. */
  readonly volume: number;
  readonly outputs: readonly AudioNode[];
}

const FADE_SECONDS = 0.25;
const RESTRIKE_SECONDS = 5;
const LOUDEST = 0.22;
/** A pure third of a chord and the player's tempered one are the same note. */
const SAME_PITCH_OCTAVES = 0.03;

/** Amplitudes of partials 1 …; many dislike a raw electronic tone. */
const PARTIALS: Readonly<Record<DroneSound, readonly number[]>> = {
  reed: [1, 0.62, 0.5, 0.42, 0.3, 0.26, 0.17, 0.13, 0.09, 0.07, 0.05, 0.04],
  pipe: [1, 0.28, 0.14, 0.05, 0.03],
  string: [1, 0.55, 0.4, 0.2, 0.16, 0.1, 0.06, 0.04],
};

/** A held note, or several, to play against. */
export class Drone {
  private readonly gain: GainNode;
  private readonly voices: {
    frequency: number;
    oscillator: OscillatorNode;
    envelope: GainNode;
    rests: GainNode;
  }[];
  private left: number | null = null;
  private timer: ReturnType<typeof setInterval> | null = null;

  constructor(
    private readonly context: AudioContext,
    private readonly options: DroneOptions,
  ) {
    const { pitches, sound, outputs } = options;
    this.gain = new GainNode(context, { gain: 0 });
    for (const output of outputs) this.gain.connect(output);
    const partials = PARTIALS[sound];
    const wave = context.createPeriodicWave(
      new Float32Array(partials.length + 1),
      Float32Array.from([0, ...partials]),
    );
    this.voices = pitches.map((frequency) => {
      const envelope = new GainNode(context, {
        gain: sound === 'string' ? 0 : 1 / Math.max(1, pitches.length),
      });
      const oscillator = new OscillatorNode(context, { frequency, periodicWave: wave });
      const rests = new GainNode(context, { gain: 1 });
      oscillator.connect(envelope).connect(rests).connect(this.gain);
      oscillator.start();
      return { frequency, oscillator, envelope, rests };
    });
    if (sound === 'string') {
      this.strike();
      this.timer = setInterval(() => this.strike(), RESTRIKE_SECONDS * 1000);
    }
    this.setSounding(true);
  }

  setSounding(sounding: boolean): void {
    const level = sounding ? LOUDEST * this.options.volume : 0;
    this.gain.gain.setTargetAtTime(level, this.context.currentTime, FADE_SECONDS / 3);
  }

  /** Lets the voices rest that hold a pitch, in whatever octave; null: all of them sound. */
  leaveOut(hertz: number | null): void {
    if (hertz === this.left) return;
    this.left = hertz;
    for (const { frequency, rests } of this.voices) {
      const octaves = hertz === null ? NaN : Math.log2(frequency / hertz);
      const same = Math.abs(octaves - Math.round(octaves)) < SAME_PITCH_OCTAVES;
      rests.gain.setTargetAtTime(same ? 0 : 1, this.context.currentTime, FADE_SECONDS / 3);
    }
  }

  stop(): void {
    if (this.timer) clearInterval(this.timer);
    for (const { oscillator } of this.voices) oscillator.stop();
    this.gain.disconnect();
  }

  private strike(): void {
    const now = this.context.currentTime;
    for (const { envelope } of this.voices) {
      envelope.gain.cancelScheduledValues(now);
      envelope.gain.setTargetAtTime(1.6 / Math.max(1, this.voices.length), now, 0.004);
      envelope.gain.setTargetAtTime(0, now + 0.03, RESTRIKE_SECONDS / 2.5);
    }
  }
}
