import { instrument, type RegisterRow } from './build';
import type { Instrument } from './instrument';

const clarinetRegisters = (lowest: string): RegisterRow[] => [
  ['chalumeau', 'chalumeau', lowest, 1],
  ['throat', 'throat', 'G4', 1],
  ['clarion', 'clarion', 'B4', 3],
  ['altissimo', 'altissimo', 'C#6', 5, ['G6', 7], ['Bb6', 9]],
];

function clarinet(id: string, name: string, transposition: number, lowest = 'E3', top = 'C7'): Instrument {
  return instrument({
    id,
    name,
    kind: 'single-reed',
    series: 'odd',
    transposition,
    home: 'C5',
    top,
    registers: clarinetRegisters(lowest),
  });
}

function saxophone(id: string, name: string, transposition: number, lowest = 'Bb3'): Instrument {
  return instrument({
    id,
    name,
    kind: 'single-reed',
    transposition,
    home: 'G4',
    top: 'C7',
    registers: [
      ['low', 'low', lowest, 1],
      ['upper', 'upper', 'D5', 2],
      ['altissimo', 'altissimo', 'G6', 3, ['B6', 4]],
    ],
  });
}

export const singleReeds = [
  clarinet('clarinet-eb', 'Eb clarinet', 3),
  clarinet('clarinet-bb', 'Bb clarinet', -2),
  clarinet('clarinet-a', 'A clarinet', -3),
  clarinet('clarinet-alto', 'Alto clarinet', -9, 'Eb3'),
  clarinet('clarinet-bass', 'Bass clarinet', -14, 'C3'),
  saxophone('sax-soprano', 'Soprano saxophone', -2),
  saxophone('sax-alto', 'Alto saxophone', -9),
  saxophone('sax-tenor', 'Tenor saxophone', -14),
  saxophone('sax-baritone', 'Baritone saxophone', -21, 'A3'),
];
