import { noteName, noteNumber } from '@/core/tuning';
import { instrument } from './build';
import type { Clef, Instrument } from './instrument';

/** All recorders share their fingerings, counted from the lowest note. */
function recorder(
  id: string,
  name: string,
  lowest: string,
  transposition: number,
  clef: Clef = 'treble',
): Instrument {
  const up = (semitones: number) => noteName(noteNumber(lowest) + semitones);
  return instrument({
    id,
    name,
    kind: 'ducted',
    clef,
    transposition,
    home: up(9),
    top: up(26),
    registers: [
      ['low', 'low', lowest, 1],
      ['thumb', 'thumb-vented', up(16), 2],
      ['top', 'top', up(22), 3, [up(24), 4]],
    ],
  });
}

export const ducted = [
  recorder('recorder-sopranino', 'Sopranino recorder', 'F4', 12),
  recorder('recorder-soprano', 'Soprano recorder', 'C4', 12),
  recorder('recorder-alto', 'Alto recorder', 'F4', 0),
  recorder('recorder-tenor', 'Tenor recorder', 'C4', 0),
  recorder('recorder-bass', 'Bass recorder', 'F2', 12, 'bass'),
  instrument({
    id: 'whistle-d',
    name: 'Whistle in D',
    kind: 'ducted',
    transposition: 12,
    home: 'A4',
    top: 'D6',
    registers: [
      ['low', 'low', 'D4', 1],
      ['upper', 'upper', 'D5', 2],
    ],
  }),
];
