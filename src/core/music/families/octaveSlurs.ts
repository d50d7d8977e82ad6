import { defineFamily } from '../family';
import { choice, count, dynamic, range, tempo } from '../parameters';
import { goesThrough, through, walk } from './walks';

const PATTERNS = [
  ['LHL', 'low high low'],
  ['HLH', 'high low high'],
  ['LH', 'alternating'],
  ['LHHL', 'low high high low'],
  ['HLLH', 'high low low high'],
  ['falling', 'falling chain in one breath'],
  ['rising', 'rising by semitone'],
] as const;

/** By the register key alone a tube that overblows odd modes leaps a twelfth. */
const LEAPS = [
  ['12', 'an octave'],
  ['19', 'a twelfth'],
] as const;

export const octaveSlurs = defineFamily({
  id: 'octave-slurs',
  title: 'Octave slurs',
  section: 'seams',
  purposes: ['the break', 'flexibility'],
  what: 'The leap itself: only the first note is tongued, nothing is squeezed, both notes are in tune.',
  how: 'Tongue the first note only. Keep the air going through the leap and let it change just enough, with as little movement as possible. Slowly at first.',
  listen:
    'The leap: no crack, no hole, no bump. Then the upper note: no louder and no thinner than the lower one.',
  enough: 'After five clean ones in a row, or five minutes: who is tired begins to squeeze.',
  measured: 'Dip, time and overshoot of each leap, its width, the step in level and colour, breaks.',
  differ: 'how much may move in the leap; some drop the jaw, some keep head and jaw still.',
  specs: {
    pattern: choice('Pattern', PATTERNS),
    leap: choice('Leap', LEAPS),
    range: range('Lower notes', 0),
    through: through(),
    beats: count('Each note', 1, 4, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['seam', 'interval', 'octaves', 'pitch', 'level', 'air'] },
  defaults: (instrument, level, { bottom, high }) => {
    const leap = instrument.series === 'odd' ? ('19' as const) : ('12' as const);
    const top = Math.max(bottom.low, Math.min(bottom.high, high - Number(leap)));
    return {
      pattern: 'LHL' as const,
      leap,
      range: { low: Math.max(bottom.low, top - (level === 'beginner' ? 4 : 7)), high: top },
      through: 'usual' as const,
      beats: 1,
      dynamic: 'mf' as const,
      tempo: 60,
    };
  },
  write(writer, { pattern, leap, range: { low, high }, through: by, beats }, instrument) {
    const up = Number(leap);
    const lows = walk(instrument, by, low, high).filter(
      (written) => writer.has(written + up) && goesThrough(instrument, by, written + up),
    );
    // Where no leap fits over the chosen notes, the one under them is slurred.
    const row =
      lows.length > 0
        ? lows
        : [Math.max(writer.low, high - up)].filter((written) => writer.has(written + up));
    if (row.length === 0) {
      writer.slurred([low, high, low], beats);
      return;
    }
    if (pattern === 'falling') {
      const chain = [...row].reverse();
      chain.forEach((written, i) => {
        writer.note(written + up, beats, { attack: i === 0 ? 'tongued' : 'none' });
        writer.slur(written, beats);
      });
      writer.fillBar(true);
      return;
    }
    const letters = pattern === 'rising' ? 'LHL' : pattern === 'LH' ? 'LHLHLH' : pattern;
    for (const written of row) {
      writer.slurred(
        [...letters].map((letter) => (letter === 'L' ? written : written + up)),
        beats,
      );
      writer.fillBar(true);
      if (pattern !== 'rising') writer.breathe();
    }
  },
});
