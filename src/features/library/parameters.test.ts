import { createElement } from 'react';
import { findFamily } from '@/core/music';
import { findInstrument } from '@/core/instruments';
import { mount, type Mounted } from '@/ui/mount.testing';
import { ParameterControls } from './ParameterControls';

let page: Mounted;
afterEach(() => page.leave());

describe('what can be set of an exercise', () => {
  it('has a control for everything, and each changes just its own field', () => {
    const whistle = findInstrument('whistle-d')!;
    for (const id of ['octave-slurs', 'drone-work', 'roaming-scale', 'tapers']) {
      const family = findFamily(id)!;
      const values = family.defaults(whistle, 'steady');
      const changes: Record<string, unknown>[] = [];
      page = mount(
        createElement(ParameterControls, {
          instrument: whistle,
          specs: family.specs,
          values,
          boreHeight: 300,
          onChange: (part: Readonly<Record<string, unknown>>) => changes.push(part),
        }),
      );
      for (const spec of Object.values(family.specs)) expect(page.words()).toContain(spec.label);
      page.tap(page.find('radio', 'wanted'));
      expect(changes).toEqual([{ vibrato: 'wanted' }]);
      if (id !== 'tapers') page.leave();
    }
  });

  it('asks nothing that the instrument leaves no choice in', () => {
    const oboe = findInstrument('oboe')!;
    const family = findFamily('octave-slurs')!;
    page = mount(
      createElement(ParameterControls, {
        instrument: oboe,
        specs: family.specs,
        values: family.defaults(oboe, 'steady'),
        boreHeight: 300,
        onChange: () => undefined,
      }),
    );
    expect(page.words()).not.toContain('Goes through');
  });

  it('a tempo that is free can be set again, by the metronome’s steps', () => {
    const family = findFamily('octave-slurs')!;
    const flute = findInstrument('flute')!;
    let values: Record<string, unknown> = { ...family.defaults(flute, 'steady'), tempo: 60 };
    const controls = () =>
      createElement(ParameterControls, {
        instrument: flute,
        specs: family.specs,
        values,
        boreHeight: 300,
        onChange: (part: Readonly<Record<string, unknown>>) => {
          values = { ...values, ...part };
          page.show(controls());
        },
      });
    page = mount(controls());
    page.tap(page.find('button', 'Tempo: more'));
    expect(values['tempo']).toBe(63);
    page.tap(page.find('radio', 'free'));
    expect(values['tempo']).toBeNull();
    expect(page.has('button', 'Tempo: more')).toBe(false);
  });
});
