import { instrument, type RegisterRow } from './build';

/**
 * C5–D#5 stay in the low register although they are written in the second octave: C5 and C#5 use a short tube,
 * D5 and D#5 are vented by the first finger; they overblow at the octave and do not break downward.
 */
const fluteRegisters = (lowest: string): RegisterRow[] => [
  ['low', 'low', lowest, 1],
  ['middle', 'middle', 'E5', 2],
  ['high', 'high', 'D6', 3, ['E6', 4]],
];

export const flutes = [
  instrument({
    id: 'flute',
    name: 'Flute',
    kind: 'edge',
    home: 'A4',
    top: 'D7',
    registers: fluteRegisters('B3'),
  }),
  instrument({
    id: 'piccolo',
    name: 'Piccolo',
    kind: 'edge',
    transposition: 12,
    home: 'A4',
    top: 'C7',
    registers: fluteRegisters('D4'),
  }),
  instrument({
    id: 'alto-flute',
    name: 'Alto flute',
    kind: 'edge',
    transposition: -5,
    home: 'A4',
    top: 'C7',
    registers: fluteRegisters('C4'),
  }),
  instrument({
    id: 'ney-d',
    name: 'Ney in D',
    kind: 'edge',
    home: 'A4',
    top: 'A6',
    registers: [
      ['low', 'low', 'D4', 1],
      ['second', 'second', 'D5', 2],
      ['third', 'third', 'A5', 3],
      ['fourth', 'fourth', 'D6', 4],
    ],
  }),
];
