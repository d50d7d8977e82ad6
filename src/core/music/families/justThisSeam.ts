import type { Midi } from '@/core/base';
import { mainBreakOf } from '@/core/instruments';
import { defineFamily } from '../family';
import { count, dynamic, note, tempo } from '../parameters';
import { type Writer } from '../writer';
import { nextTo } from './walks';

/** A seam cut out and slowed down: the notes on its two sides, to and fro. */
function writeSeam(writer: Writer, from: Midi, to: Midi, times: number, beats: number): void {
  for (let i = 0; i < times; i++) {
    writer.slurred([from, to, from], beats);
    writer.fillBar(true);
    writer.breathe();
  }
}

export const justThisSeam = defineFamily({
  id: 'just-this-seam',
  title: 'Just this seam',
  section: 'seams',
  purposes: ['the break'],
  what: 'One crossing alone, slower than in the music.',
  how: 'Slur slowly to and fro over the one break. When five in a row are clean, two notches faster.',
  listen: 'Silence, a knock or another note between the two.',
  enough: 'Ten clean crossings, or five minutes: a seam mends over days.',
  measured: 'Each crossing: dip, time, overshoot, the step in level and colour.',
  specs: {
    from: note('From'),
    to: note('To'),
    times: count('Times', 2, 12),
    beats: count('Each note', 1, 4, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['seam', 'interval', 'pitch', 'level', 'air'], notches: 'five-in-a-row' },
  defaults: (instrument) => {
    const place = mainBreakOf(instrument);
    return {
      from: place?.below ?? instrument.home,
      to: place?.above ?? nextTo(instrument, 'usual', instrument.home, 1),
      times: 5,
      beats: 2,
      dynamic: 'mf' as const,
      tempo: 60,
    };
  },
  write: (writer, { from, to, times, beats }) => writeSeam(writer, from, to, times, beats),
});
