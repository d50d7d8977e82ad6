import { findInstrument } from '@/core/instruments';
import { heldNote } from '@/core/music/scores.testing';
import type { Note } from '@/core/hearing/notes';
import { silentHeard } from '@/core/take/takes.testing';
import type { KeptStretch, RunningStretch } from '@/store';
import type { Result } from '@/worker';
import type { KeptBeside } from '@/audio';
import { Stretches } from './stretches';

const mockKept: { index: number; piece: number; length: number; stretch: RunningStretch }[] = [];
let mockDiskFull = false;
const mockMeasured: { origin: number; length: number }[] = [];
let mockClosed = 0;
jest.mock('@/store', () => ({
  keepSound: (index: number, piece: number, audio: Int16Array, stretch: RunningStretch) => {
    if (mockDiskFull) return Promise.reject(new Error('no room'));
    mockKept.push({ index, piece, length: audio.length, stretch });
    return Promise.resolve();
  },
}));
jest.mock('@/worker', () => ({
  AnalysisClient: class {
    measure(_request: unknown, { origin, audio }: { origin: number; audio: Int16Array }) {
      mockMeasured.push({ origin, length: audio.length });
      return Promise.resolve({ ...mockHeard(audio.length), audio });
    }
    close() {
      mockClosed++;
    }
  },
}));

const RATE = 1000;
const score = heldNote('flute', { tempo: 60, beats: 8 });
const source: KeptBeside['source'] = { kind: 'microphone', name: 'm', processing: [] };
const beside = (part: Partial<KeptBeside> = {}): KeptBeside => ({
  request: {
    sampleRate: RATE,
    a4: 440,
    score,
    instrument: findInstrument('flute')!,
    gainControlled: false,
    longestSeconds: 900,
    firstBeat: 0.5,
    roundTrip: { seconds: 0, how: 'exact' },
  },
  origin: 0.1,
  clicks: [{ seconds: 0.2, accent: true }],
  source,
  ...part,
});

/** One note in the middle of so much silence. */
function mockHeard(samples: number): Result {
  const silent = silentHeard(samples, RATE);
  const note = { startSeconds: 0.2, endSeconds: silent.durationSeconds - 0.2, soundingMidi: 69 } as Note;
  const timing = { ...silent.timing, firstBeatSeconds: 0.5 };
  return { ...silent, notes: [note], timing, interruption: null };
}
const sound = (samples: number) => new Int16Array(samples);
const stopped = source as unknown as Parameters<Stretches['finish']>[1];

beforeEach(() => {
  mockKept.length = 0;
  mockMeasured.length = 0;
  mockDiskFull = false;
  mockClosed = 0;
});

describe('the stretches of a block', () => {
  it('are kept while they last, piece by piece, and the rest of the sound at the end', async () => {
    const stretches = new Stretches();
    expect(stretches.isEmpty).toBe(true);
    stretches.keep(sound(1000), beside(), 0, 0);
    stretches.keep(sound(1000), beside(), 0, 2);
    stretches.finish(mockHeard(2300), stopped, RATE, 0, 3);
    await stretches.whole();
    expect(mockKept.map(({ index, piece, length }) => [index, piece, length])).toEqual([
      [0, 0, 1000],
      [0, 1, 1000],
      [0, 2, 300],
    ]);
    // Until it was over it had not been measured; then it had.
    expect(mockKept.map(({ stretch }) => stretch.heard !== null)).toEqual([false, false, true]);
    expect(mockKept.map(({ stretch }) => stretch.place)).toEqual([0, 2, 3]);
    expect(stretches.conditions).toMatchObject({ source: 'microphone', sourceName: 'm', sampleRate: RATE });
  });

  it('are numbered one after the other and joined in their order', async () => {
    const stretches = new Stretches();
    stretches.keep(sound(1000), beside(), 0, 0);
    stretches.finish(mockHeard(1000), stopped, RATE, 0, 1);
    stretches.keep(sound(1000), beside(), 4, 1);
    stretches.finish(mockHeard(1500), stopped, RATE, 4, 2);
    const whole = await stretches.whole();
    expect(mockKept.map(({ index, piece }) => [index, piece])).toEqual([
      [0, 0],
      [0, 1],
      [1, 0],
      [1, 1],
    ]);
    expect(whole.durationSeconds).toBeGreaterThanOrEqual(2.5);
    expect(whole.notes).toHaveLength(2);
    expect(whole.notes[1]!.startSeconds).toBeGreaterThan(whole.notes[0]!.endSeconds);
    expect(whole.timing.resumed).toMatchObject([{ beat: 4 }]);
  });

  it('a full disk ends nothing: the take is still there', async () => {
    mockDiskFull = true;
    const stretches = new Stretches();
    stretches.keep(sound(1000), beside(), 0, 0);
    stretches.finish(mockHeard(1200), stopped, RATE, 0, 1);
    await expect(stretches.whole()).resolves.toMatchObject({ durationSeconds: 1.2 });
  });

  it('what a reload interrupted is measured when it is wanted, once, and what was measured is not measured again', async () => {
    const { request, origin, clicks } = beside();
    const kept = (part: Partial<KeptStretch>): KeptStretch => ({
      beat: 0,
      place: 1,
      source: { source: 'microphone', sourceName: 'm', sampleRate: RATE, processing: [] },
      kept: { request, origin, clicks: [...clicks] },
      heard: null,
      audio: sound(800),
      ...part,
    });
    const done = mockHeard(900);
    const stretches = new Stretches([kept({ heard: done, audio: sound(900) }), kept({ beat: 4 })]);
    expect(stretches.isEmpty).toBe(false);
    expect(stretches.conditions).toMatchObject({ sourceName: 'm' });
    stretches.keep(sound(500), beside(), 6, 2);
    stretches.finish(mockHeard(700), stopped, RATE, 6, 3);
    const whole = await stretches.whole();
    expect(mockMeasured).toEqual([{ origin: 0.1, length: 800 }]);
    expect(mockClosed).toBe(1);
    expect(whole.notes).toHaveLength(3);
    expect(whole.timing.resumed.map(({ beat }) => beat)).toEqual([4, 6]);
    // The new stretch lies behind those that were there.
    expect(mockKept.map(({ index }) => index)).toEqual([2, 2]);
  });
});
