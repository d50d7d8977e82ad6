import { createElement } from 'react';
import { judge, limitsOf } from '@/core/verdict';
import { asWritten } from '@/core/verdict/asWritten.testing';
import { advise } from '@/core/verdict/coach';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { UNTOLD } from '@/core/take';
import type { StandEngine, StandState } from '@/practice';
import { defaultSettings, type Settings } from '@/store';
import { mount, type Mounted } from '@/ui/mount.testing';
import { SetupPanel, setupText } from './exercise/SetupPanel';
import { StandFoot } from './stand/StandFoot';
import { StandKeys } from './stand/StandKeys';
import { AdviceCard } from './take/AdviceCard';
import { TakeStrip } from './take/TakeStrip';

const mockPlaces: string[] = [];
const mockOnStand: { family: string; parameters: Record<string, unknown> }[] = [];
let mockSettings: Settings;
jest.mock('expo-router', () => ({ useRouter: () => ({ push: (path: string) => mockPlaces.push(path) }) }));
// Parts that a browser loads later are here at once.
jest.mock('../ui/take/later', () => ({
  ...jest.requireActual<object>('../ui/take/CloseUp'),
  ...jest.requireActual<object>('../ui/take/drawings/DrawingView'),
}));
jest.mock('@/store', () => ({
  ...jest.requireActual<object>('@/store'),
  useSettings: () => ({
    settings: mockSettings,
    ready: true,
    change: (part: Partial<Settings>) => {
      mockSettings = { ...mockSettings, ...part };
      return Promise.resolve();
    },
  }),
  useLog: () => ({ data: { takes: [], damaged: [] } }),
  putOnStand: (score: (typeof mockOnStand)[number]) => {
    mockOnStand.push(score);
    return Promise.resolve();
  },
}));

let page: Mounted;
beforeEach(() => {
  mockSettings = defaultSettings;
  mockPlaces.length = 0;
  mockOnStand.length = 0;
});
afterEach(() => page.leave());

const state = (part: Partial<StandState> = {}): StandState => ({
  phase: 'ready',
  word: '',
  hint: '',
  problem: null,
  group: 0,
  page: 0,
  hidden: false,
  metronome: true,
  drone: false,
  beat: 0,
  ...part,
});
/** An engine that writes down what it is told to do. */
function engineOf(told: string[]): StandEngine {
  const names = ['start', 'stop', 'again', 'next', 'toggleMetronome', 'toggleDrone', 'toggleHidden'] as const;
  return Object.fromEntries(names.map((name) => [name, () => told.push(name)])) as unknown as StandEngine;
}

describe('the keys of the stand', () => {
  it.each([
    ['PageDown', 'next'],
    ['ArrowRight', 'next'],
    ['ArrowDown', 'next'],
    ['PageUp', 'again'],
    ['ArrowLeft', 'again'],
    ['r', 'again'],
    ['R', 'again'],
    ['m', 'toggleMetronome'],
    ['d', 'toggleDrone'],
    ['h', 'toggleHidden'],
    [' ', 'stop'],
    ['?', 'help'],
    ['Escape', 'leave'],
  ])('%j means %s while playing', (key, action) => {
    const told: string[] = [];
    const props = { engine: engineOf(told), state: state({ phase: 'playing' }) };
    page = mount(
      createElement(StandKeys, {
        ...props,
        onLeave: () => told.push('leave'),
        onHelp: () => told.push('help'),
      }),
    );
    page.press(document.body, key);
    expect(told).toEqual([action]);
  });

  it('space starts what stands still, other keys are left to the browser, and all are forgotten when it is left', () => {
    const told: string[] = [];
    const props = { engine: engineOf(told), onLeave: () => undefined, onHelp: () => undefined };
    page = mount(createElement(StandKeys, { ...props, state: state({ phase: 'paused' }) }));
    page.press(document.body, ' ');
    page.press(document.body, 'x');
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'r', ctrlKey: true }));
    expect(told).toEqual(['start']);
    page.leave();
    document.dispatchEvent(new KeyboardEvent('keydown', { key: ' ' }));
    expect(told).toEqual(['start']);
  });
});

describe('the foot of the stand', () => {
  it.each([
    ['ready', ['Leave', 'Start']],
    ['problem', ['Leave', 'Try again']],
    ['waiting', ['Give up', 'Finish', 'Begin']],
    ['paused', ['Give up', 'Finish', 'Go on']],
    ['counting', ['Again', 'Stop', 'Hide']],
    ['playing', ['Again', 'Stop', 'Hide']],
  ] as const)('%s offers %j and no more', (phase, labels) => {
    page = mount(
      createElement(StandFoot, { engine: engineOf([]), state: state({ phase }), onLeave: () => undefined }),
    );
    const found = Array.from(page.page.querySelectorAll('[role=button]'), (each) => each.textContent);
    expect(found).toEqual(labels);
  });

  it('does nothing while it measures, and shows a hidden reading again', () => {
    const told: string[] = [];
    const foot = (part: Partial<StandState>) =>
      createElement(StandFoot, { engine: engineOf(told), state: state(part), onLeave: () => undefined });
    page = mount(foot({ phase: 'measuring' }));
    page.tap(page.byId('start'));
    expect(told).toEqual([]);
    page.show(foot({ phase: 'playing', hidden: true }));
    page.tap(page.find('button', 'Show'));
    expect(told).toEqual(['toggleHidden']);
  });
});

describe('conditions', () => {
  it('are told in one line, what was not told left out', () => {
    expect(setupText(UNTOLD)).toBe('nothing told');
    expect(
      setupText({ slideMm: 3, temperatureC: 18, warmth: 'cold', reed: 'third', room: '', water: false }),
    ).toBe('slide 3 mm · 18 °C · cold · third · water not cleared');
    page = mount(createElement(SetupPanel));
  });

  it('are changed in two taps, and forgotten in two', () => {
    page = mount(createElement(SetupPanel));
    page.tap(page.byId('setup-toggle'));
    page.tap(page.find('radio', 'warm'));
    expect(mockSettings.setup.warmth).toBe('warm');
    page.show(createElement(SetupPanel));
    page.tap(page.find('button', 'Slide, joint or barrel pulled out: more'));
    expect(mockSettings.setup).toMatchObject({ slideMm: 1, warmth: 'warm' });
    page.tap(page.find('button', 'Forget all of this'));
    expect(mockSettings.setup).toEqual(UNTOLD);
    expect(page.has('radio')).toBe(false);
  });
});

describe('a take for review', () => {
  const score = scoreOfFamily('octave-slurs', 'flute', { range: { low: 64, high: 70 }, tempo: 60 });
  const take = asWritten(score, {
    events: [
      { group: 1, kind: 'blip', after: 0.02, midi: 88 },
      { group: 7, kind: 'gap', after: 0.01 },
    ],
  });
  const judgement = judge(take, limitsOf('steady'));

  it('shows first what stood out, all of it on demand, and one place from near at a time', () => {
    page = mount(createElement(TakeStrip, { take, judgement }));
    const rows = () =>
      Array.from(
        page.page.querySelectorAll('[data-testid^="note-"]'),
        (row) => row.id || row.getAttribute('data-testid'),
      );
    expect(page.words()).toContain('The notes that stood out');
    expect(rows()).toEqual(['note-1', 'note-7']);
    page.tap(page.byId('all-notes'));
    expect(rows()).toHaveLength(judgement.notes.length);
    page.tap(page.byId('note-1'));
    expect(page.byId('note-1').getAttribute('aria-expanded')).toBe('true');
    page.tap(page.byId('note-7'));
    expect(page.byId('note-1').getAttribute('aria-expanded')).toBe('false');
    expect(page.byId('note-7').getAttribute('aria-expanded')).toBe('true');
  });

  it('one thing to try, the other schools a tap away, and the drill on the stand with one tap', () => {
    const advice = advise(judgement, score, 'air')!;
    page = mount(createElement(AdviceCard, { advice, instrumentId: 'flute', from: '/log/x' }));
    expect(page.byId('attempt').textContent).toBe(advice.attempt);
    for (const { attempt } of advice.others) expect(page.words()).not.toContain(attempt);
    page.tap(page.find('button', 'Other ways to see it'));
    for (const { attempt } of advice.others) expect(page.words()).toContain(attempt);
    if (advice.disagreement) expect(page.words()).toContain('Teachers differ.');
    page.tap(page.byId('drill-it'));
    expect(mockOnStand).toMatchObject([
      {
        family: 'just-this-seam',
        parameters: { from: score.notes[0]!.written, to: score.notes[1]!.written },
      },
    ]);
    expect(mockPlaces).toEqual(['/stand']);
  });

  it('an exercise that this instrument cannot be given opens its page instead', () => {
    const advice = { ...advise(judgement, score, 'air')!, drill: null };
    page = mount(createElement(AdviceCard, { advice, instrumentId: 'no-such-instrument', from: '/' }));
    page.tap(page.byId('serves'));
    expect(mockPlaces).toEqual([`/exercise/${advice.serves.family}`]);
    expect(mockOnStand).toEqual([]);
  });
});
