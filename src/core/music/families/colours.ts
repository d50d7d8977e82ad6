import { EXPLORING } from './exploring';
import { defineFamily } from '../family';
import { choice, count, note, tempo } from '../parameters';

const sidesOf = (pair: string): [string, string] => {
  const [first = '', second = ''] = pair.split(' / ');
  return [first, second];
};

export const colours = defineFamily({
  id: 'colours',
  title: 'Colours on purpose',
  section: 'air',
  purposes: ['flexibility', 'sameness of tone'],
  what: 'How far apart can you set two colours of one note, and does the pitch stay?',
  how: 'Play the same note twice in opposite colours: dark and clear, covered and open, soft and strong; or make a low note carry by colour instead of level.',
  listen: 'How far apart the two are, while the pitch stays where it was.',
  enough: 'Five pairs, the last one as far apart as you can.',
  measured: 'Distance between the two colours, the pitch between them, the level.',
  specs: {
    note: note('Note'),
    pair: choice('Colours', [
      ['dark / clear', 'dark and clear'],
      ['covered / open', 'covered and open'],
      ['soft / strong', 'soft and strong, contrasting'],
      ['plain / carrying', 'plain and carrying'],
    ]),
    rounds: count('Rounds', 2, 6),
    beats: count('Each', 2, 8, 'beats'),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['colours', 'compare'] },
  fixed: ({ pair }) => ({ sides: sidesOf(pair) }),
  defaults: (instrument) => ({
    note: instrument.home,
    pair: 'dark / clear' as const,
    rounds: 3,
    beats: 4,
    tempo: 60,
  }),
  write(writer, { note: written, pair, rounds, beats }) {
    const names = sidesOf(pair);
    for (let i = 0; i < 2 * rounds; i++) {
      if (pair === 'soft / strong') writer.setDynamic(i % 2 === 0 ? 'p' : 'f');
      writer.note(written, beats, {
        label: names[i % 2 === 0 ? 0 : 1],
        role: i % 2 === 0 ? 'first' : 'second',
      });
      if (i % 2 === 1) writer.breathe();
    }
  },
});
