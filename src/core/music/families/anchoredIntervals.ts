import { mainBreakOf, writtenRange } from '@/core/instruments';
import { defineFamily } from '../family';
import { choice, count, dynamic, flag, note, tempo } from '../parameters';
import { stepwise } from './rows';
import { goesThrough, through, usualAt } from './walks';

export const anchoredIntervals = defineFamily({
  id: 'anchored-intervals',
  title: 'Break-crossing intervals',
  section: 'seams',
  purposes: ['the break', 'flexibility', 'tuning'],
  what: 'From one anchor note to each next note and back to the very same anchor.',
  how: 'Slur from the anchor to the next note and come home, then to the one after that. The anchor has to be the same note each time: pitch, level and colour.',
  listen: 'The anchor when you return: has it moved?',
  enough:
    'At the widest leap, or when the anchor has moved three times running: the mouth follows the leap then.',
  measured: 'Every crossing; the anchor at each return against the first.',
  specs: {
    anchor: note('Anchor'),
    direction: choice('Go', [
      ['up', 'up'],
      ['down', 'down'],
    ]),
    widest: count('Widest interval', 1, 24, 'semitones'),
    chromatic: flag('Every semitone'),
    through: through(),
    beats: count('Each note', 1, 4, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['seam', 'anchor', 'interval', 'pitch', 'level'] },
  defaults: (instrument, level) => ({
    anchor: Math.max(
      writtenRange(instrument).low,
      usualAt(instrument, (mainBreakOf(instrument)?.below ?? instrument.home) - 2),
    ),
    direction: 'up' as const,
    widest: level === 'beginner' ? 7 : level === 'steady' ? 12 : 24,
    chromatic: false,
    through: 'usual' as const,
    beats: 2,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { anchor, direction, widest, chromatic, through: by, beats }, instrument) {
    const sign = direction === 'up' ? 1 : -1;
    const away = stepwise(1, widest).filter((size) => {
      const written = anchor + sign * size;
      return (
        (chromatic || ![1, 6, 8, 10, 13, 18, 20, 22].includes(size)) &&
        (goesThrough(instrument, by, written) || !Number.isInteger(anchor)) &&
        writer.has(written)
      );
    });
    const sizes = away.length > 0 ? away : [writer.has(anchor + sign) ? 1 : -1];
    for (const size of sizes) {
      writer.note(anchor, beats, { role: 'anchor' });
      writer.slur(anchor + sign * size, beats);
      writer.slur(anchor, beats, { role: 'anchor' });
      writer.fillBar(true);
      writer.breathe();
    }
  },
});
