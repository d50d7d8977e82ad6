import { defineFamily } from '../family';
import { count, dynamic, note, tempo } from '../parameters';
import { DIZZY } from './cautions';

export const longToneFamily = defineFamily({
  id: 'long-tone',
  title: 'One honest long tone',
  section: 'sound',
  purposes: ['sameness of tone', 'warming up', 'tuning'],
  what: 'The plainest look at a sound: one note, held, as it is today.',
  how: 'Breathe low, let the note begin by itself, change nothing while it lasts.',
  measured: 'Centre, drift, wobble, vibrato, level and its evenness, purity time, attack, air.',
  caution: DIZZY,
  specs: { note: note('Note'), beats: count('Hold', 2, 64, 'beats'), dynamic: dynamic(), tempo: tempo() },
  counts: { measures: ['held'] },
  defaults: (instrument) => ({ note: instrument.home, beats: 8, dynamic: 'mf' as const, tempo: 60 }),
  write: (writer, { note: written, beats }) => writer.note(written, beats),
});
