import { type Hertz, quantile } from '@/core/base';

/** Frames over which a speed is read. */
const SPEED_FRAMES = 6;
/** Speeds are looked at so many frames to each side of a moment. */
export const AROUND = 32;
/** Frames before a stop, and after a start has settled, over which a swing is looked for; no earlier than so long before. */
const SWING_FRAMES = 26;
const BEFORE_FRAMES = 2;
const SETTLES_FRAMES = 9;
const EARLIEST = 45;
/** Frames in which a tone that has begun finds its pitch. */
const SETTLING = { from: 4, to: 12 } as const;
/** More than this says no more; and it is what is assumed where too little is known. */
const MOST_CENTS = 60;
const USUAL_SPEED_CENTS = 20;
const FEWEST = 7;

/** How a pitch moves around a stop and a start, in octaves of hertz: see PitchMoves. */
export interface Movement {
  /** What its speed passes in seven frames of ten around the start. */
  readonly speed: number;
  /** How far it moves just after the start. */
  readonly settling: number;
  /** The wider and the narrower of its swings before and after. */
  readonly widest: number;
  readonly narrowest: number;
}

/**
 * How the pitch of one tone moves. Where echoes are heard, what a tone sounds like at one point of a room depends on its
 * frequency: some hertz make another sound of it, while below one nothing changes (the bandwidth over which a room's response is
 * alike is about 2/T hertz, with the decay T: Schroeder, JASA 34, 1962). So movements are measured in octaves of hertz, log2(1 + Δf).
 */
export class PitchMoves {
  private readonly speedCents: Float64Array;

  /** @param pitch in MIDI numbers, NaN where there is none. @param f0 the tone's own frequency. */
  constructor(
    private readonly pitch: Float64Array,
    private readonly f0: Hertz,
  ) {
    const half = SPEED_FRAMES / 2;
    this.speedCents = Float64Array.from({ length: pitch.length }, (_, i) =>
      i < half || i >= pitch.length - half ? NaN : 100 * Math.abs(pitch[i + half]! - pitch[i - half]!),
    );
  }

  around(stop: number, start: number): Movement {
    const before = this.swing(
      Math.max(stop - BEFORE_FRAMES - SWING_FRAMES, start - EARLIEST),
      stop - BEFORE_FRAMES,
    );
    const after = this.swing(start + SETTLES_FRAMES, start + SETTLES_FRAMES + SWING_FRAMES);
    const settling = this.known(this.pitch, start + SETTLING.from, start + SETTLING.to);
    const span = settling.length > 1 ? 100 * (Math.max(...settling) - Math.min(...settling)) : MOST_CENTS;
    return {
      speed: this.speed(start, 0.3),
      settling: this.octaves(span),
      widest: this.octaves(Math.max(before, after)),
      narrowest: this.octaves(Math.min(before, after)),
    };
  }

  /** The speed that a share of the frames around a moment does not reach: how far the pitch goes in six frames, in octaves of hertz. */
  speed(at: number, share: number): number {
    const speeds = this.known(this.speedCents, at - AROUND, at + AROUND);
    return this.octaves(speeds.length > FEWEST + 1 ? quantile(speeds, share) : USUAL_SPEED_CENTS);
  }

  /** Cents between the ends of the swing over some frames; the most where they are too few to tell. */
  private swing(from: number, to: number): number {
    const known = this.known(this.pitch, from, to);
    return known.length >= FEWEST ? 100 * (quantile(known, 0.9) - quantile(known, 0.1)) : MOST_CENTS;
  }

  private known(values: Float64Array, from: number, to: number): Float64Array {
    return values.subarray(Math.max(0, from), Math.max(0, from, to)).filter((value) => !Number.isNaN(value));
  }

  private octaves(cents: number): number {
    return Math.log2(1 + this.f0 * (2 ** (Math.min(MOST_CENTS, cents) / 1200) - 1));
  }
}
