import { fromInt16 } from '@/core/base';
import { findInstrument, setOwnInstruments } from '@/core/instruments';
import { perform } from '@/core/lab';
import { TakeListener } from '@/core/take';
import {
  requestSchema,
  samplesSchema,
  type ListenRequest,
  type MeasureRequest,
  type Reply,
  type SimulateRequest,
} from './protocol';

/** The worker's own end of things: messages in, messages out, and the one take that is being heard. */
const scope = self as unknown as {
  postMessage(message: Reply, transfer?: Transferable[]): void;
  onmessage: ((event: MessageEvent) => void) | null;
};

/** Sound is handed on for keeping in pieces of this length. */
const KEEP_SECONDS = 1;
/** A recording is heard in pieces, as a port would bring it. */
const PIECE = 16_384;

let take: TakeListener | null = null;
let samplesPort: MessagePort | null = null;

function finish(interruption: string | null): void {
  if (!take) return;
  const heard = take.finish();
  take = null;
  samplesPort?.close();
  samplesPort = null;
  scope.postMessage({ kind: 'result', interruption, ...heard }, [heard.audio.buffer]);
}

function hear(data: unknown): void {
  if (!take) return;
  const { frame, samples } = samplesSchema.parse(data);
  take.push(frame, samples);
  const live = take.takeLive();
  if (live.frames.length > 0) scope.postMessage({ kind: 'live', ...live }, [live.frames.buffer]);
  const sound = take.takeSound(KEEP_SECONDS);
  if (sound) scope.postMessage({ kind: 'sound', audio: sound }, [sound.buffer]);
  if (take.full) finish('The take reached its longest length and was ended there.');
}

function listen(request: ListenRequest, port: MessagePort | undefined): void {
  if (!port) throw new Error('a listen message needs a port for the samples');
  setOwnInstruments(request.ownInstruments);
  take = new TakeListener(request);
  samplesPort = port;
  port.onmessage = ({ data }) => guarded(() => hear(data));
}

function measure({ audio, origin, clicks, ...request }: MeasureRequest): void {
  setOwnInstruments(request.ownInstruments);
  take = new TakeListener(request);
  take.addClicks(clicks);
  const first = Math.round(origin * request.sampleRate);
  for (let at = 0; at < audio.length; at += PIECE) {
    const piece = fromInt16(audio.subarray(at, at + PIECE));
    take.push(first + at, piece);
    take.takeLive();
  }
  finish(null);
}

function simulate(request: SimulateRequest): void {
  setOwnInstruments(request.ownInstruments);
  const instrument = findInstrument(request.score.instrumentId);
  if (!instrument) throw new Error(`there is no instrument "${request.score.instrumentId}"`);
  const { faults, ...rest } = request;
  const { audio } = perform({ ...rest, instrument, ...(faults && { faults }) });
  scope.postMessage({ kind: 'simulated', audio }, [audio.buffer]);
}

function guarded(work: () => void): void {
  try {
    work();
  } catch (error) {
    scope.postMessage({ kind: 'failed', problem: error instanceof Error ? error.message : String(error) });
  }
}

scope.onmessage = ({ data, ports }) =>
  guarded(() => {
    const request = requestSchema.parse(data);
    if (request.kind === 'listen') listen(request, ports[0]);
    else if (request.kind === 'measure') measure(request);
    else if (request.kind === 'beat') take?.setFirstBeat(request.firstBeat);
    else if (request.kind === 'clicks') take?.addClicks(request.clicks);
    else if (request.kind === 'finish') finish(request.interruption);
    else simulate(request);
  });
