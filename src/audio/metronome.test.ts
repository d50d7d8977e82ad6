import * as fc from 'fast-check';
import { pulsesFrom } from '@/core/music';
import type { Click } from '@/core/hearing/signal';
import { Metronome, type MetronomeOptions } from './metronome';
import type { FakeGain } from './webAudio.testing';
import { contextOf, FakeContext, FakeSounding, installWebAudio, nodeOf } from './webAudio.testing';

let context: FakeContext;
let clicks: Click[];
let metronome: Metronome;
beforeEach(() => {
  jest.useFakeTimers();
  installWebAudio();
  context = new FakeContext();
  clicks = [];
});
afterEach(() => {
  metronome.stop();
  jest.useRealTimers();
});

const USUAL: Omit<MetronomeOptions, 'outputs' | 'onScheduled' | 'pulses' | 'firstBeat'> = {
  tempo: 60,
  firstClick: 0.35,
  fromBeat: 0,
  subdivision: 1,
  accents: true,
  gain: 0.35,
};

interface Change extends Partial<MetronomeOptions> {
  readonly countInBeats?: number;
  readonly beatsPerBar?: number;
}

function beating({ countInBeats = 4, beatsPerBar = 4, ...change }: Change = {}): Metronome {
  const firstBeat = (change.fromBeat ?? 0) - countInBeats;
  metronome = new Metronome(contextOf(context), {
    ...USUAL,
    pulses: pulsesFrom({ beatsPerBar, metres: [] }, firstBeat),
    firstBeat,
    outputs: [nodeOf(context.destination)],
    onScheduled: (more) => clicks.push(...more),
    ...change,
  });
  return metronome;
}

/** Lets the audio clock and the page's timers run, the page's as late as it likes. */
function run(seconds: number, step = 0.4): void {
  for (const end = context.currentTime + seconds; context.currentTime < end;) {
    context.currentTime += step;
    jest.advanceTimersByTime(1000 * step);
  }
}

describe('the metronome', () => {
  it('beats by the audio clock: every beat and its parts once, however late the page is', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 30, max: 208 }),
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 0, max: 8 }),
        fc.integer({ min: 0, max: 40 }),
        fc.double({ min: 0.05, max: 2.5, noNaN: true }),
        (tempo, subdivision, countInBeats, fromBeat, step) => {
          context = new FakeContext();
          clicks = [];
          beating({ tempo, subdivision, countInBeats, fromBeat });
          run(9, step);
          const beats = clicks.map(({ seconds }) => metronome.beatAt(seconds));
          const expected: number[] = [];
          for (let beat = fromBeat - countInBeats; expected.length < beats.length; beat++)
            for (let part = 0; part < (beat < fromBeat ? 1 : subdivision); part++)
              expected.push(beat + part / subdivision);
          beats.forEach((beat, i) => expect(beat).toBeCloseTo(expected[i]!, 6));
          // And none is missing up to now.
          expect(clicks[clicks.length - 1]!.seconds).toBeGreaterThan(context.currentTime - 60 / tempo);
          metronome.stop();
        },
      ),
      { numRuns: 60 },
    );
  });

  it('accents the first of each bar, also when the music is entered in the middle', () => {
    beating({ beatsPerBar: 3, countInBeats: 2, fromBeat: 7 });
    run(9);
    for (const { seconds, accent } of clicks) {
      const beat = Math.round(metronome.beatAt(seconds));
      expect(accent).toBe(((beat % 3) + 3) % 3 === 0);
    }
    clicks = [];
    metronome.stop();
    beating({ accents: false });
    expect(clicks.some(({ accent }) => accent)).toBe(false);
  });

  it('plays each click at its own time, the parts of a beat softer than the beat', () => {
    beating({ subdivision: 3, countInBeats: 0 });
    const started = FakeSounding.made.map((node) => node.started);
    expect(started).toEqual(clicks.map(({ seconds }) => seconds));
    const gains = FakeSounding.made.map((node) => (node.outputs[0] as FakeGain).gain.value);
    expect(gains.slice(0, 3)).toEqual([0.35, 0.35, 0.35]);
    const [beat, part] = FakeSounding.made.map((node) => node.outputs[0] as FakeGain);
    // The soft path goes through the loud one, and makes it softer.
    expect(part).not.toBe(beat);
    expect(part!.outputs).toContain(beat);
  });

  it('can be silent and go on beating, and stops for good', () => {
    beating();
    metronome.setSounding(false);
    const before = clicks.length;
    run(5);
    expect(clicks.length).toBeGreaterThan(before);
    metronome.setSounding(true);
    metronome.stop();
    const after = clicks.length;
    run(5);
    expect(clicks).toHaveLength(after);
    expect(context.destination.outputs).toEqual([]);
  });
});
