import { heldNote, scoreOfFamily } from '@/core/music/scores.testing';
import type { Score } from '@/core/music';
import { groupsOf } from '@/core/hearing/matching';
import { findInstrument } from '@/core/instruments';
import type { Take } from '@/core/take';
import { defaultSettings, type Running, type Settings } from '@/store';
import { installFrames, settled, type Frames } from '@/features/sound/frames.testing';
import { MockSession } from './mockSession.testing';
import { StandEngine } from './standEngine';

const mockSaved: Take[] = [];
const mockCalls: string[] = [];
jest.mock('@/audio', () => ({
  get Session() {
    return MockSession;
  },
  SourceProblem: class SourceProblem extends Error {},
}));
jest.mock('@/store', () => ({
  ...jest.requireActual<object>('@/store'),
  beginRunning: () => Promise.resolve(void mockCalls.push('begin')),
  clearRunning: () => Promise.resolve(void mockCalls.push('clear')),
  refreshRunning: () => Promise.resolve(void mockCalls.push('refresh')),
  keepSound: () => Promise.resolve(),
  saveDraft: (take: Take) => Promise.resolve(void mockSaved.push(take)),
}));

let frames: Frames;
const frame = (ms?: number) => frames.pass(ms);

const flute = findInstrument('flute')!;
const slurs = (values = {}) =>
  scoreOfFamily('octave-slurs', 'flute', { range: { low: 64, high: 66 }, tempo: 60, ...values });
let done = 0;
let engine: StandEngine;

function stand(score: Score, change: Partial<Settings> = {}, running: Running | null = null): StandEngine {
  const settings = { ...defaultSettings, ...change };
  engine = new StandEngine({ score, instrument: flute, settings, running, onDone: () => done++ });
  return engine;
}
async function started(score: Score, change: Partial<Settings> = {}): Promise<MockSession> {
  stand(score, change).start();
  await settled();
  frame();
  return MockSession.last;
}
const state = () => engine.snapshot();
/** Puts the music at a beat, with a tone or silence up to now, and lets a screen frame pass. */
function at(beat: number, midi: number | null, seconds = 0.3): void {
  const session = MockSession.last;
  session.beat = beat;
  session.hears(midi, seconds);
  frame();
}
const setHidden = (hidden: boolean) => {
  Object.defineProperty(document, 'hidden', { value: hidden, configurable: true });
  document.dispatchEvent(new Event('visibilitychange'));
};

beforeEach(() => {
  MockSession.opened = [];
  MockSession.refuse = null;
  mockSaved.length = 0;
  mockCalls.length = 0;
  frames = installFrames();
  done = 0;
});
afterEach(() => {
  engine.dispose();
  setHidden(false);
});

describe('a block by the beat', () => {
  it('counts in, plays, ends after its last note, is measured and kept', async () => {
    await started(slurs());
    expect(mockCalls).toEqual(['begin']);
    at(-3.5, null);
    expect(state()).toMatchObject({ phase: 'counting', group: 0, hint: 'counting in' });
    at(0.5, 64);
    expect(state().phase).toBe('playing');
    at(5, 77);
    expect(state().group).toBeGreaterThan(0);
    const beats = Math.max(...engine.score.notes.map((note) => note.startBeat + note.beats));
    at(beats + 0.2, 65);
    expect(MockSession.last.finished).toEqual([]);
    at(beats + 2.5, null, 1);
    expect(MockSession.last.finished).toEqual([null]);
    await settled();
    expect(mockSaved).toHaveLength(1);
    expect(mockSaved[0]!.score.family).toBe('octave-slurs');
    expect(mockSaved[0]!.conditions).toMatchObject({
      source: 'microphone',
      school: 'air',
      interruption: null,
    });
    expect(mockCalls).toEqual(['begin', 'clear']);
    expect(done).toBe(1);
  });

  it('pauses when nothing is heard, waits for a note, and goes on from the breath it was in', async () => {
    await started(slurs());
    at(0.5, 64);
    const second = groupsOf(engine.score, flute).find((group) => group.phrase === 1)!;
    at(second.startBeat + 0.5, 65);
    for (let i = 0; i < 8; i++) at(second.startBeat + 0.6 + i / 10, null, 1);
    await settled();
    expect(MockSession.opened).toHaveLength(2);
    expect(MockSession.last.options).toMatchObject({ waits: true, fromBeat: second.startBeat });
    expect(state()).toMatchObject({ phase: 'waiting', word: 'play', group: second.index });
    frame();
    expect(MockSession.last.isBeating).toBe(false);
    MockSession.last.hears(65, 0.6);
    frame();
    expect(MockSession.last.isBeating).toBe(true);
    at(second.startBeat + 0.5, 65);
    engine.stop();
    await settled();
    expect(mockSaved[0]!.timing.resumed).toHaveLength(1);
    expect(mockSaved[0]!.timing.resumed[0]).toMatchObject({ beat: second.startBeat });
  });

  it('plays the breath again from where it began', async () => {
    await started(slurs());
    const second = groupsOf(engine.score, flute).find((group) => group.phrase === 1)!;
    at(second.startBeat + 1.5, 77);
    engine.again();
    await settled();
    expect(MockSession.opened).toHaveLength(2);
    expect(MockSession.last.options).toMatchObject({ waits: false, fromBeat: second.startBeat });
    expect(MockSession.last.beat).toBeLessThan(second.startBeat);
    expect(mockSaved).toEqual([]);
  });

  it('can wait for a note before anything counts, and be left without a trace', async () => {
    await started(slurs(), { startOn: 'sound' });
    expect(state()).toMatchObject({ phase: 'waiting' });
    engine.stop();
    expect(state()).toMatchObject({ phase: 'ready' });
    expect(MockSession.last.cancelled).toBe(true);
    expect(mockCalls).toEqual(['begin', 'clear']);
  });
});

describe('in free time', () => {
  it('moves on and back within one stretch', async () => {
    await started(slurs({ tempo: null }));
    expect(MockSession.last.options.metronome).toBeNull();
    engine.next();
    const second = groupsOf(engine.score, flute).find((group) => group.phrase === 1)!;
    expect(state().group).toBe(second.index);
    engine.again();
    expect(state().group).toBe(second.index);
    expect(MockSession.opened).toHaveLength(1);
  });

  it('follows the notes as they are held and left', async () => {
    const session = await started(slurs({ tempo: null }));
    session.hears(null, 1);
    session.hears(64, 0.9);
    frame();
    expect(state()).toMatchObject({ group: 0, phase: 'playing' });
    session.hears(76, 0.9);
    frame();
    expect(state().group).toBe(1);
  });
});

describe('what sounds besides', () => {
  it('is switched while playing, and a drone that was not there begins the breath again with it', async () => {
    await started(scoreOfFamily('drone-work', 'flute', { drone: 62, tempo: 60 }));
    expect(MockSession.last.hasDrone).toBe(true);
    engine.toggleDrone();
    engine.toggleDrone();
    expect(MockSession.last.droneHeard).toEqual([false, true]);
    engine.dispose();
    await started(slurs());
    at(0.5, 64);
    expect(MockSession.last.hasDrone).toBe(false);
    engine.toggleDrone();
    await settled();
    expect(MockSession.last.hasDrone).toBe(true);
    expect(MockSession.last.options.fromBeat).toBe(0);
    engine.toggleMetronome();
    expect(MockSession.last.metronomeHeard).toEqual([false]);
    expect(state()).toMatchObject({ metronome: false, drone: true });
  });

  it('the reading is hidden from the start where one plays blind, and shown on demand', () => {
    stand(scoreOfFamily('blind-tuning', 'flute'));
    expect(state().hidden).toBe(true);
    engine.toggleHidden();
    expect(state().hidden).toBe(false);
  });
});

describe('a dose', () => {
  it('ends by itself after its time of playing, and the pauses do not count', async () => {
    await started({ ...heldNote('flute', { beats: 32, tempo: 60 }), longestSeconds: 60 });
    at(1, 69);
    frames.wait(40_000);
    at(2, 69);
    expect(MockSession.last.finished).toEqual([]);
    setHidden(true);
    await settled();
    setHidden(false);
    frames.wait(500_000);
    engine.start();
    await settled();
    frame();
    at(1, 69);
    frames.wait(15_000);
    at(2, 69);
    expect(MockSession.last.finished).toEqual([]);
    frames.wait(10_000);
    at(3, 69);
    expect(MockSession.last.finished[0]).toMatch(/dose is over/);
    await settled();
    expect(mockSaved[0]!.conditions.interruption).toMatch(/dose is over/);
  });
});

describe('when something goes wrong', () => {
  it('says so, and can be tried again', async () => {
    MockSession.refuse = new Error('no such device');
    stand(slurs()).start();
    await settled();
    expect(state()).toMatchObject({ phase: 'problem' });
    expect(state().problem).toMatch(/no such device/);
    MockSession.refuse = null;
    engine.start();
    await settled();
    expect(MockSession.opened).toHaveLength(1);
    expect(state().problem).toBeNull();
  });

  it('keeps what was heard before, to be finished or gone on with', async () => {
    await started(slurs());
    at(1, 64);
    engine.again();
    await settled();
    MockSession.last.options.onProblem('the microphone was unplugged');
    expect(state()).toMatchObject({ phase: 'paused', problem: 'the microphone was unplugged' });
    engine.stop();
    await settled();
    expect(mockSaved).toHaveLength(1);
  });

  it('a recording that was forgotten by a reload is asked for again', async () => {
    stand(slurs(), { source: 'file' }).start();
    await settled();
    expect(state().problem).toMatch(/chosen again/);
  });
});

describe('an interruption', () => {
  it('by a hidden page ends the stretch, and says how to go on', async () => {
    await started(slurs());
    at(1, 64);
    setHidden(true);
    await settled();
    expect(state()).toMatchObject({ phase: 'paused', word: 'paused' });
    expect(MockSession.opened).toHaveLength(1);
    setHidden(false);
    expect(state().hint).toMatch(/page was hidden/);
    engine.next();
    await settled();
    expect(MockSession.opened).toHaveLength(2);
  });

  it('by a reload is gone on with from the breath it was in', async () => {
    const score = slurs();
    const second = groupsOf(score, flute).find((group) => group.phrase === 1)!;
    const stretch = { beat: 0, place: second.index + 1, heard: null } as Running['stretches'][number];
    stand(score, {}, { startedAt: '', score, stretches: [stretch] });
    expect(state()).toMatchObject({ phase: 'paused', word: 'interrupted', group: second.index });
    engine.start();
    await settled();
    expect(MockSession.last.options.fromBeat).toBe(second.startBeat);
    expect(mockCalls).not.toContain('begin');
  });

  it('by leaving the screen keeps what was heard', async () => {
    await started(slurs());
    at(1, 64);
    engine.dispose();
    expect(MockSession.last.cancelled).toBe(true);
    expect(mockCalls).toEqual(['begin', 'refresh']);
    expect(done).toBe(0);
  });
});

test('exercises without the instrument go by the beat to their end, and listen to nothing', async () => {
  await started(scoreOfFamily('air-drills', 'flute'));
  expect(MockSession.last.options.source).toEqual({ kind: 'none' });
  at(2, null);
  expect(state()).toMatchObject({ phase: 'playing', beat: 2 });
  const last = engine.score.pictures[engine.score.pictures.length - 1]!;
  at(last.startBeat + last.beats, null);
  expect(MockSession.last.finished).toEqual([null]);
});

test('the screen is told of every change, and of none after it has gone', async () => {
  stand(slurs());
  const heard: string[] = [];
  const forget: () => void = engine.subscribe(() => heard.push(state().phase));
  engine.start();
  await settled();
  expect(heard).toContain('opening');
  const count = heard.length;
  forget();
  engine.toggleHidden();
  expect(heard).toHaveLength(count);
});
