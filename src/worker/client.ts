import type { Outcome } from '@/core/base';
import type { MusicRead } from '@/core/music';
import {
  replySchema,
  type DigestedTake,
  type DigestRequest,
  type MusicRequest,
  type Reply,
  type Request,
  type Result,
  type SimulateRequest,
  type TakeRequestMessage,
} from './protocol';

export interface ListenHandlers {
  /** Rows of LIVE_STRIDE values each. */
  onLive(frames: Float32Array): void;
  /** Sound of the take so far, piece by piece. */
  onSound(audio: Int16Array): void;
  onResult(result: Result): void;
  onProblem(problem: string): void;
}

type Answer = Exclude<Reply, { kind: 'failed' }>;

/** What waits for the answers to one call. `done` is true for the last of them. */
interface Pending {
  answer(reply: Answer): { done: boolean };
  fail(problem: string): void;
}

const STOPPED = 'The analysis stopped unexpectedly. Try again; reload the page if it happens again.';

/**
 * The page's hold on the analysis worker; one serves one take at a time. Every call ends: with its answer, with the worker's
 * own words of why not, or with words of ours when the worker itself is gone.
 */
export class AnalysisClient {
  private readonly worker = new Worker(new URL('./worker.ts', window.location.href));
  private readonly pending = new Map<number, Pending>();
  private calls = 0;
  private gone: string | null = null;
  private listening: number | null = null;
  /** Audio-clock time at which the take being heard began. */
  takeOrigin = 0;

  constructor() {
    this.worker.onmessage = ({ data }) => this.receive(data);
    this.worker.onerror = (event) => this.lose(event.message || STOPPED);
    this.worker.onmessageerror = () => this.lose(STOPPED);
  }

  /** Starts a take; its samples are to arrive on `samples`. */
  listen(request: TakeRequestMessage, samples: MessagePort, handlers: ListenHandlers): void {
    const id = this.call(
      {
        answer: (reply) => {
          if (reply.kind === 'live') {
            this.takeOrigin = reply.origin;
            handlers.onLive(reply.frames);
          } else if (reply.kind === 'sound') handlers.onSound(reply.audio);
          else if (reply.kind === 'result') handlers.onResult(reply.result);
          return { done: reply.kind === 'result' };
        },
        fail: (problem) => handlers.onProblem(problem),
      },
      (call) => ({ id: call, kind: 'listen', ...request }),
      [samples],
    );
    this.listening = id;
  }

  /** Hears a recording that was kept, and measures it. */
  measure(
    request: TakeRequestMessage,
    kept: { origin: number; clicks: { seconds: number; accent: boolean }[]; audio: Int16Array<ArrayBuffer> },
  ): Promise<Result> {
    return this.ask(
      (id) => ({ id, kind: 'measure', ...request, ...kept }),
      (reply) => (reply.kind === 'result' ? reply.result : undefined),
    );
  }

  simulate(request: Omit<SimulateRequest, 'kind' | 'id'>): Promise<Float32Array<ArrayBuffer>> {
    return this.ask(
      (id) => ({ id, kind: 'simulate', ...request }),
      (reply) => (reply.kind === 'simulated' ? reply.audio : undefined),
    );
  }

  /** Reads a file of music. */
  readMusic(request: Omit<MusicRequest, 'kind' | 'id'>): Promise<Outcome<MusicRead>> {
    return this.ask(
      (id) => ({ id, kind: 'read-music', ...request }),
      (reply) => (reply.kind === 'music' ? reply.read : undefined),
    );
  }

  /** Reads stored takes, and judges them: one answer for each. */
  digest(request: Omit<DigestRequest, 'kind' | 'id'>): Promise<readonly DigestedTake[]> {
    return this.ask(
      (id) => ({ id, kind: 'digest', ...request }),
      (reply) => (reply.kind === 'digested' ? reply.takes : undefined),
    );
  }

  setFirstBeat(firstBeat: number): void {
    this.tell({ kind: 'beat', firstBeat });
  }

  addClicks(clicks: { seconds: number; accent: boolean }[]): void {
    this.tell({ kind: 'clicks', clicks });
  }

  finish(interruption: string | null): void {
    this.tell({ kind: 'finish', interruption });
  }

  close(): void {
    this.gone ??= STOPPED;
    this.worker.terminate();
    this.pending.clear();
  }

  /** A call that is answered once. */
  private ask<T>(request: (id: number) => Request, take: (reply: Answer) => T | undefined): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      this.call(
        {
          answer: (reply) => {
            const value = take(reply);
            if (value !== undefined) resolve(value);
            return { done: value !== undefined };
          },
          fail: (problem) => reject(new Error(problem)),
        },
        request,
      );
    });
  }

  private call(pending: Pending, request: (id: number) => Request, transfer: Transferable[] = []): number {
    const id = ++this.calls;
    if (this.gone !== null) {
      pending.fail(this.gone);
      return id;
    }
    this.pending.set(id, pending);
    try {
      this.worker.postMessage(request(id), transfer);
    } catch (error) {
      this.fail(id, error instanceof Error ? error.message : String(error));
    }
    return id;
  }

  /** A word to the take that is being heard: it has no answer of its own. */
  private tell(message: Request): void {
    if (this.gone === null) this.worker.postMessage(message);
    else if (this.listening !== null) this.fail(this.listening, this.gone);
  }

  private receive(data: unknown): void {
    const read = replySchema.safeParse(data);
    if (!read.success) {
      this.lose(STOPPED);
      return;
    }
    const reply = read.data;
    if (reply.kind === 'failed') {
      this.fail(reply.id, reply.problem);
      return;
    }
    const pending = this.pending.get(reply.id);
    if (pending?.answer(reply).done) this.pending.delete(reply.id);
  }

  private fail(id: number, problem: string): void {
    const pending = this.pending.get(id);
    this.pending.delete(id);
    pending?.fail(problem);
  }

  /** The worker itself is gone, and with it everything that was asked of it. */
  private lose(problem: string): void {
    this.gone = problem;
    for (const id of [...this.pending.keys()]) this.fail(id, problem);
  }
}
