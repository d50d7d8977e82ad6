import { Random } from '@/core/base';
import { defineFamily } from '../family';
import { count, dynamic, range, tempo } from '../parameters';
import { through, walk } from './walks';

export const blindTuning = defineFamily({
  id: 'blind-tuning',
  title: 'Blind tuning',
  section: 'intonation',
  purposes: ['tuning'],
  what: 'Which way do you lean when nothing shows you?',
  how: 'Hear or think the note, play it with the reading hidden, then look. It is a habit to know, not a score.',
  listen: 'Your own idea of the note, before you play it.',
  enough: 'Ten notes a day: the habit shows over weeks.',
  measured: 'Signed error of each note; the habit per note over time.',
  specs: {
    range: range('Within', 3),
    notes: count('Notes', 3, 20),
    seed: count('Order', 1, 99),
    through: through(),
    beats: count('Each', 3, 8, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['leaning'], feeds: { map: true, seams: false, trends: true } },
  fixed: () => ({ blind: true }),
  defaults: (_instrument, _level, { low, high }) => ({
    range: { low, high },
    notes: 8,
    seed: 1,
    through: 'usual' as const,
    beats: 4,
    dynamic: 'mf' as const,
    tempo: null,
  }),
  write(writer, { range: { low, high }, notes, seed, through: by, beats }, instrument) {
    const random = new Random(seed);
    const all = walk(instrument, by, low, high);
    let before = -1;
    for (let i = 0; i < notes; i++) {
      let written = before;
      while (written === before) written = all[Math.floor(random.next() * all.length)]!;
      before = written;
      writer.note(written, beats);
      writer.breathe();
      writer.fillBar();
      writer.rest(4);
    }
  },
});
