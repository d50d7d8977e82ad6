import { instrument, type RegisterRow } from './build';
import type { Instrument } from './instrument';

const clarinetRegisters = (lowest: string): RegisterRow[] => [
  ['chalumeau', 'chalumeau', lowest, 1],
  ['throat', 'throat', 'G4', 1],
  ['clarion', 'clarion', 'B4', 3],
  ['altissimo', 'altissimo', 'C#6', 5, ['G6', 7], ['Bb6', 9]],
];

const ALTISSIMO = 'Altissimo is hard on lip and ears: short doses, and stop at the first soreness.';

function clarinet(
  id: string,
  name: string,
  transposition: number,
  breathSeconds: number,
  lowest = 'E3',
  usualLow = lowest,
): Instrument {
  return instrument({
    id,
    name,
    kind: 'single-reed',
    series: 'odd',
    transposition,
    home: 'C5',
    top: 'C7',
    usualLow,
    altissimoFrom: 'C6',
    testNote: 'G#5',
    registers: clarinetRegisters(lowest),
    tube: 'closed',
    hands: [
      ['A4', 'A4', 'throat', 'Short tube: the right hand may stay down to darken it.'],
      [
        'Bb4',
        'Bb4',
        'throat',
        'Short tube, opened by the register key: the same support as for the long notes.',
      ],
      ['B4', 'C6', 'reg. key', 'Register key (thumb).'],
      ['C#6', 'C7', '1st up', 'Register key, and the first finger of the left hand lifted as a vent.'],
    ],
    tendencies: [
      [lowest, 'C7', 5, 'rises when soft', 'soft'],
      [lowest, 'C7', -8, 'falls when loud', 'loud'],
      ['G4', 'Bb4', 8, 'throat notes are sharp'],
    ],
    breathSeconds,
    cautions: [ALTISSIMO],
  });
}

function saxophone(
  id: string,
  name: string,
  transposition: number,
  breathSeconds: number,
  centsPerMm: number,
  lowest = 'Bb3',
): Instrument {
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
    altissimoFrom: 'F6',
    tube: [centsPerMm, 'G4'],
    hands: [
      ['D5', 'F#6', 'oct. key', 'Octave key (thumb); the vent changes by itself at A.'],
      ['G6', 'C7', 'own', 'Altissimo fingerings differ from horn to horn: note your own.'],
    ],
    tendencies: [
      [lowest, 'D4', -8, 'low notes are flat on many horns'],
      ['C#5', 'C#5', 5, 'open tube: bright'],
      ['C6', 'F#6', 10, 'the top is sharp on many horns'],
    ],
    breathSeconds,
    cautions: [ALTISSIMO],
  });
}

export const singleReeds = [
  clarinet('clarinet-eb', 'E♭ clarinet', 3, 20),
  clarinet('clarinet-bb', 'B♭ clarinet', -2, 18),
  clarinet('clarinet-a', 'A clarinet', -3, 18),
  clarinet('clarinet-alto', 'Alto clarinet', -9, 15, 'Eb3'),
  clarinet('clarinet-bass', 'Bass clarinet', -14, 12, 'C3', 'Eb3'),
  saxophone('sax-soprano', 'Soprano saxophone', -2, 17, 4),
  saxophone('sax-alto', 'Alto saxophone', -9, 15, 2.6),
  saxophone('sax-tenor', 'Tenor saxophone', -14, 13, 2),
  saxophone('sax-baritone', 'Baritone saxophone', -21, 10, 1.3, 'A3'),
];
