import { writtenRange } from '@/core/instruments';
import { defineFamily } from '../family';
import { count, note, tempo } from '../parameters';
import { SHORT_DOSE } from './cautions';
import { stepwise } from './rows';

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
    tempo: tempo(),
  },
  counts: { measures: ['seam', 'pitch', 'level', 'air'] },
  fixed: () => ({ longestSeconds: 300 }),
  defaults: (instrument, level) => ({
    from: Math.max(writtenRange(instrument).low, instrument.registers.at(-1)!.low - instrument.step),
    above: level === 'exacting' ? 6 : 4,
    times: 2,
    beats: 2,
    tempo: 60,
  }),
  write(writer, { from, above, times, beats }, { step }) {
    const highest = Math.min(writer.high, from + above * step);
    const start = highest > from ? from : writer.high - above * step;
    for (const written of stepwise(start + step, Math.max(start + step, highest), step)) {
      for (let i = 0; i < times; i++) writer.slurred([start, written, start], beats);
      writer.fillBar(true);
      writer.breathe();
    }
  },
});
