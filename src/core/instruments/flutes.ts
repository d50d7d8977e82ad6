import { instrument, type HandRow, type InstrumentRow, type RegisterRow, type TendencyRow } from './build';

/**
 * C5–D#5 stay in the low register although they are written in the second octave: C5 and C#5 use a short tube,
 * D5 and D#5 are vented by the first finger; they overblow at the octave and do not break downward.
 */
const fluteRegisters = (lowest: string): RegisterRow[] => [
  ['low', 'low', lowest, 1],
  ['middle', 'middle', 'E5', 2],
  ['high', 'high', 'D6', 3, ['E6', 4]],
];

const HANDS: HandRow[] = [
  ['D5', 'Eb5', '1st up', 'The first finger of the left hand is lifted as a vent.'],
  ['D6', 'D6', '1st up', 'The first finger is lifted: D has the vent of its octave.'],
  [
    'E6',
    'E6',
    'more air',
    'E, F sharp and G sharp resist more than their neighbours: faster air, not tighter lips.',
  ],
  ['F#6', 'F#6', 'more air', 'F sharp resists more than its neighbours.'],
  ['G#6', 'G#6', 'more air', 'G sharp resists more than its neighbours.'],
];

const TENDENCIES: TendencyRow[] = [
  ['B3', 'E4', -6, 'the lowest notes sit flat'],
  ['B3', 'C#5', -8, 'low notes fall when soft', 'soft'],
  ['C5', 'C5', 6, 'short tube'],
  ['C#5', 'C#5', 12, 'a very short tube: sharp and thin'],
  ['Eb5', 'Eb5', 6, 'hard and sharp beside a weak D flat'],
  ['C#6', 'C#6', 8, 'short tube'],
  ['D6', 'D6', -6, 'flat for its register'],
  ['E6', 'A6', 8, 'the top rises'],
  ['Bb6', 'Bb6', -8, 'flat for its register'],
  ['E5', 'D7', 6, 'upper notes rise when loud', 'loud'],
];

const LOUD_TOP =
  'The top register is loud close to the ear: short doses, and ear protection for long work up there.';

type FluteRow = Pick<InstrumentRow, 'id' | 'name' | 'top' | 'breathSeconds' | 'usualLow'> & {
  lowest: string;
  transposition?: number;
};

const flute = ({ lowest, ...row }: FluteRow) =>
  instrument({
    kind: 'edge',
    home: 'A4',
    registers: fluteRegisters(lowest),
    tube: 'open',
    hands: HANDS,
    tendencies: TENDENCIES,
    cautions: [LOUD_TOP],
    handBreak: ['C#5', 'D5'],
    altissimoFrom: 'A6',
    ...row,
  });

/** All sizes are read as the one in D. */
const ney = (id: string, name: string, transposition: number, breathSeconds: number) =>
  instrument({
    id,
    name,
    kind: 'edge',
    transposition,
    home: 'A4',
    top: 'A6',
    registers: [
      ['low', 'low', 'D4', 1],
      ['second', 'second', 'D5', 2],
      ['third', 'third', 'A5', 3],
      ['fourth', 'fourth', 'D6', 4],
    ],
    tube: 'open',
    hands: [['A5', 'C6', 'angle', 'The rim meets the stream at a flatter angle for the third register.']],
    tendencies: [['D4', 'A4', -10, 'the lowest register sags and is the hard one']],
    breathSeconds,
    step: 0.5,
  });

export const flutes = [
  flute({ id: 'flute', name: 'Flute', lowest: 'B3', usualLow: 'C4', top: 'D7', breathSeconds: 12 }),
  flute({ id: 'piccolo', name: 'Piccolo', lowest: 'D4', top: 'C7', transposition: 12, breathSeconds: 14 }),
  flute({
    id: 'alto-flute',
    name: 'Alto flute',
    lowest: 'C4',
    top: 'C7',
    transposition: -5,
    breathSeconds: 9,
  }),
  ...(
    [
      ['ney-d', 'Ney in D', 0, 8],
      ['ney-c', 'Ney in C', -2, 8],
      ['ney-a', 'Ney in A', -5, 7],
      ['ney-g', 'Ney in G', -7, 6],
    ] as const
  ).map(([id, name, transposition, breathSeconds]) => ney(id, name, transposition, breathSeconds)),
];
