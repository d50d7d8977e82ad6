import { createElement } from 'react';
import type { Take } from '@/core/take';
import { emptyTake } from '@/core/take/takes.testing';
import { mount, type Mounted } from '@/ui/mount.testing';
import { act } from 'react';
import { useHearing } from './useHearing';
import { usePlace, type PlaceSound } from './usePlace';

interface Played {
  readonly samples: Int16Array | Float32Array;
  readonly rate: number;
  readonly end: () => void;
  readonly loop: boolean;
}
const mockPlayed: Played[] = [];
let mockStops = 0;
jest.mock('@/audio', () => ({
  Playback: class {
    play(samples: Float32Array, rate: number, end: () => void, loop = false) {
      mockPlayed.push({ samples, rate, end, loop });
    }
    stop() {
      mockStops++;
    }
  },
}));
const mockSound = new Map<string, Int16Array>();
jest.mock('@/store', () => ({ loadAudio: (id: string) => Promise.resolve(mockSound.get(id) ?? null) }));

let page: Mounted | null = null;
beforeEach(() => {
  mockPlayed.length = 0;
  mockStops = 0;
  mockSound.clear();
});
afterEach(() => {
  page?.leave();
  page = null;
});

const takeAt = (id: string, sampleRate: number): Take => {
  const take = emptyTake({ id });
  return { ...take, conditions: { ...take.conditions, sampleRate } };
};
const settle = () => act(async () => Promise.resolve());

describe('hearing one place', () => {
  let place: ReturnType<typeof usePlace>;
  function Place({ take, other }: { take: Take; other: Parameters<typeof usePlace>[1] }) {
    place = usePlace(take, other);
    return null;
  }
  const there = (other: Parameters<typeof usePlace>[1] = null) => {
    mockSound.set('mine', new Int16Array(10_000).fill(8000));
    page = mount(createElement(Place, { take: takeAt('mine', 1000), other }));
  };
  const play = async (wanted: Exclude<PlaceSound, 'silent'>, from: number, to: number) => {
    await act(() => place.play(wanted, from, to));
    await settle();
  };

  it('is that place with a little around it, over and over, without a click at its ends', async () => {
    there();
    await play('this', 2, 3);
    const [{ samples, loop, rate }] = mockPlayed as [Played];
    expect(loop).toBe(true);
    expect(rate).toBe(1000);
    // 0.35 s before, 0.25 s after, and a pause.
    expect(samples.length).toBe(350 + 1000 + 250 + 450);
    expect(samples[0]).toBe(0);
    expect(samples[1599]).toBe(0);
    expect(samples[800]).toBeCloseTo(8000 / 32_768, 6);
    expect(place.state).toBe('this');
    act(() => place.stop());
    expect(place.state).toBe('silent');
  });

  it('stays within the sound that there is, and does not loop a long hold for ever', async () => {
    there();
    await play('this', 0.1, 9.9);
    expect(mockPlayed[0]!.samples.length).toBe(100 + 6000 + 250 + 450);
    await play('this', 9.5, 20);
    expect(mockPlayed[1]!.samples.length).toBe(350 + 500 + 450);
  });

  it('is heard in turn with another take, whatever that was recorded with', async () => {
    mockSound.set('other', new Int16Array(20_000).fill(-8000));
    there({ take: takeAt('other', 2000), startSeconds: 1, endSeconds: 2 });
    await play('both', 2, 3);
    const { samples } = mockPlayed[0]!;
    expect(samples.length).toBeCloseTo(2 * (350 + 1000 + 250 + 450), -1);
    expect(samples[800]).toBeGreaterThan(0.2);
    expect(samples[2050 + 800]).toBeLessThan(-0.2);
    expect(place.state).toBe('both');
  });

  it('is silent where no sound was kept, and when it is left', async () => {
    page = mount(createElement(Place, { take: takeAt('gone', 1000), other: null }));
    await play('this', 0, 1);
    expect(mockPlayed).toEqual([]);
    expect(place.state).toBe('silent');
  });
});

describe('hearing a take', () => {
  let hearing: ReturnType<typeof useHearing>;
  function Hear({ take }: { take: Take | null }) {
    hearing = useHearing(take);
    return null;
  }

  it('plays it to its end, or until it is stopped', async () => {
    mockSound.set('mine', new Int16Array(500));
    page = mount(createElement(Hear, { take: takeAt('mine', 1000) }));
    act(() => hearing.toggle());
    await settle();
    expect(hearing.playing).toBe(true);
    expect(mockPlayed[0]).toMatchObject({ rate: 1000, loop: false });
    act(() => mockPlayed[0]!.end());
    expect(hearing.playing).toBe(false);
    act(() => hearing.toggle());
    await settle();
    act(() => hearing.toggle());
    expect(hearing.playing).toBe(false);
    expect(mockStops).toBeGreaterThan(0);
  });

  it('does nothing without sound or take', async () => {
    page = mount(createElement(Hear, { take: null }));
    act(() => hearing.toggle());
    await settle();
    expect(hearing.playing).toBe(false);
  });

  it('hears nothing that was still being loaded when the page was left', async () => {
    mockSound.set('mine', new Int16Array(500));
    page = mount(createElement(Hear, { take: takeAt('mine', 1000) }));
    act(() => hearing.toggle());
    page.leave();
    page = null;
    await settle();
    expect(mockPlayed).toEqual([]);
  });

  it('is not silenced by the end of what was heard before', async () => {
    mockSound.set('mine', new Int16Array(500));
    page = mount(createElement(Hear, { take: takeAt('mine', 1000) }));
    for (let i = 0; i < 3; i++) {
      act(() => hearing.toggle());
      await settle();
    }
    const [first, second] = mockPlayed;
    expect(mockPlayed).toHaveLength(2);
    act(() => first!.end());
    expect(hearing.playing).toBe(true);
    act(() => second!.end());
    expect(hearing.playing).toBe(false);
  });
});
