import { ownInstruments } from '@/core/instruments';
import {
  replySchema,
  type ListenRequest,
  type Reply,
  type Request,
  type Result,
  type SimulateRequest,
} from './protocol';

export interface ListenHandlers {
  /** Rows of LIVE_STRIDE values each. */
  onLive(frames: Float32Array, sounding: boolean): void;
  onResult(result: Result): void;
  onProblem(problem: string): void;
}

/** The page's hold on the analysis worker. One at a time serves one take at a time. */
export class AnalysisClient {
  private readonly worker = new Worker(new URL('./worker.ts', window.location.href));
  private handlers: ListenHandlers | null = null;
  /** Audio-clock time at which the take being heard began. */
  takeOrigin = 0;
  private simulated: ((audio: Float32Array<ArrayBuffer>) => void) | null = null;

  constructor() {
    this.worker.onmessage = ({ data }) => this.receive(replySchema.parse(data));
    this.worker.onerror = (event) =>
      this.handlers?.onProblem(event.message || 'the analysis stopped unexpectedly');
  }

  /** Starts a take; its samples are to arrive on `samples`. */
  listen(
    request: Omit<ListenRequest, 'kind' | 'ownInstruments'>,
    samples: MessagePort,
    handlers: ListenHandlers,
  ): void {
    this.handlers = handlers;
    this.send({ kind: 'listen', ownInstruments: ownInstruments(), ...request }, [samples]);
  }

  addClicks(clicks: { seconds: number; accent: boolean }[]): void {
    this.send({ kind: 'clicks', clicks });
  }

  finish(interruption: string | null): void {
    this.send({ kind: 'finish', interruption });
  }

  simulate(request: Omit<SimulateRequest, 'kind' | 'ownInstruments'>): Promise<Float32Array<ArrayBuffer>> {
    return new Promise((resolve) => {
      this.simulated = resolve;
      this.send({ kind: 'simulate', ownInstruments: ownInstruments(), ...request });
    });
  }

  close(): void {
    this.worker.terminate();
  }

  private send(message: Request, transfer: Transferable[] = []): void {
    this.worker.postMessage(message, transfer);
  }

  private receive(reply: Reply): void {
    if (reply.kind === 'live') {
      this.takeOrigin = reply.origin;
      this.handlers?.onLive(reply.frames, reply.sounding);
    } else if (reply.kind === 'result') this.handlers?.onResult(reply);
    else if (reply.kind === 'failed') this.handlers?.onProblem(reply.problem);
    else this.simulated?.(reply.audio);
  }
}
