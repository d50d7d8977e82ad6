import type { Hertz, Seconds } from '@/core/base';

/** Width of each notch at half power. Narrow enough to leave a tone 3 Hz away, wide enough for two clocks that differ. */
const NOTCH_HZ: Hertz = 1;
/** A partial nearer than this to something that was taken out is no longer the player's alone. */
export const SPOILT_HZ: Hertz = 2.5;
const DRONE_PARTIALS = 16;

/** All frequencies that a drone on the given pitches sounds, up to half of the sample rate. */
export function droneFrequencies(pitches: readonly Hertz[], sampleRate: Hertz): Hertz[] {
  return pitches.flatMap((pitch) =>
    Array.from({ length: DRONE_PARTIALS }, (_, i) => (i + 1) * pitch).filter((f) => f < 0.45 * sampleRate),
  );
}

/** The notches start wide, so that a drone that is already sounding does not ring in them, and narrow within a second. */
const FIRST_NOTCH_HZ: Hertz = 25;
const NARROWING: Seconds = 0.15;
const NARROW_EVERY = 64;

/**
 * Takes steady tones of known frequency out of a stream, each by a notch: two zeros on the unit circle and two poles just
 * inside it.
 */
export class DroneRemover {
  private readonly cosines: Float64Array;
  private readonly state: Float64Array;
  private radius = 0;
  private samples = 0;

  constructor(
    frequencies: readonly Hertz[],
    private readonly sampleRate: Hertz,
  ) {
    this.cosines = Float64Array.from(frequencies, (f) => 2 * Math.cos((2 * Math.PI * f) / sampleRate));
    this.state = new Float64Array(4 * frequencies.length);
  }

  next(sample: number): number {
    if (this.samples++ % NARROW_EVERY === 0) this.narrow();
    const { cosines, state, radius } = this;
    let x = sample;
    for (let i = 0, at = 0; i < cosines.length; i++, at += 4) {
      const c = cosines[i]!;
      const zeros = x - c * state[at]! + state[at + 1]!;
      const y = zeros + radius * (c * state[at + 2]! - radius * state[at + 3]!);
      state[at + 1] = state[at]!;
      state[at] = x;
      state[at + 3] = state[at + 2]!;
      state[at + 2] = y;
      x = y;
    }
    return x;
  }

  private narrow(): void {
    const seconds = this.samples / this.sampleRate;
    const width = Math.max(NOTCH_HZ, FIRST_NOTCH_HZ * Math.exp(-seconds / NARROWING));
    this.radius = 1 - (Math.PI * width) / this.sampleRate;
  }
}

/** Whether partial `k` of a note at `f0` lies where something was taken out. */
export function isSpoilt(k: number, f0: Hertz, removed: readonly Hertz[]): boolean {
  return removed.some((frequency) => Math.abs(k * f0 - frequency) < SPOILT_HZ);
}
