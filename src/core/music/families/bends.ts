import { EXPLORING } from './exploring';
import { defineFamily } from '../family';
import { choice, count, dynamic, note, tempo } from '../parameters';

const BENDS = [
  ['plain', 'plain'],
  ['bend-down', '↘ down'],
  ['bend-back-up', '↗ back'],
  ['bend-up', '↗ up'],
  ['bend-back-down', '↘ back'],
  ['plain', 'plain'],
] as const;

export const bends = defineFamily({
  id: 'bends',
  title: 'Note bends',
  section: 'sound',
  purposes: ['flexibility', 'tuning'],
  what: 'How far each means alone moves the pitch, and whether the tone survives.',
  how: 'From a plain note, down and back, up and back, by one means alone: angle, lips, jaw or head. Then all together. End on a centred plain note.',
  listen: 'The tone on its way: it moves without thinning or cracking. Then: is the plain note where it was?',
  enough: 'Two bends by each means. You learn your reach; it is no record to beat.',
  measured: 'Cents down and up, evenness of the glide, level lost, whether it broke.',
  specs: {
    note: note('Note'),
    means: choice('By', [
      ['angle', 'rolling or angle'],
      ['lips', 'lips'],
      ['jaw', 'jaw'],
      ['head', 'head'],
      ['all', 'all together'],
    ]),
    beats: count('Each glide', 2, 8, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['bend'] },
  defaults: (instrument) => ({
    note: instrument.home,
    means: 'angle' as const,
    beats: 4,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { note: written, beats }) {
    BENDS.forEach(([role, label], i) => {
      writer.note(written, beats, {
        role,
        label,
        attack: i === 0 || i === 3 || i === 5 ? 'tongued' : 'none',
      });
      if (i === 2 || i === 4) writer.breathe();
    });
  },
});
