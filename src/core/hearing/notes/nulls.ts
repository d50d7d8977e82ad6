import type { Seconds, Semitones } from '@/core/base';
import type { Plateau } from './plateau';

/** For how long, and how far, a pitch leaps where a tone and its echoes cancel, and how far apart the tone is before it and after it. */
const NULL: {
  readonly longest: Seconds;
  readonly widest: Semitones;
  readonly apart: Semitones;
} = {
  longest: 0.035,
  widest: 2.3,
  apart: 0.9,
};

/**
 * Takes moments in which a tone and its echoes nearly cancel into the tone: what is left turns its phase quickly there, and the pitch
 * leaps away and back.
 */
export function withoutNulls(parts: readonly Plateau[], hop: Seconds): Plateau[] {
  const kept: Plateau[] = [];
  parts.forEach((part, i) => {
    const before = kept[kept.length - 1];
    const after = parts[i + 1];
    const isNull =
      before &&
      part.joined &&
      after?.joined &&
      (part.to - part.from) * hop <= NULL.longest &&
      Math.abs(before.pitch - after.pitch) < NULL.apart &&
      Math.abs(part.pitch - before.pitch) < NULL.widest;
    if (isNull) kept[kept.length - 1] = { ...before, to: part.to };
    else kept.push(part);
  });
  return kept;
}
