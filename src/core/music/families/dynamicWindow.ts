import { defineFamily } from '../family';
import { count, range, tempo } from '../parameters';
import { strides, through } from './walks';

export const dynamicWindow = defineFamily({
  id: 'dynamic-window',
  title: 'Dynamic window',
  section: 'dynamics',
  purposes: ['soft playing', 'the low notes', 'the high notes'],
  what: 'The softest and the loudest that each note holds with its tone.',
  how: 'Hold each note as softly as it still sounds like you; then as loudly as it still does.',
  listen: 'The edge at which the tone is no longer yours: it thins, growls or breaks.',
  enough: 'Once for each note; the loud end tires.',
  measured: 'Both levels, their distance, tone and pitch at both ends.',
  caution: 'Loud: protect your ears in a small room.',
  specs: {
    range: range('Notes', 0),
    step: count('Every', 1, 7, 'semitones'),
    through: through(),
    beats: count('Each', 3, 12, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['window', 'pitch', 'steadiness'] },
  defaults: (_instrument, _level, { low, high }) => ({
    range: { low, high },
    step: 4,
    through: 'usual' as const,
    beats: 4,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, step, through: by, beats }, instrument) {
    for (const written of strides(instrument, by, low, high, step)) {
      writer.setDynamic('pp');
      writer.note(written, beats, { label: 'softest', role: 'softest' });
      writer.breathe();
      writer.setDynamic('ff');
      writer.note(written, beats, { label: 'loudest', role: 'loudest' });
      writer.breathe();
      writer.fillBar();
    }
  },
});
