import { defineFamily } from '../family';
import { choice, count, range, strictTempo } from '../parameters';
import { KEY_OPTIONS, SCALE_OPTIONS, notesOfKey, signatureOf, usualKey } from './rows';

export const swells = defineFamily({
  id: 'swells',
  title: 'Swells',
  section: 'dynamics',
  purposes: ['soft playing', 'breath and air'],
  what: 'Growing and fading evenly, the peak on the bar, the tone kept.',
  how: 'Grow over four beats and fade over four, at 60, up a scale. Begin softer than you think.',
  listen: 'Steps or holes on the way, the pitch at the loudest place, the peak on the bar.',
  enough: 'Once up the scale, or where the soft ends no longer speak.',
  measured: 'Level against the line, where the peak falls, steps and holes, pitch per level, tone.',
  specs: {
    key: choice('Key', KEY_OPTIONS),
    scale: choice('Scale', SCALE_OPTIONS),
    range: range('Notes', 1),
    beats: count('Each way', 2, 8, 'beats'),
    tempo: strictTempo(),
  },
  counts: { measures: ['line', 'pitch', 'rhythm'] },
  fixed: ({ key, scale }) => ({ fifths: signatureOf(Number(key), scale) }),
  defaults: (instrument, level, { low, high }) => ({
    key: usualKey(instrument),
    scale: 'major' as const,
    range: {
      low: Math.max(low, instrument.home - 5),
      high: Math.min(high, instrument.home + (level === 'beginner' ? 4 : 7)),
    },
    beats: 4,
    tempo: 60,
  }),
  write(writer, { key, scale, range: { low, high }, beats }) {
    writer.setDynamic('p');
    const row = notesOfKey(Number(key), scale, low, high);
    for (const written of row.length > 0 ? row : [Math.ceil(low)]) {
      writer.note(written, 2 * beats, { hairpin: 'swell' });
      writer.fillBar();
      writer.breathe();
    }
  },
});
