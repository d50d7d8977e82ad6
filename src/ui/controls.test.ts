import { createElement } from 'react';
import { findInstrument } from '@/core/instruments';
import { Bore } from './bore/Bore';
import { RangeBore } from './bore/RangeBore';
import { Button } from './button';
import { Choice, Stepper } from './controls';
import { mount, type Mounted } from './mount.testing';

let page: Mounted;
afterEach(() => page.leave());

describe('one of a few', () => {
  it('is a group of radios that says which is chosen, also without colour', () => {
    const chosen: string[] = [];
    page = mount(
      createElement(Choice<'a' | 'b'>, {
        label: 'Listen to',
        value: 'a',
        onChange: (value) => chosen.push(value),
        options: [
          { value: 'a', label: 'microphone' },
          { value: 'b', label: 'a recording' },
        ],
      }),
    );
    expect(page.has('radiogroup', 'Listen to')).toBe(true);
    expect(page.find('radio', 'microphone').getAttribute('aria-checked')).toBe('true');
    expect(page.find('radio', 'a recording').getAttribute('aria-checked')).toBe('false');
    page.tap(page.find('radio', 'a recording'));
    expect(chosen).toEqual(['b']);
  });

  it('is one stop of Tab; arrows choose the neighbour and go round, space chooses', () => {
    type Name = 'a' | 'b' | 'c';
    let value: Name | 'none' = 'none';
    const choice = () =>
      createElement(Choice<Name | 'none'>, {
        label: 'Clicks',
        value,
        onChange: (next) => {
          value = next;
          page.show(choice());
        },
        options: (['a', 'b', 'c'] as const).map((each) => ({ value: each, label: each })),
      });
    page = mount(choice());
    const stops = () =>
      Array.from(page.page.querySelectorAll('[role=radio]'))
        .filter((radio) => radio.getAttribute('tabindex') === '0')
        .map((radio) => radio.getAttribute('aria-label'));
    expect(stops()).toEqual(['a']);
    page.press(page.find('radio', 'a'), ' ');
    expect(value).toBe('a');
    page.press(page.find('radio', 'a'), 'ArrowRight');
    page.press(document.activeElement!, 'ArrowDown');
    expect(value).toBe('c');
    expect(stops()).toEqual(['c']);
    page.press(document.activeElement!, 'ArrowRight');
    expect(document.activeElement?.getAttribute('aria-label')).toBe('a');
    page.press(document.activeElement!, 'ArrowLeft');
    page.press(document.activeElement!, 'x');
    expect(value).toBe('c');
  });
});

describe('a number', () => {
  const stepper = (value: number, onChange: (next: number) => void) =>
    createElement(Stepper, {
      label: 'Tempo',
      value,
      low: 40,
      high: 44,
      step: 2,
      text: `${value} a minute`,
      onChange,
    });

  it('goes by keys and taps, never beyond its ends', () => {
    let value = 42;
    const change = (next: number) => {
      value = next;
      page.show(stepper(value, change));
    };
    page = mount(stepper(value, change));
    const reading = () => page.find('spinbutton', 'Tempo');
    page.press(reading(), 'ArrowUp');
    page.press(reading(), 'ArrowUp');
    page.press(reading(), 'ArrowRight');
    expect(value).toBe(44);
    expect(reading().getAttribute('aria-valuetext')).toBe('44 a minute');
    expect(page.find('button', 'Tempo: more').getAttribute('aria-disabled')).toBe('true');
    page.tap(page.find('button', 'Tempo: less'));
    page.press(reading(), 'ArrowDown');
    page.press(reading(), 'ArrowLeft');
    expect(value).toBe(40);
    page.press(reading(), 'x');
    expect(value).toBe(40);
  });
});

describe('a button', () => {
  it('says what it does, and does nothing while it cannot', () => {
    let taps = 0;
    const button = (disabled: boolean) =>
      createElement(Button, { label: 'Begin', disabled, onPress: () => taps++ });
    page = mount(button(true));
    page.tap(page.find('button', 'Begin'));
    expect(taps).toBe(0);
    page.show(button(false));
    page.tap(page.find('button', 'Begin'));
    expect(taps).toBe(1);
  });
});

describe('the bore', () => {
  const flute = findInstrument('flute')!;

  it('chooses a note by the keyboard, within the instrument', () => {
    let value = 95;
    const bore = () =>
      createElement(Bore, {
        instrument: flute,
        value,
        height: 300,
        label: 'Note',
        onChange: (next: number) => {
          value = next;
          page.show(bore());
        },
      });
    page = mount(bore());
    const slider = page.find('slider', 'Note');
    const { low, high } = {
      low: slider.getAttribute('aria-valuemin'),
      high: slider.getAttribute('aria-valuemax'),
    };
    for (let i = 0; i < 6; i++) page.press(slider, 'ArrowUp');
    expect(String(value)).toBe(high);
    for (let i = 0; i < 60; i++) page.press(slider, 'ArrowDown');
    expect(String(value)).toBe(low);
    expect(slider.getAttribute('aria-valuetext')).toMatch(/^B 3, low/);
  });

  it('keeps the two ends of a range apart', () => {
    let value = { low: 64, high: 68 };
    const bore = () =>
      createElement(RangeBore, {
        instrument: flute,
        value,
        least: 3,
        height: 300,
        label: 'Range',
        onChange: (next: typeof value) => {
          value = next;
          page.show(bore());
        },
      });
    page = mount(bore());
    for (let i = 0; i < 9; i++) page.press(page.find('slider', /lowest/), 'ArrowUp');
    expect(value).toEqual({ low: 65, high: 68 });
    for (let i = 0; i < 9; i++) page.press(page.find('slider', /highest/), 'ArrowDown');
    expect(value).toEqual({ low: 65, high: 68 });
  });
});
