import { comfortOf, type Comfort, type Level, type NoteRange } from '@/core/music';
import { writtenRange, type Break, type Instrument } from '@/core/instruments';
import type { ProblemNote } from '@/core/ledger';
import type { Midi, Seconds } from '@/core/tuning';

/** What a drill is for within a day. */
export type Part = 'seam' | 'tone' | 'dynamics' | 'intonation' | 'rhythm' | 'music' | 'exploring';

type Values = Readonly<Record<string, unknown>>;

/** What goes round from one practice day to the next. */
export interface Turn {
  readonly instrument: Instrument;
  readonly level: Level;
  readonly comfort: Comfort;
  /** Counts practice days, so that what goes round by it never stands still. */
  readonly round: number;
  readonly dynamic: 'p' | 'mf' | 'f';
  /** Where one starts: low, middle, high. */
  readonly place: 0 | 1 | 2;
  /** Signatures of an easy and a hard key. */
  readonly keys: { readonly easy: number; readonly hard: number };
  readonly problem: ProblemNote | null;
}

/** The slur that a seam drill is about. */
export interface Target extends Break {
  readonly from: Midi;
  readonly to: Midi;
}

interface Row {
  readonly family: string;
  readonly part: Part;
  /** Of lip, breath and ear: 1 is ordinary, 2 and more is heavy. */
  readonly load: number;
  /** What of it a day bears at most. */
  readonly dose?: Seconds;
  /** It goes faster as it comes clean; the tempo of the others is what it is. */
  readonly paced?: true;
  /** It is about the note that lies furthest off. */
  readonly ofProblem?: true;
  /** Below this level it is left to the player to choose. */
  readonly from?: Level;
  /** What of its parameters follow the day; the larger of them take longer. Null: not today. */
  readonly values: (turn: Turn, size: number) => Values | null;
}

export interface SeamDrill extends Omit<Row, 'values' | 'part'> {
  /** Shares of clean crossings that it is right for. */
  readonly right: readonly [low: number, high: number];
  readonly values: (turn: Turn, target: Target, size: number) => Values | null;
}

/** Sizes that the values of a drill come in, the smallest first. */
export const SIZES = 4;

const third = <T>(round: number, of: readonly T[]): T => of[((round % of.length) + of.length) % of.length]!;

/** So many semitones of what is comfortable: low, in the middle or high, and not from the same note each time. */
function stretchOf({ comfort: { low, high }, place, round }: Turn, semitones: number): NoteRange {
  const span = Math.min(semitones, high - low);
  const room = high - low - span;
  const shift = third(2 * round + Math.floor(round / 9), [0, 1, 2, 3, 4]);
  const start = Math.min(low + room, low + Math.round((room * place) / 2) + (place === 2 ? -shift : shift));
  const from = Math.max(low, start);
  return { low: from, high: from + span };
}

/** One note of a day. */
export const noteOf = (turn: Turn): Midi => stretchOf(turn, 0).low;

/** The same within the first register. */
const bottomOf = (turn: Turn, semitones: number): NoteRange =>
  stretchOf({ ...turn, comfort: { ...turn.comfort, ...turn.comfort.bottom } }, semitones);

const keyOf = ({ keys, round }: Turn): string => String(round % 2 === 0 ? keys.easy : keys.hard);
const inTurn = (turn: Turn, of: readonly string[]): string => third(turn.round, of);

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
    values: ({ problem, dynamic, comfort: { low, high } }, size) => {
      if (!problem) return null;
      const { written } = problem.note;
      const neighbour = written - 1 >= low ? written - 1 : written + 1;
      const other = written + 2 <= high ? written + 2 : written - 3;
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
    values: (turn, size) => ({ from: stretchOf(turn, 8).low, times: 1 + size }),
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
      drone: stretchOf(turn, 12).low,
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
      root: stretchOf(turn, 12).low,
      chord: inTurn(turn, ['major', 'minor', 'seventh']),
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
      keys: 3 + 3 * size,
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
      from: stretchOf(turn, 6).low,
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
      const anchor = below - (turn.round % 3);
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
        range: { low, high },
        slurred: true,
        bars: 6 + 4 * size,
        seed: 1 + (Math.abs(turn.round) % 99),
        dynamic: turn.dynamic,
      };
    },
  },
];

const ROWS = new Map<string, Pick<Row, 'load' | 'dose' | 'paced'>>(
  [...DRILLS, ...SEAM_DRILLS].map((row) => [row.family, row]),
);

/** How heavy an exercise is; 1 where nothing is known of it. */
export const loadOf = (family: string): number => ROWS.get(family)?.load ?? 1;

/** What of an exercise a day bears at most. */
export const doseOf = (family: string): Seconds => ROWS.get(family)?.dose ?? Infinity;

/** Whether an exercise goes faster as it comes clean. */
export const isPaced = (family: string): boolean => ROWS.get(family)?.paced === true;

/** From here on an exercise is heavy: not twice in a row, and a rest after it. */
export const HEAVY = 2;

/** @param ordinal of the practice day. @param medium nothing soft or loud today. */
export function turnOf(
  instrument: Instrument,
  level: Level,
  ordinal: number,
  keys: Turn['keys'],
  problem: ProblemNote | null,
  medium = false,
): Turn {
  return {
    instrument,
    level,
    comfort: comfortOf(instrument, level),
    round: ordinal,
    dynamic: medium ? 'mf' : third(ordinal, ['mf', 'p', 'f'] as const),
    // Not in step with the loudness, or loud days were always high ones.
    place: third(ordinal + Math.floor(ordinal / 3), [1, 0, 2] as const),
    keys,
    problem,
  };
}
