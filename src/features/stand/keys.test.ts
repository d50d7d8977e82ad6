import { createElement } from 'react';
import { mount, type Mounted } from '@/ui/mount.testing';
import type { StandEngine } from './standEngine';
import { StandFoot } from './StandFoot';
import { StandKeys } from './StandKeys';
import type { StandState } from './standState';

let page: Mounted;
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
  free: false,
  sounding: null,
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

  it('has the drone at hand where nothing is asked', () => {
    const told: string[] = [];
    const playing = state({ phase: 'playing', free: true });
    page = mount(
      createElement(StandFoot, { engine: engineOf(told), state: playing, onLeave: () => undefined }),
    );
    page.tap(page.find('button', 'Drone'));
    expect(told).toEqual(['toggleDrone']);
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
