import { defineFamily } from '../family';
import { choice, count, range, tempo } from '../parameters';
import { through, walk } from './walks';

export const tapers = defineFamily({
  id: 'tapers',
  title: 'Tapers',
  section: 'dynamics',
  purposes: ['soft playing', 'tuning', 'breath and air'],
  what: 'From full to nothing, with the pitch kept. Most instruments go flat as they fade; clarinets go sharp.',
  how: 'Begin full and let the note fade to nothing: less air, not slower air. Free at first, later over four beats; then backward, out of nothing.',
  listen: 'The pitch while it fades, and the end: it vanishes, it is not cut off.',
  enough: 'Three on each note. When one stops early, begin the next a little softer.',
  measured: 'Level against the line, where the note ends, pitch per level.',
  specs: {
    range: range('Notes', 0),
    by: choice('By', [
      ['semitone', 'semitones'],
      ['scale', 'a scale'],
    ]),
    through: through(),
    direction: choice('Way', [
      ['out', 'to nothing'],
      ['in', 'from nothing'],
      ['both', 'both'],
    ]),
    beats: count('Over', 3, 16, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['line', 'pitch'] },
  defaults: (instrument, level, { low, high }) => ({
    range: {
      low: Math.max(low, instrument.home - 2),
      high: Math.min(high, instrument.home + (level === 'beginner' ? 2 : 5)),
    },
    by: 'scale' as const,
    through: 'usual' as const,
    direction: 'out' as const,
    beats: 4,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, by, through: goes, direction, beats }, instrument) {
    const scale = [0, 2, 4, 5, 7, 9, 11];
    const row = walk(instrument, goes, low, high).filter(
      (written) => by === 'semitone' || scale.includes((written - low) % 12),
    );
    for (const written of row) {
      if (direction !== 'in') {
        writer.setDynamic('f');
        writer.note(written, beats, { hairpin: 'fade' });
        writer.breathe();
        writer.fillBar();
      }
      if (direction !== 'out') {
        writer.setDynamic('pp');
        writer.note(written, beats, { hairpin: 'grow', attack: 'breath' });
        writer.breathe();
        writer.fillBar();
      }
    }
  },
});
