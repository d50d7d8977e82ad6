import type { Hertz } from '@/core/base';
import { FloatColumn } from './columns';
import { CANDIDATES, type Periodicity } from './periodicity';

/** Room for the candidates of two windows, and the unpitched state after them. */
const SLOTS = 2 * CANDIDATES;
/** Frames after which those whose path can no longer change are settled, so that a long take needs no more memory. */
const SETTLE_EVERY = 2048;
const STATES = SLOTS + 1;
const UNVOICED = SLOTS;

/** Costs share the scale of clarity: 1 is the difference between perfectly periodic and not at all. */
const COST_UNVOICED = 0.32;
const COST_SWITCH_VOICING = 0.12;
const COST_LEAP = 0.14;
/** What the brief window says has to be a little clearer than what the long one says. */
const COST_BRIEF = 0.02;
/** A change of pitch by this many octaves from frame to frame costs as much as any leap. */
const LEAP_OCTAVES = 0.2;
/** Two windows that differ by less mean the same pitch. */
const NEAR_OCTAVES = 0.08;

export interface PitchPathResult {
  /** Hz, NaN where there is no pitch. */
  readonly f0: Float32Array;
  /** The same from the brief window alone, for notes that it serves; NaN elsewhere. */
  readonly briefF0: Float32Array;
  /** Clarity of the chosen candidate, 0 where there is none. */
  readonly clarity: Float32Array;
}

/**
 * Chooses one candidate a frame so that the sum of their costs and of the costs of changing is least: Viterbi's
 * algorithm, with an unpitched state besides (the idea of Mauch & Dixon, "pYIN", ICASSP 2014, with costs in the
 * place of learned probabilities). `lookBack` serves the live view; `solve` is exact.
 */
export class PitchPath {
  private readonly frequency = new FloatColumn(SLOTS);
  private readonly clarity = new FloatColumn(SLOTS);
  private readonly from = new FloatColumn(STATES);
  /** Where the brief window's candidates begin in each row. */
  private readonly briefFrom = new FloatColumn();
  private total = new Float64Array(STATES);
  private nextTotal = new Float64Array(STATES);
  private octaves = new Float64Array(SLOTS);
  private nextOctaves = new Float64Array(SLOTS);
  private readonly costs = new Float64Array(SLOTS);
  private previousCount = 0;
  private best = UNVOICED;
  /** Frames so far. */
  frames = 0;
  /** Of these, how many are settled: all paths that could still win agree on them. */
  private settled = 0;
  private readonly settledF0 = new FloatColumn();
  private readonly settledBrief = new FloatColumn();
  private readonly settledClarity = new FloatColumn();

  /** @param brief candidates of a shorter window for the same frame, where there is one. */
  push(long: Periodicity, brief: Periodicity | null): void {
    const row = this.frequency.grow(NaN);
    this.clarity.grow(0);
    const links = this.from.grow(UNVOICED);
    this.place(long, row, 0, 0);
    this.briefFrom.grow(brief ? long.count : SLOTS);
    if (brief) this.place(brief, row, long.count, COST_BRIEF);
    const count = long.count + (brief?.count ?? 0);
    let least = Infinity;
    for (let to = 0; to < STATES; to++) {
      if (to >= count && to !== UNVOICED) {
        this.nextTotal[to] = Infinity;
        continue;
      }
      const own = to === UNVOICED ? COST_UNVOICED : this.costs[to]!;
      const sum = own + this.cheapestWayTo(to, links);
      this.nextTotal[to] = sum;
      if (sum < least) {
        least = sum;
        this.best = to;
      }
    }
    for (let i = 0; i < STATES; i++) this.nextTotal[i]! -= least;
    [this.total, this.nextTotal] = [this.nextTotal, this.total];
    [this.octaves, this.nextOctaves] = [this.nextOctaves, this.octaves];
    this.previousCount = count;
    this.frames++;
    if (this.frames - this.settled >= SETTLE_EVERY) this.settle();
  }

  /** Frequency `frames` before the newest on the path that is best so far; NaN before the beginning. */
  lookBack(frames: number): Hertz {
    const target = this.frames - 1 - frames;
    if (target < 0) return NaN;
    if (target < this.settled) return this.settledF0.get(target);
    let state = this.best;
    for (let i = this.frames - 1; i > target; i--) state = this.origin(i, state);
    return this.chosen(target, state);
  }

  solve(): PitchPathResult {
    this.accept(this.frames - 1, this.best);
    return {
      f0: this.settledF0.toArray(),
      briefF0: this.settledBrief.toArray(),
      clarity: this.settledClarity.toArray(),
    };
  }

  /** Follows all paths back to where they have become one, and keeps of what lies before only that one. */
  private settle(): void {
    const states = Array.from({ length: STATES }, (_, i) => i).filter((i) => Number.isFinite(this.total[i]!));
    for (let i = this.frames - 1; i > this.settled; i--) {
      let together = true;
      for (let s = 0; s < states.length; s++) {
        states[s] = this.origin(i, states[s]!);
        together &&= states[s] === states[0];
      }
      if (together) {
        this.accept(i - 1, states[0]!);
        return;
      }
    }
  }

  /** Settles all frames up to `last`, where the path is in `state`, and forgets their candidates. */
  private accept(last: number, state: number): void {
    const first = this.settled;
    for (let i = first; i <= last; i++) {
      this.settledF0.grow(NaN);
      this.settledBrief.grow(NaN);
      this.settledClarity.grow(0);
    }
    for (let i = last; i >= first; i--) {
      if (state !== UNVOICED) {
        const f0 = this.chosen(i, state);
        this.settledF0.set(i, f0);
        this.settledClarity.set(i, this.clarity.get((i - first) * SLOTS + state));
        this.settledBrief.set(i, this.nearestBrief(i, f0));
      }
      state = this.origin(i, state);
    }
    const rows = last + 1 - first;
    for (const column of [this.frequency, this.clarity, this.from, this.briefFrom]) column.drop(rows);
    this.settled = last + 1;
  }

  private origin(frame: number, state: number): number {
    return this.from.get((frame - this.settled) * STATES + state);
  }

  private nearestBrief(frame: number, f0: Hertz): Hertz {
    let nearest = NaN;
    let least = NEAR_OCTAVES;
    const row = frame - this.settled;
    for (let i = this.briefFrom.get(row); i < SLOTS; i++) {
      const frequency = this.frequency.get(row * SLOTS + i);
      const away = Math.abs(Math.log2(frequency / f0));
      if (away < least) {
        least = away;
        nearest = frequency;
      }
    }
    return nearest;
  }

  private place(candidates: Periodicity, row: number, offset: number, extra: number): void {
    for (let i = 0; i < candidates.count; i++) {
      const slot = offset + i;
      this.frequency.set(row + slot, candidates.frequency[i]!);
      this.clarity.set(row + slot, candidates.clarity[i]!);
      this.costs[slot] = candidates.cost[i]! + extra;
      this.nextOctaves[slot] = Math.log2(candidates.frequency[i]!);
    }
  }

  private chosen(frame: number, state: number): Hertz {
    return frame < 0 || state === UNVOICED ? NaN : this.frequency.get((frame - this.settled) * SLOTS + state);
  }

  private cheapestWayTo(to: number, links: number): number {
    let cheapest = this.total[UNVOICED]! + (to === UNVOICED ? 0 : COST_SWITCH_VOICING);
    let origin = UNVOICED;
    for (let i = 0; i < this.previousCount; i++) {
      let change = COST_SWITCH_VOICING;
      if (to !== UNVOICED) {
        const octaves = Math.abs(this.octaves[i]! - this.nextOctaves[to]!);
        change = octaves >= LEAP_OCTAVES ? COST_LEAP : (COST_LEAP * octaves) / LEAP_OCTAVES;
      }
      const sum = this.total[i]! + change;
      if (sum < cheapest) {
        cheapest = sum;
        origin = i;
      }
    }
    this.from.set(links + to, origin);
    return cheapest;
  }
}
