import { act, createElement } from 'react';
import { findInstrument } from '@/core/instruments';
import { beatsToSeconds, type Score } from '@/core/music';
import { heldNote, scoreOfFamily } from '@/core/music/scores.testing';
import type { FaultRates } from '@/core/lab';
import { mount, type Mounted } from '@/ui/mount.testing';
import { settled } from '@/features/sound/frames.testing';
import { useExample } from './useExample';

const mockPlayed: { samples: Float32Array; end: () => void }[] = [];
let mockStops = 0;
jest.mock('@/audio', () => ({
  Playback: class {
    play(samples: Float32Array, _rate: number, end: () => void) {
      mockPlayed.push({ samples, end });
    }
    stop() {
      mockStops++;
    }
  },
}));
interface Asked {
  readonly score: Score;
  readonly faults: FaultRates;
  readonly a4: number;
}
/** The worker: it plays when the test says so. */
interface Player {
  readonly asked: Asked;
  readonly done: (samples: Float32Array) => void;
  closed: boolean;
}
const mockPlayers: Player[] = [];
jest.mock('@/worker', () => ({
  AnalysisClient: class {
    private player: Player | null = null;
    simulate(asked: Asked) {
      return new Promise<Float32Array>((done) => {
        this.player = { asked, done, closed: false };
        mockPlayers.push(this.player);
      });
    }
    close() {
      if (this.player) this.player.closed = true;
    }
  },
}));

const flute = findInstrument('flute')!;

describe('an example', () => {
  let page: Mounted;
  let example: ReturnType<typeof useExample>;
  function Example({ score }: { score: Score | null }) {
    example = useExample(score, flute, 442);
    return null;
  }
  const show = (score: Score | null) => (page = mount(createElement(Example, { score })));
  const play = (kind: 'clean' | 'faulty') => act(() => example.play(kind));
  const finish = (player: Player) =>
    act(async () => {
      player.done(new Float32Array(100));
      await settled();
    });

  const slurs = scoreOfFamily('octave-slurs', 'flute');

  beforeEach(() => {
    mockPlayed.length = 0;
    mockPlayers.length = 0;
    mockStops = 0;
  });
  afterEach(() => page.leave());

  it('an example is played by the worker, heard, and over', async () => {
    show(slurs);
    play('clean');
    expect(example).toMatchObject({ state: 'preparing', kind: 'clean' });
    expect(mockPlayers[0]!.asked.a4).toBe(442);
    await finish(mockPlayers[0]!);
    expect(example.state).toBe('playing');
    expect(mockPlayers[0]!.closed).toBe(true);
    act(() => mockPlayed[0]!.end());
    expect(example.state).toBe('silent');
  });

  it('the faulty one has the fault that it says to listen for, the clean one none', () => {
    show(slurs);
    play('faulty');
    play('clean');
    const [faulty, clean] = mockPlayers.map(({ asked }) =>
      Object.values(asked.faults).filter((rate) => rate > 0),
    );
    expect(faulty!.length).toBeGreaterThan(0);
    expect(clean).toEqual([]);
    expect(example.listenFor).not.toBe('');
  });

  it('nobody has to listen to all of a long exercise', () => {
    const long = scoreOfFamily('tendency-scan', 'flute');
    show(long);
    play('clean');
    const { notes } = mockPlayers[0]!.asked.score;
    expect(notes.length).toBeLessThan(long.notes.length);
    expect(notes).toEqual(long.notes.slice(0, notes.length));
    expect(beatsToSeconds(long, notes.at(-1)!.startBeat)).toBeLessThan(40);
  });

  it('whoever changes their mind hears only the last that was asked for', async () => {
    show(slurs);
    play('clean');
    play('faulty');
    const [first, second] = mockPlayers;
    await finish(first!);
    expect(mockPlayed).toHaveLength(0);
    await finish(second!);
    expect(mockPlayed).toHaveLength(1);
    expect(example).toMatchObject({ state: 'playing', kind: 'faulty' });
  });

  it('other music silences the example, and so does leaving', async () => {
    show(slurs);
    play('clean');
    await finish(mockPlayers[0]!);
    const before = mockStops;
    page.show(createElement(Example, { score: heldNote('flute') }));
    expect(mockStops).toBeGreaterThan(before);
    expect(example.state).toBe('silent');
    play('clean');
    page.leave();
    expect(mockPlayers[1]!.closed).toBe(true);
    show(null);
    play('clean');
    expect(mockPlayers).toHaveLength(2);
  });
});
