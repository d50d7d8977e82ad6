import { createElement } from 'react';
import { UNTOLD } from '@/core/take';
import { setupText } from '@/features/take';
import { defaultSettings, type Settings } from '@/store';
import { mount, type Mounted } from '@/ui/mount.testing';
import { SetupPanel } from './SetupPanel';

let mockSettings: Settings;
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
}));

let page: Mounted;
beforeEach(() => {
  mockSettings = defaultSettings;
});
afterEach(() => page.leave());

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
