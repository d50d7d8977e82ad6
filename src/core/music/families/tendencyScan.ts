import { defineFamily } from '../family';
import { choice, count, range, tempo } from '../parameters';
import { through, walk } from './walks';

export const tendencyScan = defineFamily({
  id: 'tendency-scan',
  title: 'Tendency scan',
  section: 'intonation',
  purposes: ['tuning'],
  what: 'Your instrument’s map: where every note sits, medium, soft and loud.',
  how: 'Play a slow chromatic scale on a warm instrument without correcting. Let each note sit where it wants to.',
  listen: 'Nothing yet. Whoever listens corrects, and that would hide what is looked for.',
  enough: 'Once through at each loudness.',
  measured: 'Centre and spread of every note at each loudness.',
  differ: 'whether a whole scale clean on the tuner is a sensible aim at all.',
  specs: {
    range: range('From, to', 2),
    loudness: choice('Loudness', [
      ['all', 'medium, soft, loud'],
      ['mf', 'medium'],
      ['p', 'soft'],
      ['f', 'loud'],
    ]),
    through: through(),
    beats: count('Each', 2, 6, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['scan', 'steadiness'] },
  defaults: (_instrument, _level, { low, high }) => ({
    range: { low, high },
    loudness: 'all' as const,
    through: 'usual' as const,
    beats: 2,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, loudness, through: by, beats }, instrument) {
    for (const each of loudness === 'all' ? (['mf', 'p', 'f'] as const) : [loudness]) {
      writer.setDynamic(each);
      for (const written of walk(instrument, by, low, high)) writer.note(written, beats);
      writer.fillBar();
      writer.breathe();
      writer.rest(4);
    }
  },
});
