import { availableParallelism } from 'node:os';
import { Piscina } from 'piscina';
import type { Analysis } from '@/core/formats';
import type { Outcome } from '@/core/base';
import { lateAfter } from './late';
import type { AnalysisJob } from './analyse';

/** More wait already than may. */
export class QueueFull extends Error {}
/** An analysis took longer than any recording needs. */
export class TookTooLong extends Error {}

/** Runs analyses, at most as many at once as there are cores. */
export interface AnalysisQueue {
  readonly isFull: boolean;
  /**
   * @param signal ends the work when nobody waits for it any more.
   * @throws QueueFull, TookTooLong.
   */
  run(job: AnalysisJob, signal: AbortSignal): Promise<Outcome<Analysis>>;
  close(): Promise<void>;
}

const WAITING_PER_CORE = 4;
/** Half an hour of sound takes a minute or two; ten times that is a fault. */
const LONGEST_MS = 15 * 60_000;

export function threadedQueue(threadFile: string): AnalysisQueue {
  const cores = availableParallelism();
  const most = WAITING_PER_CORE * cores;
  const pool = new Piscina<AnalysisJob, Outcome<Analysis>>({
    filename: threadFile,
    minThreads: 0,
    maxThreads: cores,
    maxQueue: most,
  });
  return {
    get isFull() {
      return pool.queueSize >= most;
    },
    async run(job, signal) {
      if (pool.queueSize >= most) throw new QueueFull();
      const late = lateAfter(LONGEST_MS, signal);
      try {
        return await pool.run(job, { signal: late.signal });
      } catch (error) {
        throw late.isLate() ? new TookTooLong() : error;
      } finally {
        late.clear();
      }
    },
    close: () => pool.destroy(),
  };
}
