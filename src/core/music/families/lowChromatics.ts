import { defineFamily } from '../family';
import { choice, count, dynamic, range, tempo } from '../parameters';
import { type Attack } from '../score';
import { through, walk } from './walks';

export const lowChromatics = defineFamily({
  id: 'low-chromatics',
  title: 'Low-register chromatics',
  section: 'seams',
  purposes: ['the low notes', 'attacks'],
  what: 'Slowly down to the bottom: does it speak on the beat, at the right octave, and at what level?',
  how: 'Walk down to the lowest note: tongued, then slurred, then begun by the breath alone, then with a strong tongue.',
  listen: 'Does the lowest note speak on the beat? Late, or in the wrong octave first, is what to work on.',
  enough: 'Twice down in each way.',
  measured: 'How late each note speaks, blips, level of the bottom against the rest.',
  differ: 'slower, wider air for the low notes, or one fastest air everywhere; the tongue low, or high.',
  specs: {
    range: range('From the bottom to', 2),
    attack: choice('Attack', [
      ['tongued', 'tongued'],
      ['slurred', 'slurred'],
      ['breath', 'no tongue'],
      ['strong', 'strong tongue'],
    ]),
    through: through(),
    beats: count('Each note', 1, 4, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['attack', 'seam', 'pitch', 'level', 'rhythm'] },
  defaults: (_instrument, _level, { bottom }) => ({
    range: { low: bottom.low, high: Math.min(bottom.high, bottom.low + 7) },
    attack: 'tongued' as const,
    through: 'usual' as const,
    beats: 2,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, attack, through: by, beats }, instrument) {
    if (attack === 'strong') writer.setDynamic('f');
    const how: Attack = attack === 'slurred' ? 'none' : attack === 'breath' ? 'breath' : 'tongued';
    for (const written of walk(instrument, by, high, low)) writer.note(written, beats, { attack: how });
    writer.fillBar(true);
    writer.breathe();
    for (const written of walk(instrument, by, low, high)) writer.note(written, beats, { attack: how });
    writer.fillBar(true);
  },
});
