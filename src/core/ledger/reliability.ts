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

/** Crossings of before so many half-lives count for nothing. */
const WINDOW_DAYS = 6 * HALF_LIFE_DAYS;

/**
 * Share of clean crossings at a moment: weights that halve in three weeks, Wilson's interval on Kish's effective number of
 * trials, fewer where the crossings of one take are more alike than chance would make them (Rao & Scott 1992), and fewer by age
 * when the last one is long ago.
 * @param trials oldest first, those of one take one after the other.
 */
export function reliability(trials: readonly Trial[], now: number): Reliability {
  const clean = trials.filter((each) => each.clean).length;
  if (trials.length === 0) return { clean: 0, of: 0, share: wilson(0, 0) };
  const last = trials[trials.length - 1]!.day;
  const weights: number[] = [];
  let [weight, squares, good] = [0, 0, 0];
  for (const { day, clean: held } of trials) {
    const w = last - day > WINDOW_DAYS ? 0 : 0.5 ** ((last - day) / HALF_LIFE_DAYS);
    weights.push(w);
    weight += w;
    squares += w * w;
    if (held) good += w;
  }
  const share = good / weight;
  const idle = 0.5 ** (Math.max(0, now - last) / HALF_LIFE_DAYS);
  const effective = (weight ** 2 / squares / designEffect(trials, weights, share)) * idle;
  return { clean, of: trials.length, share: wilson(share, effective) };
}

/** By how much the variance of the share is greater than chance alone would make it; 1 at least. */
function designEffect(trials: readonly Trial[], weights: readonly number[], share: number): number {
  let [takes, between, chance, residual] = [0, 0, 0, 0];
  trials.forEach(({ clean, take }, i) => {
    residual += weights[i]! * (Number(clean) - share);
    chance += weights[i]! ** 2 * share * (1 - share);
    if (trials[i + 1]?.take === take) return;
    takes++;
    between += residual ** 2;
    residual = 0;
  });
  if (takes < LEAST_TAKES || chance === 0) return 1;
  return Math.max(1, ((takes / (takes - 1)) * between) / chance);
}
