import { act, Component, createElement, type ReactNode } from 'react';
import { later } from './later';
import { mount } from './mount.testing';

class Boundary extends Component<{ children: ReactNode }> {
  override state = { words: '' };
  static getDerivedStateFromError(error: Error) {
    return { words: error.message };
  }
  override render() {
    return this.state.words || this.props.children;
  }
}

const passed = async (ms: number) => {
  await act(async () => {
    await jest.advanceTimersByTimeAsync(ms);
  });
};

/** What is loaded by asking `times` times in vain first. */
function comingAfter(times: number) {
  const asked = { times: 0 };
  const Part = later(() => {
    asked.times++;
    return asked.times > times
      ? Promise.resolve(() => 'the page')
      : Promise.reject(new Error(`asked ${asked.times} times`));
  }, 'on its way');
  return { asked, page: mount(createElement(Boundary, null, createElement(Part))) };
}

describe('a part that is loaded later', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('is asked for once more, a moment later, when its loading was broken off', async () => {
    const { asked, page } = comingAfter(1);
    await passed(0);
    expect(asked.times).toBe(1);
    expect(page.words()).toBe('on its way');
    await passed(1000);
    expect(page.words()).toBe('the page');
    page.leave();
  });

  it('is said to be missing when it does not come the second time either, and why is known', async () => {
    jest.spyOn(console, 'error').mockImplementation(() => undefined);
    window.fetch = () => Promise.reject(new TypeError('no network'));
    const { asked, page } = comingAfter(2);
    await passed(1000);
    expect(asked.times).toBe(2);
    expect(page.words()).toMatch(/^A part of this page could not be loaded/);
    page.leave();
  });
});
