import type { Hertz } from '@/core/base';

/** A second-order section in direct form II transposed. */
class Section {
  private z1 = 0;
  private z2 = 0;

  constructor(
    private readonly b: readonly [number, number, number],
    private readonly a: readonly [number, number],
  ) {}

  next(x: number): number {
    const y = this.b[0] * x + this.z1;
    this.z1 = this.b[1] * x - this.a[0] * y + this.z2;
    this.z2 = this.b[2] * x - this.a[1] * y;
    return y;
  }
}

function angles(hz: Hertz, q: number, sampleRate: Hertz) {
  const w = (2 * Math.PI * hz) / sampleRate;
  return { cos: Math.cos(w), alpha: Math.sin(w) / (2 * q) };
}

/** Band pass with 0 dB in its middle (bilinear transform of s/Q over s² + s/Q + 1). */
export class BandPass extends Section {
  constructor(hz: Hertz, q: number, sampleRate: Hertz) {
    const { cos, alpha } = angles(hz, q, sampleRate);
    const a0 = 1 + alpha;
    super([alpha / a0, 0, -alpha / a0], [(-2 * cos) / a0, (1 - alpha) / a0]);
  }
}

/** High pass, 12 dB an octave. */
export class HighPass extends Section {
  constructor(hz: Hertz, q: number, sampleRate: Hertz) {
    const { cos, alpha } = angles(hz, q, sampleRate);
    const a0 = 1 + alpha;
    const side = (1 + cos) / 2 / a0;
    super([side, -2 * side, side], [(-2 * cos) / a0, (1 - alpha) / a0]);
  }
}
