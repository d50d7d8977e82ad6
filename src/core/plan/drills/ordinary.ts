import { nextTo } from '@/core/music';
import {
  bottomOf,
  inTurn,
  keyOf,
  minorEvery,
  noteOf,
  scaleOf,
  stretchOf,
  third,
  tonicFor,
  type Row,
} from './turn';

/** Exercises that are not about one seam: a row each. What is not here is planned only where the player asks for it. */
export const DRILLS: readonly Row[] = [
  {
    family: 'reference-travel',
    part: 'tone',
    load: 1,
    values: (turn, size) => {
      const { low, high } = bottomOf(turn, 4 + 2 * size);
      return { reference: high, range: { low, high }, dynamic: turn.dynamic };
    },
  },
  {
    family: 'three-note-groups',
    part: 'tone',
    load: 1,
    values: (turn, size) => ({
      range: stretchOf(turn, 5 + 3 * size),
      direction: turn.place === 2 ? 'up' : 'down',
      variant: inTurn(turn, ['semitones', 'octave']),
      dynamic: turn.dynamic,
    }),
  },
  {
    family: 'long-hold',
    part: 'tone',
    load: 2,
    dose: 300,
    values: (turn, size) => ({ range: bottomOf(turn, 1 + size), dynamic: turn.dynamic }),
  },
  {
    family: 'problem-circle',
    part: 'tone',
    load: 1,
    ofProblem: true,
    values: ({ instrument, problem, dynamic, comfort: { low, high } }, size) => {
      if (!problem) return null;
      const { written } = problem.note;
      const to = (from: number, way: 1 | -1) => nextTo(instrument, 'usual', from, way);
      const neighbour = to(written, -1) >= low ? to(written, -1) : to(written, 1);
      const other = to(written + 1, 1) <= high ? to(written + 1, 1) : to(written - 2, -1);
      return { problem: written, neighbour, third: other, times: 3 + size, dynamic };
    },
  },
  {
    family: 'two-note-legato',
    part: 'tone',
    load: 1,
    values: (turn, size) => ({ low: bottomOf(turn, 1).low, turns: 2 + size, dynamic: turn.dynamic }),
  },
  {
    family: 'low-chromatics',
    part: 'tone',
    load: 1,
    values: (turn, size) => ({
      // From the bottom up it always goes; how far is what differs.
      range: {
        low: turn.comfort.bottom.low,
        high: turn.comfort.bottom.low + 3 + 2 * size + third(turn.round, [0, 1]),
      },
      attack: inTurn(turn, ['tongued', 'slurred', 'breath', 'strong']),
      dynamic: turn.dynamic,
    }),
  },
  {
    family: 'harmonic-climb',
    part: 'tone',
    load: 2,
    dose: 240,
    from: 'steady',
    values: (turn, size) => {
      const { low } = bottomOf(turn, 1);
      return {
        range: { low, high: low + Math.min(3, size) },
        modes: turn.instrument.series === 'odd' ? 2 : 3,
      };
    },
  },
  {
    family: 'tapers',
    part: 'dynamics',
    load: 1,
    values: (turn, size) => ({
      range: stretchOf(turn, 2 + 2 * size),
      by: inTurn(turn, ['scale', 'semitone']),
      direction: inTurn(turn, ['out', 'out', 'both']),
    }),
  },
  {
    family: 'swells',
    part: 'dynamics',
    load: 1,
    values: (turn, size) => ({ key: keyOf(turn), range: stretchOf(turn, 4 + 3 * size) }),
  },
  {
    family: 'dynamic-window',
    part: 'dynamics',
    load: 2,
    dose: 240,
    values: (turn, size) => ({ range: stretchOf(turn, 7 + 5 * size), step: 3 }),
  },
  {
    family: 'reversed-dynamics',
    part: 'dynamics',
    load: 1,
    values: (turn, size) => ({ from: tonicFor(turn, 8), times: 1 + size }),
  },
  {
    family: 'whisper-tones',
    part: 'dynamics',
    load: 1,
    dose: 240,
    from: 'steady',
    values: (turn, size) => ({ note: bottomOf(turn, 0).low, times: 2 + size }),
  },
  {
    family: 'pulses',
    part: 'dynamics',
    load: 1,
    values: (turn, size) => ({ note: noteOf(turn), pulses: 4 + 2 * size }),
  },
  {
    family: 'drone-work',
    part: 'intonation',
    load: 1,
    values: (turn, size) => ({
      drone: tonicFor(turn, 12),
      interval: size >= 2 ? 'all' : inTurn(turn, ['fifth', 'octave', 'third']),
      dynamic: turn.dynamic,
    }),
  },
  {
    family: 'section-chords',
    part: 'intonation',
    load: 1,
    from: 'steady',
    values: (turn) => ({
      root: tonicFor(turn, 12),
      chord: turn.instrument.plainKeys ? 'major' : inTurn(turn, ['major', 'minor', 'seventh']),
    }),
  },
  {
    family: 'octave-check',
    part: 'intonation',
    load: 1,
    values: (turn, size) => ({
      range: stretchOf({ ...turn, comfort: { ...turn.comfort, high: turn.comfort.high - 12 } }, 3 + 2 * size),
      step: 2,
    }),
  },
  {
    family: 'blind-tuning',
    part: 'intonation',
    load: 1,
    values: (turn, size) => ({
      range: stretchOf(turn, 9 + 3 * size),
      notes: 5 + 2 * size,
      seed: 1 + (Math.abs(turn.round) % 99),
    }),
  },
  {
    family: 'tendency-scan',
    part: 'intonation',
    load: 1,
    values: (turn, size) => ({
      range: stretchOf(turn, 8 + 4 * size),
      loudness: 'all',
    }),
  },
  {
    family: 'subdivision-ladder',
    part: 'rhythm',
    load: 1,
    values: (turn, size) => ({
      note: noteOf(turn),
      top: turn.level === 'beginner' ? '4' : inTurn(turn, ['8', '12', '16']),
      bars: 1 + Math.floor(size / 2),
      dynamic: turn.dynamic,
    }),
  },
  {
    family: 'roaming-scale',
    part: 'rhythm',
    load: 1,
    paced: true,
    values: (turn, size) => ({
      key: keyOf(turn),
      scale: scaleOf(turn),
      range: stretchOf(turn, 12 + 4 * third(turn.round, [0, 1, 2])),
      form: inTurn(turn, ['scale', 'scale', 'arpeggio']),
      slurred: turn.round % 2 === 1,
      bars: 6 + 4 * size,
      seed: 1 + (Math.abs(turn.round) % 99),
      dynamic: turn.dynamic,
    }),
  },
  {
    family: 'twelve-keys',
    part: 'rhythm',
    load: 1,
    paced: true,
    from: 'steady',
    values: (turn, size) => ({
      phrase: inTurn(turn, ['turn', 'leap', 'sigh']),
      from: String(turn.keys.easy),
      scale: minorEvery(turn, 1),
      keys: Math.min(3 + 3 * size, turn.instrument.plainKeys?.length ?? 12),
      slurred: turn.round % 2 === 0,
      dynamic: turn.dynamic,
    }),
  },
  {
    family: 'melody',
    part: 'music',
    load: 1,
    values: (turn) => {
      const span = 12 + third(turn.round, [0, 2, 4]);
      return {
        key: String(turn.round % 2 === 0 ? turn.keys.easy : turn.keys.hard),
        scale: minorEvery(turn, 2),
        range: stretchOf(turn, span),
        dynamic: turn.dynamic,
      };
    },
  },
  {
    family: 'breath-sweep',
    part: 'exploring',
    load: 1,
    values: (turn, size) => ({
      note: bottomOf(turn, 0).low,
      stage: size === 0 ? 'one' : inTurn(turn, ['one', 'octaves', 'fingers', 'straight', 'five']),
    }),
  },
  {
    family: 'bends',
    part: 'exploring',
    load: 1,
    values: (turn) => ({ note: noteOf(turn), means: inTurn(turn, ['angle', 'lips', 'jaw', 'all']) }),
  },
  {
    family: 'colours',
    part: 'exploring',
    load: 1,
    values: (turn, size) => ({
      note: noteOf(turn),
      pair: inTurn(turn, ['dark / clear', 'covered / open', 'soft / strong', 'plain / carrying']),
      rounds: 2 + size,
    }),
  },
  {
    family: 'comparison',
    part: 'exploring',
    load: 1,
    dose: 180,
    // Both lips over the teeth is for the player to choose.
    values: (turn, size) => ({
      from: tonicFor(turn, 6),
      pair: inTurn(turn, ['voice', 'tongue', 'angle']),
      rounds: 2 + Math.floor(size / 2),
    }),
  },
  {
    family: 'angle-sweep',
    part: 'exploring',
    load: 1,
    values: (turn, size) => ({ note: bottomOf(turn, 0).low, times: 1 + Math.floor(size / 2) }),
  },
  {
    family: 'air-drills',
    part: 'exploring',
    load: 0,
    dose: 180,
    values: (turn, size) => ({ rounds: 1 + size, tempo: 60 }),
  },
  {
    family: 'edge-hold',
    part: 'exploring',
    load: 3,
    dose: 180,
    from: 'advanced',
    values: (turn, size) => ({ note: bottomOf(turn, 0).low, times: 1 + size }),
  },
];
