import { findInstrument } from '@/core/instruments';
import { heldNote, scoreOfFamily } from '@/core/music/scores.testing';
import { steadyPlayer } from '@/core/lab';
import type { ListenHandlers, Result, TakeRequestMessage } from '@/worker';
import { installMicrophone, type FakeMicrophone } from './microphone.testing';
import { Session, type SessionOptions } from './session';
import { SourceProblem } from './source';
import { FakeContext, FakeSounding, installWebAudio } from './webAudio.testing';

/** The analysis worker as a session sees it. */
const mockWorker = {
  request: null as TakeRequestMessage | null,
  handlers: null as ListenHandlers | null,
  clicks: [] as number[],
  firstBeat: null as number | null,
  finished: [] as (string | null)[],
  closed: false,
};
jest.mock('@/worker', () => ({
  AnalysisClient: class {
    takeOrigin = 0.2;
    listen(request: TakeRequestMessage, _port: MessagePort, handlers: ListenHandlers) {
      Object.assign(mockWorker, { request, handlers });
    }
    simulate() {
      return Promise.resolve(new Float32Array(48_000));
    }
    setFirstBeat(firstBeat: number) {
      mockWorker.firstBeat = firstBeat;
    }
    addClicks(clicks: { seconds: number }[]) {
      mockWorker.clicks.push(...clicks.map(({ seconds }) => seconds));
    }
    finish(interruption: string | null) {
      mockWorker.finished.push(interruption);
    }
    close() {
      mockWorker.closed = true;
    }
  },
}));

let microphone: FakeMicrophone;
const results: { result: Result; name: string }[] = [];
const problems: string[] = [];
const stops: string[] = [];
const score = scoreOfFamily('octave-slurs', 'flute', { tempo: 60 });
const options = (change: Partial<SessionOptions> = {}): SessionOptions => ({
  score,
  instrument: findInstrument('flute')!,
  fromBeat: 0,
  rest: score,
  a4: 442,
  offsets: [1, 2, 3],
  purity: { cents: 6, decibels: 3 },
  source: { kind: 'microphone' },
  metronome: { sounds: true, subdivision: 1, accents: true },
  drone: null,
  headphones: false,
  roundTrips: {},
  waits: false,
  onLive: () => undefined,
  onSound: () => undefined,
  onResult: (result, source) => results.push({ result, name: source.name }),
  onProblem: (problem) => problems.push(problem),
  onStopped: (reason) => stops.push(reason),
  ...change,
});

let session: Session | null = null;
const start = async (change: Partial<SessionOptions> = {}) =>
  (session = await Session.start(options(change)));

beforeEach(() => {
  jest.useFakeTimers();
  installWebAudio();
  microphone = installMicrophone();
  globalThis.MessageChannel ??= class {
    port1 = {};
    port2 = {};
  } as never;
  Object.assign(mockWorker, {
    request: null,
    handlers: null,
    clicks: [],
    firstBeat: null,
    finished: [],
    closed: false,
  });
  results.length = 0;
  problems.length = 0;
  stops.length = 0;
});
afterEach(() => {
  session?.cancel();
  session = null;
  jest.useRealTimers();
});

describe('a session with a microphone', () => {
  it('tells the worker what it listens to, and when the first beat is', async () => {
    const running = await start();
    expect(mockWorker.request).toMatchObject({
      sampleRate: 48_000,
      a4: 442,
      offsets: [1, 2, 3],
      gainControlled: false,
      drone: [],
      partner: false,
      roundTrip: { how: 'assumed' },
    });
    expect(mockWorker.firstBeat).toBeCloseTo(0.35 + 4, 6);
    expect(mockWorker.clicks.slice(0, 3)).toEqual([0.35, 1.35, 2.35]);
    expect(running.beat).toBeCloseTo(-4.35, 6);
    FakeContext.last.currentTime = 5.35;
    expect(running.beat).toBeCloseTo(1, 6);
    expect(running.ageOf(5)).toBeCloseTo(0.15, 6);
  });

  it('counts in two beats where the music is entered in the middle', async () => {
    await start({ fromBeat: 9 });
    expect(session!.beat).toBeCloseTo(9 - 4 - 0.35, 6);
    session!.cancel();
    await start({ fromBeat: 9, score: { ...score, countInBeats: 0 } });
    expect(session!.beat).toBeCloseTo(9 - 2 - 0.35, 6);
  });

  it('waits for the beat to be set going', async () => {
    const running = await start({ waits: true });
    expect(running.isBeating).toBe(false);
    expect(running.beat).toBeNull();
    FakeContext.last.currentTime = 30;
    running.beginBeat();
    expect(running.isBeating).toBe(true);
    expect(mockWorker.firstBeat).toBeCloseTo(34.35, 6);
  });

  it('knows its round trip where it was measured, and reports a gain control that stayed on', async () => {
    microphone.settings = { autoGainControl: true, noiseSuppression: true };
    await start({ roundTrips: { 'Stand microphone': 0.123 } });
    expect(mockWorker.request).toMatchObject({
      gainControlled: true,
      roundTrip: { seconds: 0.123, how: 'device' },
    });
  });

  it('takes the drone out of what is heard, unless it cannot be heard', async () => {
    const drone = { pitches: [220, 330], sound: 'reed', volume: 0.4 } as const;
    await start({ drone });
    expect(mockWorker.request!.drone).toEqual([220, 330]);
    expect(session!.hasDrone).toBe(true);
    session!.cancel();
    await start({ drone, headphones: true });
    expect(mockWorker.request!.drone).toEqual([]);
  });

  it('reports clicks only while they are heard', async () => {
    await start({ metronome: { sounds: false, subdivision: 1, accents: true } });
    const silent = mockWorker.clicks.length;
    FakeContext.last.currentTime = 2;
    session!.setMetronomeSounding(true);
    // Those that were planned and have still to come are heard now.
    expect(mockWorker.clicks.slice(silent).every((seconds) => seconds > 2)).toBe(true);
    expect(mockWorker.clicks.length).toBeGreaterThan(silent);
    session!.setMetronomeSounding(false);
    const before = mockWorker.clicks.length;
    FakeContext.last.currentTime = 8;
    jest.advanceTimersByTime(500);
    expect(mockWorker.clicks).toHaveLength(before);
  });

  it('says when the microphone goes away or is muted, and is then finished with what was heard', async () => {
    await start();
    microphone.unplug();
    expect(stops[0]).toMatch(/went away/);
    session!.finish(stops[0]);
    mockWorker.handlers!.onResult({ floorDb: -70 } as Result);
    expect(results).toEqual([{ result: { floorDb: -70 }, name: 'Stand microphone' }]);
    expect(FakeContext.last.closed).toBe(true);
    expect(mockWorker.closed).toBe(true);
    session!.finish();
    expect(mockWorker.finished).toHaveLength(1);

    stops.length = 0;
    await start();
    microphone.mute();
    jest.advanceTimersByTime(450);
    expect(stops).toEqual([]);
    microphone.muted = true;
    microphone.mute();
    FakeContext.last.currentTime += 0.4;
    jest.advanceTimersByTime(450);
    expect(stops[0]).toMatch(/muted/);
  });

  it('says once when the device takes the sound away, or lets its clock stand still', async () => {
    await start();
    FakeContext.last.suspendedByDevice();
    FakeContext.last.suspendedByDevice();
    expect(stops).toHaveLength(1);

    stops.length = 0;
    await start();
    for (let i = 0; i < 10; i++) {
      FakeContext.last.currentTime += 0.25;
      jest.advanceTimersByTime(250);
    }
    expect(stops).toEqual([]);
    jest.advanceTimersByTime(1000);
    expect(stops).toEqual([]);
    jest.advanceTimersByTime(1250);
    expect(stops[0]).toMatch(/was stopped/);
  });

  it('that was ended by the player does not call it a stop', async () => {
    await start();
    session!.cancel();
    FakeContext.last.suspendedByDevice();
    jest.advanceTimersByTime(5000);
    expect(stops).toEqual([]);
  });

  it('gives everything back when the analysis fails', async () => {
    await start();
    mockWorker.handlers!.onProblem('out of memory');
    expect(problems).toEqual(['out of memory']);
    expect(FakeContext.last.closed).toBe(true);
  });

  it.each([
    ['NotAllowedError', /not allowed/],
    ['NotFoundError', /No microphone was found/],
    ['NotReadableError', /in use elsewhere/],
    ['OtherError', /could not be opened/],
  ])('%s is told with its remedy, and nothing stays open', async (name, words) => {
    microphone.refused = Object.assign(new Error('x'), { name });
    const failed = start();
    await expect(failed).rejects.toThrow(SourceProblem);
    await expect(failed).rejects.toThrow(words);
    expect(FakeContext.last.closed).toBe(true);
    expect(mockWorker.closed).toBe(true);
  });
});

describe('other sources', () => {
  it('the simulated player begins a little before the first beat, exactly, and hears the metronome in the room', async () => {
    await start({ source: { kind: 'simulated', player: steadyPlayer, seed: 1 } });
    expect(mockWorker.request!.roundTrip).toEqual({ seconds: 0, how: 'exact' });
    const player = FakeSounding.made.find((node) => node.started !== null && node.outputs.length === 2)!;
    expect(player.started).toBeCloseTo(0.35 + 4 - 0.25, 6);
    session!.cancel();
    expect(player.stopped).toBe(true);
  });

  it('nothing at all still keeps the beat', async () => {
    const air = scoreOfFamily('air-drills', 'flute');
    await start({ source: { kind: 'none' }, score: air, rest: air });
    expect(session!.isBeating).toBe(true);
  });

  it('in free time nothing beats', async () => {
    const free = heldNote('flute', { tempo: null });
    await start({ score: free, rest: free, metronome: null });
    expect(session!.beat).toBeNull();
    expect(mockWorker.firstBeat).toBeNull();
  });
});
