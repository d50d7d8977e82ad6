import { seamsOf } from '@/core/instruments';
import { defineFamily } from '../family';
import { count, note, tempo } from '../parameters';
import { SHORT_DOSE } from './cautions';
import { nextTo, through, walk } from './walks';

export const altissimoPairs = defineFamily({
  id: 'altissimo-pairs',
  title: 'Altissimo pairs',
  section: 'seams',
  purposes: ['the high notes', 'the break'],
  what: 'From the last comfortable note to each one above it: short doses, daily, for two weeks.',
  how: 'Slur up to the high note and come back. When it does not speak after three tries, go on; tomorrow is another day.',
  listen: 'Does the high note speak at once, with no growl below it and no squeak above?',
  enough: 'While it still feels easy; the block ends by itself.',
  measured: 'Which notes spoke, how late, squeaks and undertones, pitch.',
  differ: 'some drop the jaw, some keep head and jaw still.',
  caution: SHORT_DOSE,
  specs: {
    from: note('Last comfortable note'),
    above: count('Notes above', 1, 12),
    times: count('Times each', 1, 4),
    beats: count('Each note', 1, 4, 'beats'),
    through: through(),
    tempo: tempo(),
  },
  counts: { measures: ['seam', 'pitch', 'level', 'air'] },
  fixed: () => ({ longestSeconds: 300 }),
  defaults: (instrument, level) => ({
    from: instrument.altissimoFrom ?? seamsOf(instrument).at(-1)?.below ?? instrument.home,
    above: level === 'exacting' ? 6 : 4,
    times: 2,
    beats: 2,
    through: 'usual' as const,
    tempo: 60,
  }),
  write(writer, { from, above, times, beats, through: by }, instrument) {
    const row = walk(instrument, by, from + instrument.step, writer.high).filter((written) =>
      writer.has(written),
    );
    // From the very top there is nothing above: the way down from it is the same leap.
    const [start, away] =
      from < writer.high ? [from, row.slice(0, above)] : [nextTo(instrument, by, from, -1), [from]];
    for (const written of away) {
      for (let i = 0; i < times; i++) writer.slurred([start, written, start], beats);
      writer.fillBar(true);
      writer.breathe();
    }
  },
});
