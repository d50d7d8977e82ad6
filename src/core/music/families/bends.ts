import { EXPLORING } from './exploring';
import { defineFamily } from '../family';
import { GLIDE } from '../glides';
import { choice, count, dynamic, note, tempo } from '../parameters';

export const bends = defineFamily({
  id: 'bends',
  title: 'Note bends',
  section: 'sound',
  purposes: ['flexibility', 'tuning'],
  what: 'How far each means alone moves the pitch, and whether the tone survives.',
  how: 'From a plain note, down and back, up and back, by one means alone: angle, lips, jaw or head. Then all together. End on a centred plain note.',
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
  counts: { ...EXPLORING, measures: ['bend', 'level'] },
  defaults: (instrument) => ({
    note: instrument.home,
    means: 'angle' as const,
    beats: 4,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { note: written, beats }) {
    const parts = ['plain', GLIDE.down, GLIDE.backUp, GLIDE.up, GLIDE.backDown, 'plain'];
    parts.forEach((label, i) => {
      writer.note(written, beats, { label, attack: i === 0 || i === 3 || i === 5 ? 'tongued' : 'none' });
      if (i === 2 || i === 4) writer.breathe();
    });
  },
});
