import { wilson, type Estimate } from '@/core/base';

/** A crossing of so many days ago counts half. */
const HALF_LIFE_DAYS = 21;
/** Takes that it needs before they are asked whether crossings of one take go together. */
const LEAST_TAKES = 5;

/** Whether one crossing was clean, and when; `take` tells which were played in one go. */
export interface Trial {
  readonly clean: boolean;
  readonly day: number;
  readonly take: string;
}

/** How well a seam holds. */
export interface Reliability {
  /** Counted, each once. */
  readonly clean: number;
  readonly of: number;
  /** Share of clean ones, those of late weighing more, with its interval. */
  readonly share: Estimate;
}

/**
 * Share of clean crossings, followed crossing by crossing: weights that halve in three weeks, Wilson's interval on Kish's
 * effective number of trials, fewer where the crossings of one take are more alike than chance would make them (Rao & Scott
 * 1992), and fewer by age when the last one is long ago. All of it are sums that fade together, so that a long history costs
 * no more than a short one.
 */
export class SeamFollowing {
  private clean = 0;
  private of = 0;
  /** Sums of weights, of their squares, and of the weights of clean ones. */
  private weight = 0;
  private squares = 0;
  private good = 0;
  /** Of takes before this one: sums of squares and products of their clean and their whole weights. */
  private takes = 0;
  private cleanSquares = 0;
  private products = 0;
  private wholeSquares = 0;
  /** Weights of the take that is followed. */
  private own = { take: '', clean: 0, whole: 0 };
  private last = -Infinity;

  /** @param trial not older than the one before; those of one take come one after the other. */
  add({ clean, day, take }: Trial): void {
    if (this.of > 0 && day !== this.last) this.fade(0.5 ** ((day - this.last) / HALF_LIFE_DAYS));
    if (take !== this.own.take) {
      this.closeTake();
      this.own = { take, clean: 0, whole: 0 };
    }
    this.last = day;
    this.of++;
    this.weight++;
    this.squares++;
    this.own.whole++;
    if (!clean) return;
    this.clean++;
    this.good++;
    this.own.clean++;
  }

  /** How well it holds at a moment. */
  at(now: number): Reliability {
    const { clean, of, weight } = this;
    if (of === 0) return { clean, of, share: wilson(0, 0) };
    const share = this.good / weight;
    const idle = 0.5 ** (Math.max(0, now - this.last) / HALF_LIFE_DAYS);
    const effective = (weight ** 2 / this.squares / this.designEffect(share)) * idle;
    return { clean, of, share: wilson(share, effective) };
  }

  private fade(by: number): void {
    this.weight *= by;
    this.good *= by;
    this.squares *= by * by;
    this.cleanSquares *= by * by;
    this.products *= by * by;
    this.wholeSquares *= by * by;
    this.own = { ...this.own, clean: this.own.clean * by, whole: this.own.whole * by };
  }

  private closeTake(): void {
    const { clean, whole } = this.own;
    if (whole === 0) return;
    this.takes++;
    this.cleanSquares += clean * clean;
    this.products += clean * whole;
    this.wholeSquares += whole * whole;
  }

  /** By how much the variance of the share is greater than chance alone would make it; 1 at least. */
  private designEffect(share: number): number {
    const { clean, whole } = this.own;
    const takes = this.takes + 1;
    const chance = this.squares * share * (1 - share);
    if (takes < LEAST_TAKES || chance === 0) return 1;
    // Σ (clean weight − share · whole weight)² over takes.
    const between =
      this.cleanSquares +
      clean * clean -
      2 * share * (this.products + clean * whole) +
      share * share * (this.wholeSquares + whole * whole);
    return Math.max(1, ((takes / (takes - 1)) * between) / chance);
  }
}

/** How well a seam holds at a moment. @param trials oldest first, those of one take one after the other. */
export function reliability(trials: readonly Trial[], now: number): Reliability {
  const following = new SeamFollowing();
  for (const trial of trials) following.add(trial);
  return following.at(now);
}
