import './withoutEval';
import { fromInt16 } from '@/core/base';
import { heardIn, perform, rooms } from '@/core/lab';
import { digestOf } from '@/core/ledger';
import { readMusicFile } from '@/core/music/files/reading';
import { storedOf, takeFromStored, TakeListener } from '@/core/take';
import {
  requestSchema,
  samplesSchema,
  type DigestedTake,
  type DigestRequest,
  type ListenRequest,
  type MeasureRequest,
  type MusicRequest,
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
/** Call that the take belongs to. */
let takeId = 0;
let samplesPort: MessagePort | null = null;

function finish(interruption: string | null): void {
  if (!take) return;
  const heard = take.finish();
  take = null;
  samplesPort?.close();
  samplesPort = null;
  scope.postMessage({ id: takeId, kind: 'result', result: { interruption, ...heard } }, [heard.audio.buffer]);
}

function hear(data: unknown): void {
  if (!take) return;
  const { frame, samples } = samplesSchema.parse(data);
  take.push(frame, samples);
  const live = take.takeLive();
  if (live.frames.length > 0) scope.postMessage({ id: takeId, kind: 'live', ...live }, [live.frames.buffer]);
  const sound = take.takeSound(KEEP_SECONDS);
  if (sound) scope.postMessage({ id: takeId, kind: 'sound', audio: sound }, [sound.buffer]);
  if (take.full) finish('The take reached its longest length and was ended there.');
}

function begin({ id }: { id: number }, listener: TakeListener): void {
  takeId = id;
  take = listener;
}

function listen(request: ListenRequest, port: MessagePort | undefined): void {
  if (!port) throw new Error('a listen message needs a port for the samples');
  begin(request, new TakeListener(request));
  samplesPort = port;
  port.onmessage = ({ data }) => guarded(takeId, () => hear(data));
}

function measure({ audio, origin, clicks, ...request }: MeasureRequest): void {
  const listener = new TakeListener(request);
  begin(request, listener);
  listener.addClicks(clicks);
  const first = Math.round(origin * request.sampleRate);
  for (let at = 0; at < audio.length; at += PIECE) {
    const piece = fromInt16(audio.subarray(at, at + PIECE));
    listener.push(first + at, piece);
    listener.takeLive();
  }
  finish(null);
}

/** Places in a room that a simulated player may stand in. */
const PLACES = 5;

function simulate({ id, faults, heardIn: room, ...rest }: SimulateRequest): void {
  const performance = perform({ ...rest, ...(faults && { faults }) });
  const audio = room
    ? heardIn(rooms[room], performance.audio, rest.sampleRate, rest.seed % PLACES)
    : performance.audio;
  scope.postMessage({ id, kind: 'simulated', audio }, [audio.buffer]);
}

function digest({ id, takes, own, limits, naming }: DigestRequest): void {
  const digested = takes.map((stored): DigestedTake => {
    const read = takeFromStored(stored, own);
    if (!read.ok) return read;
    try {
      return { ok: true, value: { stored: storedOf(read.value), ...digestOf(read.value, limits, naming) } };
    } catch (error) {
      return { ok: false, problem: error instanceof Error ? error.message : String(error) };
    }
  });
  scope.postMessage({ id, kind: 'digested', takes: digested });
}

async function readMusic({ id, fileName, bytes, instrument, line }: MusicRequest): Promise<void> {
  const read = await readMusicFile(fileName, bytes, instrument, line);
  scope.postMessage({ id, kind: 'music', read });
}

function guarded(id: number, work: () => void): void {
  try {
    work();
  } catch (error) {
    const problem = error instanceof Error ? error.message : String(error);
    scope.postMessage({ id, kind: 'failed', problem });
  }
}

/** What a message calls itself, readable or not: its failure has to find the one who asked. */
const idOf = (data: unknown): number =>
  typeof data === 'object' && data !== null && 'id' in data && typeof data.id === 'number' ? data.id : takeId;

scope.onmessage = ({ data, ports }) =>
  guarded(idOf(data), () => {
    const request = requestSchema.parse(data);
    if (request.kind === 'listen') listen(request, ports[0]);
    else if (request.kind === 'measure') measure(request);
    else if (request.kind === 'beat') take?.setFirstBeat(request.firstBeat);
    else if (request.kind === 'clicks') take?.addClicks(request.clicks);
    else if (request.kind === 'finish') finish(request.interruption);
    else if (request.kind === 'digest') digest(request);
    else if (request.kind === 'read-music') void readMusic(request);
    else simulate(request);
  });
