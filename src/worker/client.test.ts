import { heldNote } from '@/core/music/scores.testing';
import { findInstrument } from '@/core/instruments';
import { steadyPlayer } from '@/core/lab';
import { AnalysisClient } from './client';

/** Stands where the worker stands: answers when the test says so. */
class MockWorker {
  static last: MockWorker;
  readonly sent: { id: number; kind: string }[] = [];
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;
  onmessageerror: (() => void) | null = null;
  ended = false;
  constructor() {
    MockWorker.last = this;
  }
  postMessage(message: { id: number; kind: string }) {
    this.sent.push(message);
  }
  terminate() {
    this.ended = true;
  }
  answers(data: unknown) {
    this.onmessage?.({ data });
  }
}

const request = {
  score: heldNote('flute'),
  instrument: findInstrument('flute')!,
  player: steadyPlayer,
  seed: 1,
  sampleRate: 8000,
  a4: 440,
  leadSeconds: 0,
  tailSeconds: 0,
};

describe('a call to the worker', () => {
  let client: AnalysisClient;
  beforeEach(() => {
    Object.assign(globalThis, { Worker: MockWorker });
    client = new AnalysisClient();
  });

  it('is answered by what carries its number, in whatever order', async () => {
    const [first, second] = [client.simulate(request), client.simulate(request)];
    const [a, b] = MockWorker.last.sent;
    MockWorker.last.answers({ id: b!.id, kind: 'simulated', audio: Float32Array.of(2) });
    MockWorker.last.answers({ id: a!.id, kind: 'simulated', audio: Float32Array.of(1) });
    expect((await first)[0]).toBe(1);
    expect((await second)[0]).toBe(2);
  });

  it('fails with the worker’s own words, and leaves the others waiting', async () => {
    const [first, second] = [client.simulate(request), client.simulate(request)];
    const [a, b] = MockWorker.last.sent;
    MockWorker.last.answers({ id: a!.id, kind: 'failed', problem: 'no such note' });
    await expect(first).rejects.toThrow('no such note');
    MockWorker.last.answers({ id: b!.id, kind: 'simulated', audio: Float32Array.of(2) });
    await expect(second).resolves.toHaveLength(1);
  });

  it.each([
    ['the worker breaks', (worker: MockWorker) => worker.onerror?.({ message: 'out of memory' })],
    ['a message cannot be read', (worker: MockWorker) => worker.onmessageerror?.()],
    ['an answer is none', (worker: MockWorker) => worker.answers({ id: 1, kind: 'singing' })],
  ])('fails when %s, and so does every call after it', async (_, happen) => {
    const problems: string[] = [];
    const call = client.simulate(request);
    client.listen(
      {
        ...request,
        gainControlled: false,
        longestSeconds: 1,
        firstBeat: null,
        roundTrip: { seconds: 0, how: 'exact' },
      },
      {} as MessagePort,
      {
        onLive: () => undefined,
        onSound: () => undefined,
        onResult: () => undefined,
        onProblem: (problem) => problems.push(problem),
      },
    );
    happen(MockWorker.last);
    await expect(call).rejects.toThrow(/\w{3,}/);
    expect(problems).toHaveLength(1);
    await expect(client.simulate(request)).rejects.toThrow(/\w{3,}/);
  });
});
