import { EXPLORING } from './exploring';
import { defineFamily } from '../family';
import { count, note, tempo } from '../parameters';

export const edgeHold = defineFamily({
  id: 'edge-hold',
  title: 'Edge hold',
  section: 'sound',
  purposes: ['the low notes', 'the high notes', 'breath and air'],
  what: 'Presses the lowest note towards its breaking point and stays just short of it; overtones grow. The highest notes, held steady, train the low ones.',
  how: 'Let the note grow until it is about to break, and stay there. If it breaks, you have found the edge: begin again just below.',
  listen: 'Overtones that grow above the note just before it gives way.',
  enough: 'Three holds of a few seconds.',
  measured: 'How loud the edge is, how rich, and how long you stay.',
  caution: 'Short doses. Numb, dizzy or sore: stop. Loud: protect your ears in a small room.',
  specs: {
    note: note('Note'),
    times: count('Times', 1, 6),
    beats: count('Each', 4, 16, 'beats'),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['edge', 'hold'] },
  fixed: () => ({ longestSeconds: 240 }),
  defaults: (_instrument, _level, { bottom }) => ({ note: bottom.low, times: 3, beats: 8, tempo: 60 }),
  write(writer, { note: written, times, beats }) {
    for (let i = 0; i < times; i++) {
      writer.setDynamic('mf');
      writer.note(written, beats / 2, { hairpin: 'grow', role: 'edge' });
      writer.setDynamic('ff');
      writer.slur(written, beats / 2, { label: 'stay', role: 'edge' });
      writer.breathe();
      writer.fillBar();
      writer.rest(4);
    }
  },
});
