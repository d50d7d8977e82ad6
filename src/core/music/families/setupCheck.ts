import { defineFamily } from '../family';
import { count, note, tempo } from '../parameters';

const ORDINARY = { feeds: { map: true, seams: false, trends: true } } as const;

export const setupCheck = defineFamily({
  id: 'setup-check',
  title: 'Setup check',
  section: 'prepare',
  purposes: ['warming up', 'tuning'],
  what: 'Finds out whether the slide sits where it should: a tube pulled far out has small octaves, because the same millimetre is more cents on a short tube.',
  how: 'Warm the instrument with slow breath through the closed tube; never blast cold air. Put joint, slide or barrel where it normally sits. Play the low note, its octave, then one tuning note, plainly.',
  listen: 'Is the octave narrower or wider than on the tuner? Narrow says that the tube is pulled far out.',
  enough: 'Once as it stands, and once after the slide was moved.',
  measured: 'Pitch of both notes, the width of the octave, and the tuning note.',
  caution: 'No heat on an instrument; new wood is played in slowly.',
  specs: {
    low: note('Low note'),
    tuning: note('Tuning note'),
    beats: count('Hold', 3, 12, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['slide', 'octaves', 'pitch', 'steadiness'], ...ORDINARY },
  defaults: (instrument, _level, { bottom }) => ({
    low: bottom.low,
    tuning: instrument.home,
    beats: 4,
    tempo: 60,
  }),
  write(writer, { low, tuning, beats }) {
    const octave = writer.has(low + 12) ? low + 12 : low - 12;
    for (const written of [Math.min(low, octave), Math.max(low, octave), tuning]) {
      if (!writer.has(written)) continue;
      writer.note(written, beats);
      writer.fillBar();
      writer.rest(4);
    }
  },
});
