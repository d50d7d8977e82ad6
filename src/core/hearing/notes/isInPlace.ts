import { type Decibels, median } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import { hopMean } from './gaps';

/** What takes the place of a note comes at once and goes at once: its first and last moments are as new as this. */
const NEW = 0.35;
/** What is found by spectra has its ends blurred by this share of their window. */
const BLUR = 0.35;
const LEAST_LOOK_FRAMES = 4;
/** The note before it, what takes its place, and the note after it are as loud as each other to within this. */
const AS_LOUD_DB: Decibels = 7;
const BESIDE = 12;

/**
 * Whether something took the place of a held note between two frames, and the note came back. Echoes that wander change a tone's
 * partials as much, but slowly; a pause lets the level fall.
 */
export function isInPlace({ novelty, hopDb, settings }: Frames, from: number, to: number): boolean {
  const { window, decimation } = settings.spectrum;
  const near = Math.max(LEAST_LOOK_FRAMES, Math.round((BLUR * window * decimation) / settings.hop));
  const newest = (at: number) => {
    let most = 0;
    // Where no pitch is found at all, nothing is carried on.
    for (let i = at - near; i <= at + near; i++)
      most = Math.max(most, Number.isNaN(novelty[i]!) ? 1 : novelty[i]!);
    return most;
  };
  if (newest(from) < NEW || newest(to) < NEW) return false;
  const level = (a: number, b: number) =>
    median(Array.from({ length: Math.max(1, b - a) }, (_, k) => hopMean(hopDb, a + k, 3)));
  const before = level(from - BESIDE, from - 2);
  const after = level(to + 2, to + BESIDE);
  return Math.abs(before - after) < AS_LOUD_DB && level(from, to) > Math.min(before, after) - AS_LOUD_DB;
}
