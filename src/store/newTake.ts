import { takeOf, type Conditions, type Take } from '@/core/take';
import type { Score } from '@/core/exercises';
import type { Result } from '@/worker';

/** The take that has just been played, under an id of its own. */
export function newTake(
  score: Score,
  result: Result,
  conditions: Omit<Conditions, 'clipped' | 'floorDb' | 'interruption'>,
  now: Date,
): Take {
  return takeOf(newId(now), now, score, result, { ...conditions, interruption: result.interruption });
}

/** Sorts by time; the random tail keeps two takes of one millisecond apart. Works without a secure context. */
function newId(now: Date): string {
  const tail = crypto.getRandomValues(new Uint32Array(1))[0] ?? 0;
  return `${now.getTime().toString(36)}-${tail.toString(36)}`;
}
