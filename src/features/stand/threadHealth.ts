import { quantile } from 'd3-array';

/** The mark in the browser's performance timeline that ends each take. */
export const THREAD_MARK = 'gold-reed-thread';
/** Older figures are written over: a long take costs no more memory than a short one. */
const KEPT = 4096;

export interface ThreadSummary {
  readonly paintings: number;
  readonly paintingsPerSecond: number;
  /** From the sound to its painting, by the audio clock, seconds. */
  readonly ageMedian: number;
  readonly age95: number;
  /** Time that one painting takes of the page's own thread, milliseconds. */
  readonly paint95: number;
}

/** How far the painted thread is behind the sound, and what painting costs. */
export class ThreadHealth {
  private readonly ages = new Float64Array(KEPT);
  private readonly costs = new Float64Array(KEPT);
  private paintings = 0;
  private first = NaN;
  private last = NaN;

  /** @param now time of the painting, ms. @param age seconds since the newest painted sound was heard. */
  add(now: number, age: number, costMs: number): void {
    if (this.paintings === 0) this.first = now;
    this.last = now;
    this.ages[this.paintings % KEPT] = age;
    this.costs[this.paintings % KEPT] = costMs;
    this.paintings++;
  }

  get summary(): ThreadSummary {
    const count = Math.min(KEPT, this.paintings);
    const of = (column: Float64Array, p: number) => quantile(column.subarray(0, count), p) ?? 0;
    return {
      paintings: this.paintings,
      paintingsPerSecond: this.paintings > 1 ? (1000 * (this.paintings - 1)) / (this.last - this.first) : 0,
      ageMedian: of(this.ages, 0.5),
      age95: of(this.ages, 0.95),
      paint95: of(this.costs, 0.95),
    };
  }
}
