import { EXPLORING } from './exploring';
import { defineFamily } from '../family';
import { count, note, tempo } from '../parameters';

export const angleSweep = defineFamily({
  id: 'angle-sweep',
  title: 'Angle sweep',
  section: 'air',
  purposes: ['sameness of tone', 'the low notes'],
  what: 'Where is a low note richest and still in tune?',
  how: 'Hold a low note and move the angle of the stream slowly, keeping the pitch. Stay where it is richest.',
  listen: 'The fullest place, and whether the pitch moved on the way there.',
  enough: 'When you have come back to that place three times without searching.',
  measured: 'Richness and air along the way, and how well the pitch stayed.',
  specs: {
    note: note('Low note'),
    beats: count('Each way', 4, 16, 'beats'),
    times: count('Times', 1, 4),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['angle'] },
  defaults: (_instrument, _level, { bottom }) => ({ note: bottom.low, beats: 8, times: 2, tempo: 60 }),
  write(writer, { note: written, beats, times }) {
    for (let i = 0; i < times; i++) {
      writer.note(written, beats, { label: 'one way', role: 'one-way' });
      writer.slur(written, beats, { label: 'and back', role: 'and-back' });
      writer.breathe();
    }
    writer.note(written, 8, { label: 'richest', role: 'richest' });
  },
});
