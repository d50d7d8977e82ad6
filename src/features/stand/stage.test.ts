import { findInstrument } from '@/core/instruments';
import { act, createElement } from 'react';
import type { Score } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';
import type { Take } from '@/core/take';
import { installFrames, settled, type Frames } from '@/features/sound/frames.testing';
import { MockSession } from './mockSession.testing';
import { defaultSettings, type Running, type Settings } from '@/store';
import { mount, type Mounted } from '@/ui/mount.testing';
import { StandStage } from './StandStage';

jest.mock('@/audio', () => ({
  get Session() {
    return MockSession;
  },
  SourceProblem: class SourceProblem extends Error {},
}));
const mockSaved: Take[] = [];
jest.mock('@/store', () => ({
  ...jest.requireActual<object>('@/store'),
  beginRunning: () => Promise.resolve(),
  clearRunning: () => Promise.resolve(),
  refreshRunning: () => Promise.resolve(),
  keepSound: () => Promise.resolve(),
  saveDraft: (take: Take) => Promise.resolve(void mockSaved.push(take)),
}));
/** Engraving is seen in the browser; here only which notes are shown, and which of them is the one to play. */
interface Engraved {
  readonly score: Score;
  readonly marked: ReadonlySet<number>;
}
const mockEngraved: Engraved[] = [];
jest.mock('../../ui/notation/Notation', () => ({
  Notation: (props: Engraved) => {
    mockEngraved.push(props);
    return null;
  },
}));

let frames: Frames;
let page: Mounted;
let ended: string[] = [];

const slurs = scoreOfFamily('octave-slurs', 'flute', { range: { low: 64, high: 66 }, tempo: 60 });
const settle = () => act(settled);
const touched = (hasBeenActive: boolean) =>
  Object.defineProperty(navigator, 'userActivation', { value: { hasBeenActive }, configurable: true });
/** Puts the music at a beat, with a tone or silence up to now, and lets a screen frame pass. */
const at = (beat: number, midi: number | null, seconds = 0.3) =>
  act(() => {
    MockSession.last.beat = beat;
    MockSession.last.hears(midi, seconds);
    frames.pass();
  });
async function stand(
  score: Score,
  { change = {}, running = null }: { change?: Partial<Settings>; running?: Running | null } = {},
) {
  page = mount(
    createElement(StandStage, {
      score,
      instrument: findInstrument('flute')!,
      settings: { ...defaultSettings, ...change },
      running,
      onDone: () => ended.push('done'),
      onLeave: () => ended.push('left'),
    }),
  );
  await settle();
}
const word = () => page.byId('word').textContent;
const keys = () => Array.from(page.page.querySelectorAll('[role=button]'), (each) => each.textContent);

beforeEach(() => {
  MockSession.opened = [];
  MockSession.refuse = null;
  mockSaved.length = 0;
  mockEngraved.length = 0;
  frames = installFrames();
  ended = [];
  touched(true);
  // There is nothing to paint on here; the thread is seen in the browser.
  HTMLCanvasElement.prototype.getContext = () => null;
});
afterEach(() => page.leave());

describe('the stand, after a touch', () => {
  it('begins by itself, and needs no other until the take is kept', async () => {
    await stand(slurs);
    expect(MockSession.opened).toHaveLength(1);
    at(-3.5, null);
    expect(page.words()).toMatch(/counting in/);
    at(0.5, 64);
    expect(keys()).toEqual(['Again', 'Stop', 'Hide']);
    const beats = Math.max(...slurs.notes.map((note) => note.startBeat + note.beats));
    at(beats + 2.5, null, 1);
    await settle();
    expect(mockSaved).toHaveLength(1);
    expect(ended).toEqual(['done']);
  });

  it('says what is played, how fast and where, and marks the note that is to come', async () => {
    await stand(slurs, { change: { a4: 442 } });
    expect(page.words()).toMatch(/Octave slurs.* · 1 of \d.*♩ 60 · A 442/);
    at(0.5, 64);
    const before = [...mockEngraved.at(-1)!.marked];
    at(5, 77);
    expect([...mockEngraved.at(-1)!.marked]).not.toEqual(before);
  });

  it('shows what a key does, and hides the pitch again by another', async () => {
    await stand(slurs);
    at(0.5, 64);
    page.press(document, '?');
    expect(page.byId('keys').textContent).toMatch(/Space: start and stop/);
    page.press(document, '?');
    expect(page.page.querySelector('[data-testid=keys]')).toBeNull();
    page.press(document, 'h');
    expect(keys()).toEqual(['Again', 'Stop', 'Show']);
  });

  it('is left by Escape, and what sounded is given up', async () => {
    await stand(slurs);
    at(0.5, 64);
    page.press(document, 'Escape');
    expect(MockSession.last.cancelled).toBe(true);
    expect(ended).toEqual(['left']);
    expect(mockSaved).toEqual([]);
  });
});

describe('the stand, otherwise', () => {
  it('waits for a touch after a reload: without one the browser lets nothing sound', async () => {
    touched(false);
    await stand(slurs);
    expect(MockSession.opened).toHaveLength(0);
    expect(keys()).toEqual(['Leave', 'Start']);
    page.tap(page.byId('start'));
    await settle();
    expect(MockSession.opened).toHaveLength(1);
  });

  it('does not begin an interrupted block by itself, and says where it goes on', async () => {
    const running: Running = { score: slurs, startedAt: '2026-03-01T09:00:00.000Z', stretches: [] };
    await stand(slurs, { running });
    expect(MockSession.opened).toHaveLength(0);
    expect(word()).toBe('interrupted');
    expect(page.words()).toMatch(/go on from note 1/);
    expect(keys()).toEqual(['Give up', 'Finish', 'Go on']);
    page.tap(page.byId('go-on'));
    await settle();
    expect(MockSession.opened).toHaveLength(1);
  });

  it('explains what could not be opened, and tries again', async () => {
    MockSession.refuse = new Error('the device is gone');
    await stand(slurs);
    expect(page.byId('problem').textContent).toMatch(/could not be started.*the device is gone/);
    expect(keys()).toEqual(['Leave', 'Try again']);
    MockSession.refuse = null;
    page.tap(page.byId('start'));
    await settle();
    at(-3.5, null);
    expect(page.page.querySelector('[data-testid=problem]')).toBeNull();
    expect(page.words()).toMatch(/counting in/);
  });

  it('shows a picture of the breath where nothing sounds', async () => {
    await stand(scoreOfFamily('air-drills', 'flute', { rounds: 1 }));
    expect(MockSession.last.options.source.kind).toBe('none');
    at(0.5, null);
    expect(page.words()).toMatch(/Quietly in/);
    at(3, null);
    expect(page.words()).toMatch(/Out: slow, growing fast/);
  });
});
