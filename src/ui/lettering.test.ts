import { act, createElement } from 'react';
import { useFonts } from 'expo-font';
import { useLettering } from './lettering';
import { mount } from './mount.testing';

jest.mock('expo-font', () => ({ useFonts: jest.fn() }));

const Page = () => (useLettering({ Face: 'face.ttf' }) ? 'the page' : 'held back');

/** The page after `ms`, its letters being as told. */
function shownAfter(ms: number, letters: ReturnType<typeof useFonts>): string {
  jest.mocked(useFonts).mockReturnValue(letters);
  const page = mount(createElement(Page));
  act(() => jest.advanceTimersByTime(ms));
  const shown = page.words();
  page.leave();
  return shown;
}

describe('a page waiting for its letters', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('is shown when they are there, or cannot be had', () => {
    expect(shownAfter(0, [true, null])).toBe('the page');
    expect(shownAfter(0, [false, new Error('no network')])).toBe('the page');
  });

  it('is held back for a moment, and shown without them where they do not come', () => {
    expect(shownAfter(1000, [false, null])).toBe('held back');
    expect(shownAfter(3000, [false, null])).toBe('the page');
  });
});
