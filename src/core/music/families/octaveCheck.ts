import { defineFamily } from '../family';
import { count, range, tempo } from '../parameters';
import { strides, through } from './walks';

export const octaveCheck = defineFamily({
  id: 'octave-check',
  title: 'Octave check',
  section: 'intonation',
  purposes: ['tuning', 'the high notes'],
  what: 'Low note and octave, both on the tuner; above all the top before a concert.',
  how: 'Play the low note, then its octave, without correcting: it is the instrument that is looked at.',
  listen: 'Wide octaves or narrow ones, above all at the top.',
  enough: 'Once through. What you find is for the slide and for the ear; nothing is corrected now.',
  measured: 'Both pitches and the width of each octave.',
  specs: {
    range: range('Lower notes', 0),
    step: count('Every', 1, 7, 'semitones'),
    through: through(),
    beats: count('Each', 2, 8, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['octaves', 'pitch'], feeds: { map: true, seams: false, trends: true } },
  defaults: (_instrument, _level, { low, high }) => ({
    range: { low, high: Math.max(low, high - 12) },
    step: 2,
    through: 'usual' as const,
    beats: 4,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, step, through: by, beats }, instrument) {
    const rows = strides(instrument, by, low, high, step).filter((written) => writer.has(written + 12));
    for (const written of rows.length > 0 ? rows : [writer.low]) {
      writer.note(written, beats);
      writer.note(writer.folded(written + 12), beats);
      writer.fillBar();
      writer.breathe();
    }
  },
});
