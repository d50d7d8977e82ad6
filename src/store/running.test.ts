import { findInstrument } from '@/core/instruments';
import { heldNote } from '@/core/music/scores.testing';
import { RunningStore, type RunningStretch } from './runningStore';
import { MapStorage } from './storage.testing';

const score = heldNote('flute');

const stretch = (beat: number, place: number): RunningStretch => ({
  beat,
  place,
  source: { source: 'microphone', sourceName: 'm', sampleRate: 48_000, processing: [] },
  kept: {
    request: {
      sampleRate: 48_000,
      a4: 440,
      score,
      instrument: findInstrument('flute')!,
      gainControlled: false,
      longestSeconds: 900,
      firstBeat: 1.5,
      roundTrip: { seconds: 0.02, how: 'assumed' },
    },
    origin: 0.25,
    clicks: [{ seconds: 0.5, accent: true }],
  },
  heard: null,
});
const sound = (length: number, value: number) => new Int16Array(length).fill(value);

let storage: MapStorage;
let running: RunningStore;
beforeEach(() => {
  storage = new MapStorage();
  running = new RunningStore(storage);
});

describe('a block while it is played', () => {
  it('is found again with its sound after the page was closed', async () => {
    await running.begin(score, '2030-01-01T10:00:00Z');
    await running.addSound(0, 0, sound(300, 1), stretch(0, 0));
    await running.addSound(0, 1, sound(200, 2), stretch(0, 3));
    await running.addSound(1, 0, sound(100, 3), stretch(4, 5));
    // Another page, the same storage.
    const found = await new RunningStore(storage).readRunning();
    expect(found?.score).toEqual(score);
    expect(found?.stretches.map(({ beat, place, audio }) => [beat, place, audio.length])).toEqual([
      [0, 3, 500],
      [4, 5, 100],
    ]);
    expect([found?.stretches[0]?.audio[299], found?.stretches[0]?.audio[300]]).toEqual([1, 2]);
    expect(found?.stretches[0]?.kept.clicks).toEqual([{ seconds: 0.5, accent: true }]);
  });

  it('is nothing to go on with before a sound was heard, and after it was finished', async () => {
    expect(await running.readRunning()).toBeNull();
    await running.begin(score, '2030-01-01T10:00:00Z');
    expect(await running.readRunning()).toBeNull();
    await running.addSound(0, 0, sound(10, 1), stretch(0, 0));
    await running.clear();
    expect(await running.readRunning()).toBeNull();
    expect([...storage.map.keys()]).toEqual([]);
  });

  it('gives way to the next block, whose sound is not mixed with it', async () => {
    await running.begin(score, 'first');
    await running.addSound(0, 0, sound(10, 1), stretch(0, 0));
    await running.addSound(0, 1, sound(10, 1), stretch(0, 0));
    await running.begin(score, 'second');
    await running.addSound(0, 0, sound(4, 9), stretch(0, 0));
    const found = await running.readRunning();
    expect(found?.startedAt).toBe('second');
    expect(found?.stretches[0]?.audio).toHaveLength(4);
  });

  it('that is damaged hides nothing and breaks nothing', async () => {
    storage.map.set('running', '{"score":');
    expect(await running.readRunning()).toBeNull();
    storage.map.set('block', 'null');
    expect(await running.readBlock()).toBeNull();
  });
});

test('what is on the stand is there again after a reload', async () => {
  await running.writeBlock({ score, from: '/exercise/long-tone' });
  expect(await new RunningStore(storage).readBlock()).toEqual({ score, from: '/exercise/long-tone' });
});
