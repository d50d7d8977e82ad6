import type { Hertz, Seconds } from '@/core/base';
import { LEAST_AMPLITUDE, SHORTEST_PERIOD, type Loss } from './losses';

/** Over so long a sound's sharpest turn is known: more than a period of any tone. */
const BLOCK: Seconds = 0.04;
/** A sample turns off as much sharper than any before it. */
const SHARPER = 1.4;
const LEAST_TURN = 0.001;
/** Of turns that follow each other sooner, the sharpest is looked at. */
const APART: Seconds = 0.004;
/** The levels on both sides of a jump are as near as this, as a ratio of amplitudes. */
const AS_LOUD = 1.2;
const LEVEL_OVER: Seconds = 0.012;
/** A tone is as much like itself a period ago, and on the other side of a jump. */
const ALIKE = 0.93;
/** Twice a period may fit whole samples better than one does. */
const NEARLY = 0.97;
/** Less than this where it does not go on. */
const BROKEN = 0.8;

/**
 * A device that is busy may also leave sound out without a gap: the tone is there before and after, the same to its last
 * partial, but at one sample it is at another point of its period. No instrument does that; a tongue, a slur or a mode takes
 * some milliseconds. Looked for where the sound turns sharper than it has before (the second difference), and then told by
 * the likeness of periods (normalised correlation) before, after, across, and across at the best shift.
 */
export class Jumps {
  /** Where sound is missing; its length is what is missing of one period: as much and any number of whole ones. */
  readonly found: Loss[] = [];
  private readonly block: number;
  private readonly apart: number;
  private readonly longest: number;
  private readonly over: number;
  private readonly reach: number;
  private samples: Float32Array;
  /** Where the samples that are kept begin in the stream. */
  private origin = 0;
  private kept = 0;
  private last = 0;
  private slope = 0;
  private sharpest = 0;
  private sharpestBefore = 0;
  private inBlock = 0;
  /** Places that wait for what follows them, and how sharp the latest is. */
  private readonly suspects: number[] = [];
  private suspectTurn = 0;
  private latest = -Infinity;
  private due = Infinity;
  /** A turn sharper than this is one to look at. */
  private limit = LEAST_TURN;

  /** @param rate samples a second. @param minHz no tone is lower. */
  constructor(
    private readonly rate: Hertz,
    minHz: Hertz,
  ) {
    this.block = Math.round(BLOCK * rate);
    this.apart = Math.round(APART * rate);
    this.longest = Math.ceil(rate / minHz);
    this.over = Math.max(this.longest, Math.round(LEVEL_OVER * rate));
    this.reach = 3 * this.over;
    this.samples = new Float32Array(8 * this.reach);
  }

  push(chunk: Float32Array): void {
    for (let at = 0; at < chunk.length;) {
      this.makeRoom();
      const room = this.samples.length - this.kept;
      const untilDue = this.due - (this.origin + this.kept) + 1;
      const to = Math.min(chunk.length, at + Math.min(room, untilDue, this.block - this.inBlock));
      at = this.take(chunk, at, to);
      if (this.origin + this.kept - 1 === this.due) this.judgeFirst();
      if (this.inBlock === this.block) this.closeBlock();
    }
  }

  private makeRoom(): void {
    if (this.kept < this.samples.length) return;
    const from = this.kept - 3 * this.reach;
    this.samples.copyWithin(0, from);
    this.kept -= from;
    this.origin += from;
  }

  /** Samples of a chunk up to before `to`, or to the first that is suspected; where the next is. */
  private take(chunk: Float32Array, from: number, to: number): number {
    const { samples, due, origin } = this;
    let { last, slope, kept } = this;
    let at = from;
    while (at < to && this.due === due) {
      const sample = chunk[at++]!;
      const next = sample - last;
      const turn = Math.abs(next - slope);
      last = sample;
      slope = next;
      samples[kept++] = sample;
      if (turn > this.sharpest) this.turned(origin + kept - 1, turn);
    }
    this.last = last;
    this.slope = slope;
    this.kept = kept;
    this.inBlock += at - from;
    return at;
  }

  /** A sample turned off sharper than any before it in its block. */
  private turned(at: number, turn: number): void {
    if (turn > this.limit) this.suspect(at, turn);
    // What is looked at does not hide what follows it.
    else if (at >= this.latest + this.apart) {
      this.sharpest = turn;
      this.setLimit();
    }
  }

  private closeBlock(): void {
    this.inBlock = 0;
    this.sharpestBefore = this.sharpest;
    this.sharpest = 0;
    this.setLimit();
  }

  private setLimit(): void {
    this.limit = Math.max(LEAST_TURN, SHARPER * this.sharpest, SHARPER * this.sharpestBefore);
  }

  private suspect(at: number, turn: number): void {
    const { suspects } = this;
    if (at >= this.latest + this.apart) {
      suspects.push(at);
      this.suspectTurn = turn;
    } else if (turn > this.suspectTurn) {
      suspects[suspects.length - 1] = at;
      this.suspectTurn = turn;
    } else return;
    this.latest = at;
    this.due = suspects[0]! + this.reach;
  }

  private judgeFirst(): void {
    this.judge(this.suspects.shift()! - this.origin);
    this.due = this.suspects.length > 0 ? this.suspects[0]! + this.reach : Infinity;
  }

  private judge(at: number): void {
    const shift = at < this.reach ? null : this.shiftAt(at);
    if (shift !== null) this.found.push({ from: this.origin + at, to: this.origin + at + shift });
  }

  /** What is missing of one period at a place of the samples that are kept; null where the sound goes on or changes. */
  private shiftAt(at: number): number | null {
    if (!this.isEven(at)) return null;
    const period = this.periodBefore(at);
    if (period === null || this.likeness(at, at + period, period) < ALIKE) return null;
    if (this.likeness(at - period, at, period) > BROKEN) return null;
    let best = ALIKE;
    let shift: number | null = null;
    for (let candidate = 1; candidate < period; candidate++) {
      const like = this.likeness(at - 2 * period + candidate, at, period);
      if (like > best) [best, shift] = [like, candidate];
    }
    return shift;
  }

  /** Whether there is a tone around a place, no louder on one side than on the other. */
  private isEven(at: number): boolean {
    const { over } = this;
    const powers = [-2, -1, 0, 1].map((k) => this.power(at + k * over, at + (k + 1) * over));
    const least = Math.min(...powers);
    return least > LEAST_AMPLITUDE ** 2 && Math.max(...powers) < AS_LOUD ** 2 * least;
  }

  /** The shortest at which the tone is nearly as much like itself as at any. */
  private periodBefore(at: number): number | null {
    const from = at - this.longest;
    const shortest = Math.floor(SHORTEST_PERIOD * this.rate);
    const likenesses = new Float64Array(this.longest + 1);
    let best = 0;
    for (let lag = shortest; lag <= this.longest; lag++) {
      likenesses[lag] = this.likeness(from - lag, from, this.longest);
      if (likenesses[lag]! > best) best = likenesses[lag]!;
    }
    if (best < ALIKE) return null;
    const first = likenesses.findIndex((like) => like > NEARLY * best);
    let period = first;
    while (likenesses[period + 1]! > likenesses[period]!) period++;
    return period;
  }

  private power(from: number, to: number): number {
    let sum = 0;
    for (let i = from; i < to; i++) sum += this.samples[i]! ** 2;
    return sum / (to - from);
  }

  private likeness(a: number, b: number, length: number): number {
    const { samples } = this;
    let product = 0;
    let power = 1e-12;
    const stride = length > 200 ? 3 : 1;
    for (let i = 0; i < length; i += stride) {
      const x = samples[a + i]!;
      const y = samples[b + i]!;
      product += x * y;
      power += x * x + y * y;
    }
    return (2 * product) / power;
  }
}
