import { comfortOf, defineFamily } from '../family';
import { dynamic, note } from '../parameters';
import { walk } from './walks';

/** C, D, E, F, G and A. */
const PLAIN = [0, 2, 4, 5, 7, 9];

export const onTheDay = defineFamily({
  id: 'on-the-day',
  title: 'On the day',
  section: 'prepare',
  purposes: ['warming up', 'tuning'],
  what: 'A quiet routine for the day of a performance: air, a few soft low notes, the tuning note, the octaves of the top, and a first entry softly.',
  how: 'Follow the parts as they come: slow breath, soft low notes, the tuning note, the octaves of the top, a first entry softly. Keep the instrument warm under an arm between them.',
  listen: 'Does everything speak softly? More is not asked today.',
  enough: 'Once. The rest of your strength is for the performance.',
  measured: 'The tuning note, the octaves of the top, how the soft entry speaks.',
  specs: {
    tuning: note('Tuning note'),
    top: note('Highest note of the music'),
    dynamic: dynamic('First entry'),
  },
  counts: { measures: ['octaves', 'pitch', 'attack'], feeds: { map: true, seams: false, trends: false } },
  defaults: (instrument, _level, { high }) => ({ tuning: instrument.home, top: high, dynamic: 'p' as const }),
  write(writer, { tuning, top, dynamic: first }, instrument) {
    writer.picture(8, {
      shape: 'out',
      from: 0.1,
      to: 0.5,
      text: 'Slow, warm breath through the closed tube',
    });
    writer.picture(4, { shape: 'in', from: 0.5, to: 0.1, text: 'Quietly in' });
    writer.setDynamic('pp');
    const { low: lowest, high: highest } = comfortOf(instrument, 'exacting').bottom;
    // From where a third upward needs no flat under a sharp.
    const low = [0, 1, 2]
      .map((down) => Math.floor(Math.min(highest, lowest + 4)) - down)
      .find((each) => PLAIN.includes(each % 12))!;
    for (const above of [2, 0, 4]) {
      const written = walk(
        instrument,
        'usual',
        writer.low,
        Math.max(writer.low, Math.min(writer.high, low + above)),
      ).at(-1)!;
      writer.note(written, 3);
      writer.rest(1);
    }
    writer.setDynamic('mf');
    writer.note(tuning, 6, { label: 'tune', role: 'tuning' });
    writer.rest(2);
    writer.note(top, 3);
    writer.rest(1);
    if (writer.has(top - 12)) {
      writer.note(top - 12, 2);
      writer.slur(top, 2);
      writer.rest(4);
    }
    writer.setDynamic(first);
    writer.note(tuning, 4, { label: 'first entry', attack: 'breath', role: 'entry' });
  },
});
