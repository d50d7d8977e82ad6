import { defineFamily } from '../family';
import { count, dynamic, note, tempo } from '../parameters';
import { goesThrough, nextTo, through } from './walks';

export const twoNoteLegato = defineFamily({
  id: 'two-note-legato',
  title: 'Two-note legato',
  section: 'sound',
  purposes: ['sameness of tone', 'flexibility'],
  what: 'One kind of air carried through the same semitone in every octave.',
  how: 'Slur the pair to and fro at the bottom, then an octave up, then again. Only the fingers move.',
  listen: 'The moment between the two notes: nothing happens in it, no hole and no push.',
  enough: 'When the highest pair is as smooth as the lowest, or after three times through.',
  measured: 'Each slur’s dip and time, sameness of the pairs.',
  specs: {
    low: note('Lower note'),
    turns: count('To and fro', 1, 6, 'times'),
    through: through(),
    beats: count('Each note', 1, 4, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['seam', 'sameness', 'pitch', 'level', 'air'] },
  defaults: (_instrument, _level, { bottom }) => ({
    low: bottom.low,
    turns: 2,
    through: 'usual' as const,
    beats: 2,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { low, turns, through: by, beats }, instrument) {
    const over = nextTo(instrument, by, low, 1);
    const first = writer.has(over) ? low : nextTo(instrument, by, low, -1);
    const width = nextTo(instrument, by, first, 1) - first;
    const lies = (written: number) => writer.has(written) && goesThrough(instrument, by, written);
    for (let at = first; at === first || (lies(at) && lies(at + width)); at += 12) {
      writer.slurred(
        Array.from({ length: 2 * turns + 1 }, (_, i) => (i % 2 === 0 ? at : at + width)),
        beats,
      );
      writer.breathe();
    }
  },
});
