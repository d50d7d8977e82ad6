import type { Midi } from '@/core/base';
import { writtenRange } from '@/core/instruments';
import { usualAt } from '@/core/music';
import { inTurn, keyOf, scaleOf, third, type SeamDrill, type Turn } from './turn';

/** Whether two notes can be played, one after the other, by this instrument. */
const has = ({ instrument }: Turn, ...notes: readonly Midi[]): boolean => {
  const { low, high } = writtenRange(instrument);
  return notes.every((written) => written >= low && written <= high);
};

/** Exercises over one break, by how it holds: alone and slow while it is weak, in music when it is nearly mended. */
export const SEAM_DRILLS: readonly SeamDrill[] = [
  {
    family: 'just-this-seam',
    load: 1,
    paced: true,
    right: [0, 1],
    values: ({ dynamic }, { from, to }, size) => ({
      from,
      to,
      times: 4 + 2 * size,
      beats: 2,
      dynamic,
    }),
  },
  {
    family: 'octave-slurs',
    load: 1,
    paced: true,
    right: [0, 1],
    values: (turn, { above, below }, size) => {
      const top = Math.min(below, above - 1 - (turn.round % 3));
      const low = Math.max(above - 12, top - 2 - size, turn.comfort.low);
      if (low > top || !has(turn, low, low + 12)) return null;
      return {
        range: { low, high: Math.min(top, writtenRange(turn.instrument).high - 12) },
        leap: '12',
        pattern: third(turn.round, ['LHL', 'HLH', 'LH', 'LHHL', 'HLLH']),
        dynamic: turn.dynamic,
      };
    },
  },
  {
    family: 'anchored-intervals',
    load: 1,
    paced: true,
    right: [0, 1],
    values: (turn, { above, below }, size) => {
      const anchor = usualAt(turn.instrument, below - (turn.round % 3));
      const widest = above - anchor + 2 + size;
      if (!has(turn, anchor, anchor + widest)) return null;
      return { anchor, direction: 'up', widest, chromatic: true, dynamic: turn.dynamic };
    },
  },
  {
    family: 'vent-flick',
    load: 1,
    right: [0, 1],
    values: (turn, { above, below }, size) =>
      // The flicked places are A3 to C4: the drill belongs to the break under them.
      above <= 57 && below >= 53
        ? { drill: inTurn(turn, ['octaves', 'tongued', 'from-low']), times: 2 + size }
        : null,
  },
  {
    family: 'eight-ways',
    load: 1,
    right: [0.6, 1],
    values: (turn, { above }, size) => {
      const from = above - third(turn.round, [4, 2, 5]);
      if (!has(turn, from, from + 7)) return null;
      const way = third(turn.round, [
        'slur-up',
        'slur-down',
        'triplets',
        'up-softer',
        'down-louder',
        'tongued',
        'breath',
        'back',
      ]);
      return { from, notes: 5, way: size >= 2 ? 'all' : way };
    },
  },
  {
    family: 'altissimo-pairs',
    load: 3,
    dose: 240,
    from: 'steady',
    right: [0, 0.85],
    values: (turn, { below }, size) => {
      const { low, high } = writtenRange(turn.instrument);
      if (below < low + 0.6 * (high - low) || !has(turn, below + 1 + size)) return null;
      return { from: below, above: 1 + size, times: 2 };
    },
  },
  {
    family: 'roaming-scale',
    load: 1,
    paced: true,
    right: [0.85, 1],
    values: (turn, { below, above }, size) => {
      const low = Math.max(writtenRange(turn.instrument).low, below - 7 - (turn.round % 3));
      const high = Math.min(writtenRange(turn.instrument).high, above + 7);
      if (high - low < 10) return null;
      return {
        key: keyOf(turn),
        scale: scaleOf(turn),
        range: { low, high },
        slurred: true,
        bars: 6 + 4 * size,
        seed: 1 + (Math.abs(turn.round) % 99),
        dynamic: turn.dynamic,
      };
    },
  },
];
