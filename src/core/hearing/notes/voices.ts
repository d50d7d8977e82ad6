import { mean } from 'd3-array';
import { clamp, type Decibels } from '@/core/base';
import type { Tone } from './tones';

/** A partial this far under the note's strongest is not counted, nor how far one goes below it. */
const FAINT: Decibels = 35;
/** No partial counts for more than this. */
const MOST: Decibels = 20;

/** Levels of two sorts of partials against how the note holds them, in a frame. */
export interface Voices {
  readonly modes: Decibels;
  readonly others: Decibels;
}

/**
 * How high the partials of a note stand that another mode has too, and its others, frame by frame against how the note holds them. Each
 * partial has one voice, as a room lifts one and hides another. Zero where it has none of a sort.
 * @param amplitudes of the tones, in each frame.
 * @param held first and last frame, half-open, in which the note is taken to hold.
 */
export function voicesOf(
  tones: readonly Tone[],
  amplitudes: readonly Float64Array[],
  held: { readonly from: number; readonly to: number },
): Voices[] {
  const frames = amplitudes.slice(held.from, held.to);
  const holds = tones.map(({ note }, k) => (note ? (mean(frames, (of) => of[k]! ** 2) ?? 0) : 0));
  const faint = Math.max(...holds) * 10 ** (-FAINT / 10);
  const counted = tones.flatMap(({ other }, k) => (holds[k]! > faint ? [{ k, isModes: other }] : []));
  const voice = (of: Float64Array, k: number): Decibels =>
    clamp(10 * Math.log10(Math.max(of[k]! ** 2, faint) / holds[k]!), -MOST, MOST);
  const modes = counted.filter(({ isModes }) => isModes);
  const others = counted.filter(({ isModes }) => !isModes);
  return amplitudes.map((of) => ({
    modes: mean(modes, ({ k }) => voice(of, k)) ?? 0,
    others: mean(others, ({ k }) => voice(of, k)) ?? 0,
  }));
}
