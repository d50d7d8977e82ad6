import { groups } from 'd3-array';
import { type Cents, type Decibels, median } from '@/core/base';

const BIN_DB = 2;
const FEWEST_BINS = 4;

/** One moment of a note whose breath is moved from too little to too much, or back. */
export interface SweptSound {
  /** Against the loudest of the sweep. */
  readonly levelDb: Decibels;
  readonly cents: Cents;
  /** In partials. */
  readonly ring: number;
}

/** Bins of level, softest first, each with its medians. */
export function binned(sounds: readonly SweptSound[]): SweptSound[] {
  return groups(sounds, ({ levelDb }) => Math.round(levelDb / BIN_DB))
    .sort(([a], [b]) => a - b)
    .filter(([, all]) => all.length >= 2)
    .map(([key, all]) => ({
      levelDb: key * BIN_DB,
      cents: median(all.map((sound) => sound.cents)),
      ring: median(all.map((sound) => sound.ring)),
    }));
}

/** Level at which the tone rings most; null when it rings the same everywhere. */
export function ringOf(points: readonly SweptSound[]): Decibels | null {
  if (points.length < FEWEST_BINS) return null;
  const smoothed = points.map((_, i) =>
    median(points.slice(Math.max(0, i - 1), i + 2).map((point) => point.ring)),
  );
  const most = Math.max(...smoothed);
  if (most - Math.min(...smoothed) < 1) return null;
  const near = points.filter((_, i) => smoothed[i]! >= most - 0.5);
  return median(near.map((point) => point.levelDb));
}

/** Level at which the pitch crosses its target, between two bins; null when it never does. */
export function tuneOf(points: readonly SweptSound[]): Decibels | null {
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    if (a.cents === 0) return a.levelDb;
    if (a.cents < 0 === b.cents < 0) continue;
    return a.levelDb + ((b.levelDb - a.levelDb) * -a.cents) / (b.cents - a.cents);
  }
  return null;
}
