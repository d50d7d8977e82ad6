import { ownInstruments } from '@/core/instruments';
import {
  replySchema,
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
  listen(request: TakeRequestMessage, samples: MessagePort, handlers: ListenHandlers): void {
    this.handlers = handlers;
    this.send({ kind: 'listen', ownInstruments: ownInstruments(), ...request }, [samples]);
  }

  /** Hears a recording that was kept, and measures it. */
  measure(
    request: TakeRequestMessage,
    kept: { origin: number; clicks: { seconds: number; accent: boolean }[]; audio: Int16Array<ArrayBuffer> },
  ): Promise<Result> {
    return new Promise((resolve, reject) => {
      this.handlers = {
        onLive: () => undefined,
        onSound: () => undefined,
        onResult: resolve,
        onProblem: (problem) => reject(new Error(problem)),
      };
      this.send({ kind: 'measure', ownInstruments: ownInstruments(), ...request, ...kept });
    });
  }

  setFirstBeat(firstBeat: number): void {
    this.send({ kind: 'beat', firstBeat });
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
      this.handlers?.onLive(reply.frames);
    } else if (reply.kind === 'sound') this.handlers?.onSound(reply.audio);
    else if (reply.kind === 'result') this.handlers?.onResult(reply);
    else if (reply.kind === 'failed') this.handlers?.onProblem(reply.problem);
    else this.simulated?.(reply.audio);
  }
}
