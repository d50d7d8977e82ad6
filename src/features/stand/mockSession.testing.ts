import type { SessionOptions } from '@/audio';
import { silentHeard } from '@/core/take/takes.testing';
import { midiToHertz } from '@/core/tuning';

const RATE = 1000;

/** For tests: a session without sound: the test says where the beat is, what is heard, and what was measured. */
export class MockSession {
  static opened: MockSession[] = [];
  static refuse: Error | null = null;
  /** The one that was opened last. */
  static get last(): MockSession {
    return MockSession.opened[MockSession.opened.length - 1]!;
  }
  static start(options: SessionOptions): Promise<MockSession> {
    if (MockSession.refuse) return Promise.reject(MockSession.refuse);
    const session = new MockSession(options);
    MockSession.opened.push(session);
    return Promise.resolve(session);
  }

  beat: number | null = null;
  isBeating = false;
  cancelled = false;
  readonly finished: (string | null)[] = [];
  readonly droneHeard: boolean[] = [];
  readonly metronomeHeard: boolean[] = [];
  private seconds = 0;

  private constructor(readonly options: SessionOptions) {
    if (options.metronome && !options.waits) this.beginBeat();
  }
  get hasDrone() {
    return this.options.drone !== null;
  }
  beginBeat() {
    this.isBeating = true;
    this.beat = this.options.fromBeat - Math.max(this.options.score.countInBeats, 2);
  }
  leaveOut() {
    // The drone of these tests has no notes of its own.
  }
  setDroneSounding(sounding: boolean) {
    this.droneHeard.push(sounding);
  }
  setMetronomeSounding(sounding: boolean) {
    this.metronomeHeard.push(sounding);
  }
  ageOf() {
    return 0.02;
  }
  cancel() {
    this.cancelled = true;
  }
  finish(interruption: string | null) {
    this.finished.push(interruption);
    const whole = silentHeard(Math.max(1, Math.round(this.seconds * RATE)), RATE);
    const source = { kind: 'microphone', name: 'stand-in', processing: [] } as never;
    this.options.onResult({ ...whole, interruption }, source, RATE);
  }

  /** Sound for some seconds: a sounding pitch, or null for silence. */
  hears(midi: number | null, seconds: number): void {
    const frames: number[] = [];
    for (const end = this.seconds + seconds; this.seconds < end; this.seconds += 0.01)
      frames.push(
        this.seconds,
        midi === null ? NaN : midiToHertz(midi, 440),
        midi === null ? -80 : -20,
        -40,
        8,
      );
    this.options.onLive(Float32Array.from(frames));
  }
}
