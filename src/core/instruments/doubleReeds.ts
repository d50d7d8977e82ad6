import { instrument, type RegisterRow } from './build';

const oboeRegisters = (lowest: string): RegisterRow[] => [
  ['low', 'low', lowest, 1],
  ['half-hole', 'half-hole', 'C#5', 2],
  ['first-vent', 'first vent', 'E5', 2],
  ['second-vent', 'second vent', 'A5', 2],
  ['top', 'top', 'C#6', 3],
];

const bassoonRegisters: RegisterRow[] = [
  ['low', 'low', 'Bb1', 1],
  ['half-hole', 'half-hole', 'F#3', 2],
  ['overblown', 'overblown', 'A3', 2],
  ['tenor', 'tenor', 'Eb4', 3],
];

export const doubleReeds = [
  instrument({
    id: 'oboe',
    name: 'Oboe',
    kind: 'double-reed',
    home: 'A4',
    top: 'G6',
    registers: oboeRegisters('Bb3'),
  }),
  instrument({
    id: 'cor-anglais',
    name: 'Cor anglais',
    kind: 'double-reed',
    transposition: -7,
    home: 'A4',
    top: 'G6',
    registers: oboeRegisters('B3'),
  }),
  instrument({
    id: 'bassoon',
    name: 'Bassoon',
    kind: 'double-reed',
    clef: 'bass',
    home: 'C3',
    top: 'E5',
    registers: bassoonRegisters,
  }),
  instrument({
    id: 'contrabassoon',
    name: 'Contrabassoon',
    kind: 'double-reed',
    clef: 'bass',
    transposition: -12,
    home: 'C3',
    top: 'G4',
    registers: bassoonRegisters,
  }),
];
