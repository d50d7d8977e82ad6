import { defineFamily } from '../family';
import { count, dynamic, range, tempo } from '../parameters';
import { DIZZY } from './cautions';
import { scaleFrom, through, walk } from './walks';

/** Beats that an open note is drawn with; it lasts as long as it is held. */
const DRAWN = 16;

export const longHold = defineFamily({
  id: 'long-hold',
  title: 'Long hold',
  section: 'sound',
  purposes: ['breath and air', 'the low notes', 'sameness of tone'],
  what: 'How long does a note stay pure? The figure is worth following over a month or two.',
  how: 'Walk down a short scale and hold its last note as long as it stays pure, without vibrato; then the same to the next one. Let go when it wavers, not when the air is gone.',
  listen: 'The first waver of pitch or loudness: there the hold ends, whatever air is left.',
  enough: 'Two tries for each note; the best of the day is the one to follow. At any dizziness, at once.',
  measured: 'Purity time of each held note, drift and fading towards its end.',
  caution: DIZZY,
  specs: {
    range: range('Notes that are held', 1),
    steps: count('Notes of the scale before', 2, 5, 'notes'),
    through: through(),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['hold', 'pitch', 'steadiness'] },
  fixed: () => ({ longestSeconds: 900 }),
  defaults: (_instrument, _level, { bottom }) => ({
    range: { low: bottom.low, high: Math.min(bottom.high, bottom.low + 4) },
    steps: 4,
    through: 'usual' as const,
    dynamic: 'mf' as const,
    tempo: null,
  }),
  write(writer, { range: { low, high }, steps, through: by }, instrument) {
    for (const bottom of walk(instrument, by, low, high)) {
      const row = scaleFrom(instrument, by, bottom, steps + 1);
      const down = row.filter((written) => written === bottom || writer.has(written)).reverse();
      down
        .slice(0, -1)
        .forEach((written, i) => writer.note(written, 1, { attack: i === 0 ? 'tongued' : 'none' }));
      writer.note(bottom, DRAWN, {
        attack: down.length > 1 ? 'none' : 'tongued',
        label: 'hold as long as it stays pure',
        role: 'hold',
        open: true,
      });
      writer.breathe();
      writer.rest(4);
    }
  },
});
