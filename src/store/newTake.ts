import { TAKE_VERSION, type Conditions, type Take } from '@/core/ledger';
import type { Score } from '@/core/exercises';
import type { Result } from '@/worker';

/** A take from what the worker returned and what was so while it was played. */
export function newTake(
  score: Score,
  result: Result,
  conditions: Pick<Conditions, 'source' | 'sourceName' | 'sampleRate' | 'a4' | 'processing'>,
  now: Date,
): Take {
  return {
    version: TAKE_VERSION,
    id: newId(now),
    createdAt: now.toISOString(),
    durationSeconds: result.durationSeconds,
    score,
    conditions: { ...conditions, clipped: result.clipped, floorDb: result.floorDb, interruption: result.interruption },
    timing: result.timing,
    notes: result.notes,
    events: result.events,
    trace: result.trace,
    remark: '',
    audio: { bytes: result.audio.byteLength },
  };
}

/** Sorts by time; the random tail keeps two takes of one millisecond apart. Works without a secure context. */
function newId(now: Date): string {
  const tail = crypto.getRandomValues(new Uint32Array(1))[0] ?? 0;
  return `${now.getTime().toString(36)}-${tail.toString(36)}`;
}
