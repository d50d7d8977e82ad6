import { availableParallelism } from 'node:os';
import { Piscina } from 'piscina';
import type { Analysis } from '@/core/formats';
import type { Outcome } from '@/core/base';
import type { AnalysisJob } from './analyse';

export class QueueFull extends Error {}

/** Runs analyses, at most as many at once as there are cores. */
export interface AnalysisQueue {
  /** @throws QueueFull when too many wait already. */
  run(job: AnalysisJob): Promise<Outcome<Analysis>>;
  close(): Promise<void>;
}

const WAITING_PER_CORE = 4;

export function threadedQueue(threadFile: string): AnalysisQueue {
  const cores = availableParallelism();
  const pool = new Piscina<AnalysisJob, Outcome<Analysis>>({
    filename: threadFile,
    minThreads: 0,
    maxThreads: cores,
    maxQueue: WAITING_PER_CORE * cores,
  });
  return {
    run(job) {
      if (pool.queueSize >= WAITING_PER_CORE * cores) throw new QueueFull();
      return pool.run(job);
    },
    close: () => pool.destroy(),
  };
}
