import { findInstrument } from '@/core/instruments';
import { heldNote } from '@/core/music/scores.testing';
import { RunningStore, type RunningStretch } from './runningStore';
import { MapStorage, tabs } from './storage.testing';

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
const all = tabs();
/** The block of a tab; a page that was reloaded is the same one. */
const opened = (tab: string) => new RunningStore(storage, 'test', all.open(tab));
beforeEach(() => {
  storage = new MapStorage();
  running = opened('here');
});

describe('a block while it is played', () => {
  it('is found again with its sound after the page was closed', async () => {
    await running.begin(score, new Date('2030-01-01T10:00:00Z'));
    await running.addSound(0, 0, sound(300, 1), stretch(0, 0));
    await running.addSound(0, 1, sound(200, 2), stretch(0, 3));
    await running.addSound(1, 0, sound(100, 3), stretch(4, 5));
    // Another page, the same storage.
    const found = await opened('here').readRunning();
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
    await running.begin(score, new Date('2030-01-01T10:00:00Z'));
    expect(await running.readRunning()).toBeNull();
    await running.addSound(0, 0, sound(10, 1), stretch(0, 0));
    await running.clear();
    expect(await running.readRunning()).toBeNull();
    expect([...storage.map.keys()]).toEqual(['desk']);
  });

  it('gives way to the next block, whose sound is not mixed with it', async () => {
    await running.begin(score, new Date(1000));
    await running.addSound(0, 0, sound(10, 1), stretch(0, 0));
    await running.addSound(0, 1, sound(10, 1), stretch(0, 0));
    await running.begin(score, new Date(2000));
    await running.addSound(0, 0, sound(4, 9), stretch(0, 0));
    const found = await running.readRunning();
    expect(found?.startedAt).toBe(new Date(2000).toISOString());
    expect(found?.stretches[0]?.audio).toHaveLength(4);
  });

  it('that is damaged hides nothing and breaks nothing', async () => {
    await running.begin(score, new Date(1000));
    await running.addSound(0, 0, sound(10, 1), stretch(0, 0));
    for (const key of storage.map.keys()) if (/^running\//.test(key)) storage.map.set(key, '{"score":');
    expect(await running.readRunning()).toBeNull();
    storage.map.set('block', 'null');
    expect(await running.readBlock()).toBeNull();
  });
});

describe('blocks of two tabs', () => {
  it('are not mixed, and one that is left when its tab is closed is taken up by another, once', async () => {
    const other = opened('other');
    await running.begin(score, new Date(1000));
    await other.begin(score, new Date(2000));
    await running.addSound(0, 0, sound(3, 1), stretch(0, 0));
    await other.addSound(0, 0, sound(5, 2), stretch(0, 0));
    expect((await opened('here').readRunning())?.stretches[0]?.audio).toHaveLength(3);
    expect((await opened('other').readRunning())?.stretches[0]?.audio).toHaveLength(5);
    await running.clear();
    expect(await running.readRunning()).toBeNull();
    all.close('other');
    expect((await running.readRunning())?.stretches[0]?.audio).toHaveLength(5);
    expect(await opened('third').readRunning()).toBeNull();
  });
});

test('what is on the stand is there again after a reload', async () => {
  await running.writeBlock({ score, from: '/exercise/long-tone' });
  expect(await opened('here').readBlock()).toEqual({ score, from: '/exercise/long-tone' });
});
