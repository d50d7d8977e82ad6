import { defineFamily } from '../family';
import { count, dynamic, range } from '../parameters';
import { DIZZY } from './cautions';
import { stepwise } from './rows';

export const longHold = defineFamily({
  id: 'long-hold',
  title: 'Long hold',
  section: 'sound',
  purposes: ['breath and air', 'the low notes', 'sameness of tone'],
  what: 'How long does a note stay pure? The figure is worth following over a month or two.',
  how: 'Walk down a short scale and hold its last note as long as it stays pure, without vibrato; then the same to the next one. Stop when it wavers, not when the air is gone.',
  measured: 'Purity time of each held note, drift and fading towards its end.',
  caution: DIZZY,
  specs: {
    range: range('Notes that are held', 1),
    steps: count('Notes of the scale before', 2, 5, 'notes'),
    hold: count('Room to hold', 8, 60, 'beats'),
    dynamic: dynamic(),
  },
  counts: { measures: ['pitch', 'steadiness', 'level', 'purity'] },
  fixed: () => ({ longestSeconds: 900 }),
  defaults: (instrument, level, { bottom }) => ({
    range: { low: bottom.low, high: Math.min(bottom.high, bottom.low + 4) },
    steps: 4,
    hold: level === 'beginner' ? 10 : Math.min(60, Math.round(instrument.breathSeconds)),
    dynamic: 'mf' as const,
  }),
  write(writer, { range: { low, high }, steps, hold }) {
    const scale = [0, 2, 4, 5, 7, 9];
    for (const bottom of stepwise(low, high)) {
      const row = scale.slice(0, steps + 1).map((degree) => bottom + degree);
      const walk = row.filter((written) => written === bottom || writer.has(written)).reverse();
      walk
        .slice(0, -1)
        .forEach((written, i) => writer.note(written, 1, { attack: i === 0 ? 'tongued' : 'none' }));
      writer.note(bottom, hold, { attack: walk.length > 1 ? 'none' : 'tongued', label: 'hold' });
      writer.breathe();
      writer.rest(4);
    }
  },
});
