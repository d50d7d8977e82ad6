/** @jest-environment node */
import { heldNote } from '@/core/music/scores.testing';
import { findInstrument } from '@/core/instruments';
import { perform, steadyPlayer } from '@/core/lab';
import { storedOf } from '@/core/take';
import { emptyTake } from '@/core/take/takes.testing';
import { limitsOf } from '@/core/verdict';
import { LIVE_STRIDE, replySchema, type Reply, type Result } from './protocol';

const RATE = 16_000;
const score = heldNote('flute', { note: 81, beats: 2 });
const { audio } = perform({
  score,
  instrument: findInstrument('flute')!,
  player: steadyPlayer,
  seed: 2,
  sampleRate: RATE,
  a4: 440,
  leadSeconds: 0.5,
  tailSeconds: 0.5,
});
const request = {
  id: 3,
  score,
  instrument: findInstrument('flute')!,
  sampleRate: RATE,
  a4: 440,
  gainControlled: false,
  longestSeconds: 60,
  firstBeat: null,
  roundTrip: { seconds: 0, how: 'exact' },
};

const replies: Reply[] = [];
/** The page's end of the port on which the samples go. */
let port: { onmessage: ((event: { data: unknown }) => void) | null; close(): void; closed: boolean };
const scope = ((globalThis as { self?: unknown }).self = globalThis as unknown) as {
  onmessage: (event: { data: unknown; ports: unknown[] }) => void;
  postMessage: unknown;
};
const send = (data: unknown, ports: unknown[] = []) => scope.onmessage({ data, ports });
const hear = (frame: number, samples: Float32Array) =>
  port.onmessage?.({ data: { frame, rate: RATE, samples } });
const ofKind = <K extends Reply['kind']>(kind: K) =>
  replies.filter((reply): reply is Extract<Reply, { kind: K }> => reply.kind === kind);
const result = (): Result => ofKind('result')[0]!.result;

beforeAll(() => {
  jest.requireActual('./worker');
});
beforeEach(() => {
  replies.length = 0;
  // What crosses to the page has to be what the page expects.
  scope.postMessage = (message: unknown) => replies.push(replySchema.parse(message));
  port = {
    onmessage: null,
    closed: false,
    close() {
      port.closed = true;
    },
  };
});

function listen(change: object = {}): void {
  send({ kind: 'listen', ...request, ...change }, [port]);
}
function playAll(): void {
  for (let at = 0; at < audio.length; at += 1024) hear(at, audio.slice(at, at + 1024));
}

describe('the worker', () => {
  it('sends what it hears while it hears it, the sound for keeping, and the result at the end', () => {
    listen();
    playAll();
    const live = ofKind('live');
    expect(live.length).toBeGreaterThan(5);
    expect(live.every(({ frames }) => frames.length % LIVE_STRIDE === 0)).toBe(true);
    const seconds = live.flatMap(({ frames }) => [...frames].filter((_, i) => i % LIVE_STRIDE === 0));
    expect(seconds).toEqual([...seconds].sort((a, b) => a - b));
    const kept = ofKind('sound').reduce((sum, { audio: piece }) => sum + piece.length, 0);
    expect(kept).toBeGreaterThan(audio.length - 1.1 * RATE);
    expect(kept).toBeLessThanOrEqual(audio.length);
    send({ kind: 'finish', interruption: 'unplugged' });
    expect(result()).toMatchObject({ interruption: 'unplugged', notes: [{ soundingMidi: 81 }] });
    expect(result().audio).toHaveLength(audio.length);
    expect(port.closed).toBe(true);
  });

  it('measures a kept recording just as it would have been measured live', () => {
    listen();
    playAll();
    send({ kind: 'finish', interruption: null });
    const live = result();
    replies.length = 0;
    const kept = live.audio;
    send({ kind: 'measure', ...request, origin: 0, clicks: [], audio: kept });
    const again = result();
    expect(again.notes).toHaveLength(live.notes.length);
    expect(again.notes[0]!.centreCents).toBeCloseTo(live.notes[0]!.centreCents!, 1);
    expect(again.notes[0]!.startSeconds).toBeCloseTo(live.notes[0]!.startSeconds, 2);
    expect(ofKind('live')).toEqual([]);
  });

  it('ends a take that gets too long by itself, and says why', () => {
    listen({ longestSeconds: 1 });
    playAll();
    expect(result().interruption).toMatch(/longest length/);
    expect(result().durationSeconds).toBeLessThan(1.2);
  });

  it('knows when the beat begins, and the clicks', () => {
    listen();
    send({ kind: 'beat', firstBeat: 0.5 });
    send({ kind: 'clicks', clicks: [{ seconds: 0.1, accent: true }] });
    playAll();
    send({ kind: 'finish', interruption: null });
    expect(result().timing.firstBeatSeconds).toBe(0.5);
  });

  it('plays for those who want to listen', () => {
    const { id, instrument, a4 } = request;
    const rest = { id, instrument, a4, score, player: steadyPlayer, seed: 2, sampleRate: RATE };
    send({ kind: 'simulate', ...rest, leadSeconds: 0.5, tailSeconds: 0.5 });
    expect(ofKind('simulated')[0]!.audio).toEqual(audio);
  });

  it.each([
    ['a message of no kind', { kind: 'sing' }],
    ['a request that lacks its score', { kind: 'listen', ...request, score: undefined }],
    ['a request that lacks its instrument', { kind: 'listen', ...request, instrument: undefined }],
  ])('%s fails with words, and nothing hangs', (_, message) => {
    send(message, [port]);
    expect(ofKind('failed')).toHaveLength(1);
    expect(ofKind('failed')[0]!.problem.length).toBeGreaterThan(5);
    if ('id' in message) expect(ofKind('failed')[0]!.id).toBe(message.id);
  });

  it('samples that are none fail the take, not the worker', () => {
    listen();
    port.onmessage?.({ data: { frame: 0, samples: 'x' } });
    expect(ofKind('failed')).toHaveLength(1);
    send({ kind: 'finish', interruption: null });
    expect(ofKind('result')).toHaveLength(1);
  });
});

test('stored takes are read and judged, one answer for each, and a bad one spoils no other', () => {
  const good = storedOf(emptyTake({ id: 'good' }));
  const own: unknown[] = [];
  const takes = [good, { take: '{"version":3', trace: null }, { ...good, trace: null }];
  send({ id: 9, kind: 'digest', takes, own, limits: limitsOf('steady'), naming: 'english' });
  const [answer] = ofKind('digested');
  expect(answer?.id).toBe(9);
  expect(answer?.takes.map(({ ok }) => ok)).toEqual([true, false, false]);
  expect(answer?.takes[0]).toMatchObject({ value: { stored: { trace: good.trace }, entry: { id: 'good' } } });
});
