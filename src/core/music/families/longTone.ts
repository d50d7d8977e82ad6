import { defineFamily } from '../family';
import { count, dynamic, note, tempo } from '../parameters';
import { DIZZY } from './cautions';

export const longToneFamily = defineFamily({
  id: 'long-tone',
  title: 'One honest long tone',
  section: 'sound',
  purposes: ['sameness of tone', 'warming up', 'tuning'],
  what: 'The plainest look at a sound: one note, held, as it is today.',
  how: 'Breathe low, let the note begin by itself and hold it to the end of its beats. Change nothing while it lasts, whatever you hear.',
  listen: 'Does it begin at once? Does it lean up or down, swing, or thin out towards its end?',
  enough: 'Three notes, with a rest between them: it is a look in the mirror, not work.',
  measured: 'Centre, drift, wobble, vibrato, level and its evenness, purity time, attack, air.',
  caution: DIZZY,
  specs: { note: note('Note'), beats: count('Hold', 2, 64, 'beats'), dynamic: dynamic(), tempo: tempo() },
  counts: { measures: ['held'] },
  defaults: (instrument) => ({ note: instrument.home, beats: 8, dynamic: 'mf' as const, tempo: 60 }),
  write: (writer, { note: written, beats }) => writer.note(written, beats),
});
