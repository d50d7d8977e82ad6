import { act, createElement } from 'react';
import { mount } from '@/ui/mount.testing';
import { heldNote, scoreOfFamily } from '@/core/music/scores.testing';
import { putOnStand, useBlock, useSettings } from '.';

interface Memory {
  readonly MapStorage: new () => object;
}
// What is kept in IndexedDB is kept in memory here, every access a little later.
const mockKept: Record<string, (...rest: unknown[]) => Promise<unknown>>[] = [];
jest.mock('@react-native-async-storage/async-storage', () => ({
  createAsyncStorage: () => {
    const { MapStorage } = jest.requireActual<Memory>('./storage.testing');
    const storage = new MapStorage() as (typeof mockKept)[number];
    mockKept.push(storage);
    return new Proxy(storage, {
      get:
        (target, name: string) =>
        async (...rest: unknown[]) => {
          await new Promise((done) => setTimeout(done, 2));
          return target[name]!(...rest);
        },
    });
  },
}));

test('changes that come quickly after each other are all kept', async () => {
  let settings: ReturnType<typeof useSettings> | null = null;
  function Settings() {
    settings = useSettings();
    return null;
  }
  globalThis.fetch = () => Promise.reject(new Error('no server'));
  const page = mount(createElement(Settings));
  await act(async () => {
    await Promise.all([
      settings!.change({ a4: 440 }),
      settings!.change({ level: 'exacting' }),
      settings!.change({ headphones: true }),
    ]);
  });
  // Two taps on one control, the second before the first is stored: it begins from what the first one showed.
  const stored: Promise<void>[] = [];
  const up = () => act(() => void stored.push(settings!.change({ a4: settings!.settings.a4 + 1 })));
  up();
  up();
  expect(settings!.settings.a4).toBe(442);
  await act(async () => void (await Promise.all(stored)));
  expect(settings!.settings).toMatchObject({ a4: 442, level: 'exacting', headphones: true });
  const kept = await Promise.all(mockKept.map((storage) => storage['getItem']!('settings')));
  const found = kept.find((text) => typeof text === 'string') as string;
  expect(JSON.parse(found)).toMatchObject({ a4: 442, level: 'exacting', headphones: true });
  page.leave();
});

test('what a slider has reached is never shown as what it passed, while the steps are stored one by one', async () => {
  const shown: number[] = [];
  let settings: ReturnType<typeof useSettings> | null = null;
  function Settings() {
    settings = useSettings();
    shown.push(settings.settings.a4);
    return null;
  }
  globalThis.fetch = () => Promise.reject(new Error('no server'));
  const page = mount(createElement(Settings));
  await act(async () => settings!.change({ a4: 430 }));
  shown.length = 0;
  const stored: Promise<void>[] = [];
  for (let step = 0; step < 8; step++) {
    act(() => void stored.push(settings!.change({ a4: settings!.settings.a4 + 1 })));
    // Some are stored while others are still to come.
    await act(async () => new Promise((done) => setTimeout(done, 3)));
  }
  await act(async () => void (await Promise.all(stored)));
  expect(shown).toEqual([...shown].sort((a, b) => a - b));
  expect(shown[shown.length - 1]).toBe(438);
  page.leave();
});

test('what is put on the stand is what the stand finds, the first time and after another', async () => {
  const shown: (string | null)[] = [];
  function Stand() {
    const { data: block } = useBlock();
    if (block !== undefined) shown.push(block?.score.family ?? null);
    return null;
  }
  const storeIsDone = () => act(async () => void (await new Promise((done) => setTimeout(done, 60))));
  for (const score of [heldNote('flute'), scoreOfFamily('air-drills', 'flute')]) {
    shown.length = 0;
    // The touch: put there, and gone there, before the store has written anything.
    let put: Promise<void> | undefined;
    act(() => void (put = putOnStand(score, '/practise')));
    const stand = mount(createElement(Stand));
    await act(() => put!);
    await storeIsDone();
    expect(new Set(shown)).toEqual(new Set([score.family]));
    stand.leave();
  }
});
