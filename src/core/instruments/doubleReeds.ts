import { instrument, type HandRow, type InstrumentRow, type RegisterRow, type TendencyRow } from './build';

const oboeRegisters = (lowest: string): RegisterRow[] => [
  ['low', 'low', lowest, 1],
  ['half-hole', 'half-hole', 'C#5', 2],
  ['first-vent', 'first vent', 'E5', 2],
  ['second-vent', 'second vent', 'A5', 2],
  ['top', 'top', 'C#6', 3],
];

const OBOE_HANDS: HandRow[] = [
  ['C#5', 'Eb5', 'half-hole', 'The first finger rolls to the half-hole.'],
  ['E5', 'G#5', '1st vent', 'First octave vent (thumb).'],
  ['A5', 'C6', '2nd vent', 'Second octave vent (side key); the first is let go.'],
  ['C#6', 'G6', 'half-hole', 'Half-hole and upper vents together.'],
];

const OBOE_TENDENCIES: TendencyRow[] = [
  ['Bb3', 'D4', -4, 'the lowest notes drop'],
  ['G4', 'G4', -6, 'looks high but sounds through most of the tube: it sags'],
  ['C5', 'C5', 8, 'a very short tube: bright and sharp'],
  ['C#5', 'C#5', 3, 'the half-hole is stuffy'],
  ['C#6', 'G6', 6, 'the top rises'],
  ['Bb3', 'G6', -4, 'falls as it fades', 'soft'],
];

const bassoonRegisters: RegisterRow[] = [
  ['low', 'low', 'Bb1', 1],
  ['half-hole', 'half-hole', 'F#3', 2],
  ['overblown', 'overblown', 'A3', 2],
  ['tenor', 'tenor', 'Eb4', 3],
];

const FLICK =
  'touched by the thumb for an instant, when the note is tongued and when it is slurred to from F3 or below; the low note stays down until the thumb has left its key.';
const HALF_HOLE: HandRow = [
  'F#3',
  'G#3',
  'half-hole',
  'The first finger rolls to the half-hole; the whisper key stays down, for some up to G only.',
];
const BASSOON_HANDS: HandRow[] = [
  ['F2', 'F3', 'whisper on', 'The whisper key is held; on the lowest notes by its lock, or not at all.'],
  HALF_HOLE,
  ['A3', 'A3', 'flick a', `The whisper key is let go. The key of A, ${FLICK}`, 'F3'],
  ['Bb3', 'C4', 'flick c', `The next key up, shared by B flat, B and C, ${FLICK}`, 'F3'],
  ['D4', 'D4', 'flick if need', `Optional: many D speak without it. The key shared with C, ${FLICK}`, 'F3'],
];
/** It holds its octave keys, and does not flick. */
const CONTRABASSOON_HANDS: HandRow[] = [
  HALF_HOLE,
  ['A3', 'G4', 'oct. key', 'Octave key (thumb), held; the upper one from where your instrument asks for it.'],
];

const BASSOON_TENDENCIES: TendencyRow[] = [
  ['Bb1', 'D2', -3, 'the lowest notes drop when pressed'],
  ['Eb3', 'Eb3', 5, 'a makeshift fingering: rises'],
  ['Eb4', 'E5', -8, 'tenor notes fall when soft', 'soft'],
];

const REED_CARE = 'Soreness of lip or jaw: stop. No reed knife without a guarded hand and good light.';

type BassoonRow = Pick<InstrumentRow, 'id' | 'name' | 'top' | 'breathSeconds' | 'tube'> & {
  transposition?: number;
  altissimoFrom?: string;
  hands?: HandRow[];
};

const bassoon = (row: BassoonRow) =>
  instrument({
    kind: 'double-reed',
    clef: 'bass',
    upperClef: ['tenor', 'G4'],
    home: 'C3',
    registers: bassoonRegisters,
    hands: BASSOON_HANDS,
    tendencies: BASSOON_TENDENCIES,
    cautions: [REED_CARE],
    ...row,
  });

export const doubleReeds = [
  instrument({
    id: 'oboe',
    name: 'Oboe',
    kind: 'double-reed',
    home: 'A4',
    top: 'G6',
    registers: oboeRegisters('Bb3'),
    tube: [5, 'A4'],
    hands: OBOE_HANDS,
    tendencies: OBOE_TENDENCIES,
    breathSeconds: 22,
    cautions: [REED_CARE],
  }),
  instrument({
    id: 'cor-anglais',
    name: 'Cor anglais',
    kind: 'double-reed',
    transposition: -7,
    home: 'A4',
    top: 'G6',
    registers: oboeRegisters('B3'),
    tube: [3.3, 'A4'],
    hands: OBOE_HANDS,
    tendencies: OBOE_TENDENCIES,
    breathSeconds: 18,
    cautions: [REED_CARE],
  }),
  bassoon({
    id: 'bassoon',
    name: 'Bassoon',
    top: 'E5',
    altissimoFrom: 'A4',
    tube: [1.6, 'C3'],
    breathSeconds: 16,
  }),
  bassoon({
    id: 'contrabassoon',
    name: 'Contrabassoon',
    top: 'G4',
    transposition: -12,
    tube: [0.8, 'C3'],
    hands: CONTRABASSOON_HANDS,
    breathSeconds: 9,
  }),
];
