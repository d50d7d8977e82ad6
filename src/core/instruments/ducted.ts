import { noteName, noteNumber } from '@/core/tuning';
import { instrument, type HandRow } from './build';
import type { Clef, Instrument } from './instrument';

/** All recorders share their fingerings, counted from the lowest note. */
function recorder(
  id: string,
  name: string,
  lowest: string,
  transposition: number,
  breathSeconds: number,
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
    tube: 'open',
    hands: [
      [
        up(16),
        up(21),
        'thumb',
        'The thumb opens the vent by a hair: too wide and it breaks up, too little and it falls.',
      ],
      [up(22), up(24), 'thumb', 'The thumb vent stays narrow; the breath quickens without pushing.'],
      [up(25), up(25), 'bell', 'The bell is stopped, on the knee, while the thumb vent stays narrow.'],
      [up(26), up(26), 'thumb', 'The thumb vent stays narrow; the breath quickens without pushing.'],
    ],
    tendencies: [
      [lowest, up(26), -15, 'pitch falls with the breath', 'soft'],
      [lowest, up(26), 15, 'pitch rises with the breath', 'loud'],
      [lowest, up(2), -5, 'the lowest notes want little breath'],
    ],
    aside: ['bell'],
    breathSeconds,
  });
}

const HALF_HOLED = 'Its hole is half covered: roll the finger, and listen for the pitch.';
const CROSS = 'Cross-fingered: higher holes open, lower ones covered.';
const WHISTLE_HANDS: HandRow[] = [
  ['D5', 'D5', '1st up', 'The first finger lifts on the upper tonic.'],
  ...['D#4', 'F4', 'G#4', 'A#4', 'D#5', 'F5', 'G#5', 'A#5'].map((note): HandRow => [
    note,
    note,
    'half-hole',
    HALF_HOLED,
  ]),
  ...['C5', 'C6'].map((note): HandRow => [note, note, 'cross', CROSS]),
];

export const ducted = [
  recorder('recorder-sopranino', 'Sopranino recorder', 'F4', 12, 18),
  recorder('recorder-soprano', 'Soprano recorder', 'C4', 12, 17),
  recorder('recorder-alto', 'Alto recorder', 'F4', 0, 15),
  recorder('recorder-tenor', 'Tenor recorder', 'C4', 0, 12),
  recorder('recorder-bass', 'Bass recorder', 'F2', 12, 10, 'bass'),
  recorder('recorder-great-bass', 'Great bass recorder', 'C2', 12, 8, 'bass'),
  ...(
    [
      ['whistle-d', 'Whistle in D', 12],
      ['whistle-c', 'Whistle in C', 10],
      ['whistle-low-d', 'Low whistle in D', 0],
    ] as const
  ).map(([id, name, transposition]) =>
    instrument({
      id,
      name,
      kind: 'ducted',
      transposition,
      home: 'A4',
      top: 'D6',
      registers: [
        ['low', 'low', 'D4', 1],
        ['upper', 'upper', 'D5', 2],
      ],
      tube: 'open',
      plainKeys: [2, 1],
      hands: WHISTLE_HANDS,
      aside: ['half-hole', 'cross'],
      altissimoFrom: 'B5',
      tendencies: [
        ['D4', 'D6', -12, 'pitch falls with the breath', 'soft'],
        ['D4', 'D6', 12, 'pitch rises with the breath', 'loud'],
      ],
      breathSeconds: transposition === 0 ? 8 : 13,
    }),
  ),
];
