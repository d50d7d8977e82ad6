import type { Dynamic } from '@/core/music';

/** Dynamics as MIDI velocities, 0 … 1. */
export const VELOCITY: Readonly<Record<Dynamic, number>> = {
  pp: 0.25,
  p: 0.38,
  mp: 0.5,
  mf: 0.62,
  f: 0.76,
  ff: 0.9,
};
const ORDER: readonly Dynamic[] = ['pp', 'p', 'mp', 'mf', 'f', 'ff'];

/** The dynamic whose velocity is nearest. @param velocity 0 to 1. */
export const nearestDynamic = (velocity: number): Dynamic =>
  ORDER.reduce((best, each) =>
    Math.abs(VELOCITY[each] - velocity) < Math.abs(VELOCITY[best] - velocity) ? each : best,
  );
