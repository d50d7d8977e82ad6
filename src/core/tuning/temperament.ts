import type { Cents, Hertz, Midi } from '@/core/base';
import { midiToHertz } from './pitch';

export type TemperamentId = 'equal' | 'just' | 'pythagorean' | 'meantone' | 'well-quarter' | 'well-sixth';

export interface Temperament {
  readonly id: TemperamentId;
  readonly name: string;
  readonly about: string;
  /** Cents of the twelve notes over the tonic. */
  readonly cents: readonly Cents[];
}

/** A full tuning: a temperament on a tonic, at a pitch standard. */
export interface Tuning {
  readonly a4: Hertz;
  readonly temperament: TemperamentId;
  /** Pitch class of the tonic, 0 = C; sounding. */
  readonly tonic: number;
}

const PURE_FIFTH = 1200 * Math.log2(3 / 2);
const PYTHAGOREAN_COMMA = 12 * PURE_FIFTH - 8400;
const SYNTONIC_COMMA = 1200 * Math.log2(81 / 80);

const JUST_RATIOS = [
  [1, 1],
  [16, 15],
  [9, 8],
  [6, 5],
  [5, 4],
  [4, 3],
  [45, 32],
  [3, 2],
  [8, 5],
  [5, 3],
  [9, 5],
  [15, 8],
] as const;

/** Numerator and denominator of a just interval. @param semitones 0 … 11. @throws for others. */
export function justRatio(semitones: number): readonly [number, number] {
  const ratio = JUST_RATIOS[semitones];
  if (!ratio) throw new Error(`there is no just interval of ${semitones} semitones`);
  return ratio;
}

const inOctave = (cents: Cents) => ((cents % 1200) + 1200) % 1200;

/**
 * Notes of a chain of fifths.
 * @param flat how many fifths it reaches below the tonic. @param size of the fifth from place i to i + 1 over the tonic.
 */
function chain(flat: number, size: (place: number) => Cents): Cents[] {
  const cents = new Array<Cents>(12).fill(0);
  let up = 0;
  for (let i = 0; i < 11 - flat; i++) {
    up += size(i);
    cents[((i + 1) * 7) % 12] = inOctave(up);
  }
  let down = 0;
  for (let i = -1; i >= -flat; i--) {
    down -= size(i);
    cents[(((i * 7) % 12) + 12) % 12] = inOctave(down);
  }
  return cents;
}

export const temperaments: readonly Temperament[] = [
  {
    id: 'equal',
    name: 'Equal',
    about: 'Twelve equal semitones.',
    cents: Array.from({ length: 12 }, (_, i) => 100 * i),
  },
  {
    id: 'just',
    name: 'Just',
    about: 'Pure intervals over the tonic or the drone.',
    cents: JUST_RATIOS.map(([p, q]) => 1200 * Math.log2(p / q)),
  },
  {
    id: 'pythagorean',
    name: 'Pythagorean',
    about: 'Pure fifths; wide major thirds.',
    cents: chain(3, () => PURE_FIFTH),
  },
  {
    id: 'meantone',
    name: 'Quarter-comma meantone',
    about: 'Pure major thirds from narrow fifths; one fifth cannot be used.',
    cents: chain(3, () => PURE_FIFTH - SYNTONIC_COMMA / 4),
  },
  {
    id: 'well-quarter',
    name: 'Well, quarter comma',
    about: 'Four fifths narrowed by a quarter of the comma: near keys sweet, far keys bright.',
    // C–G, G–D, D–A and B–F♯ over the tonic C.
    cents: chain(3, (i) => PURE_FIFTH - ([0, 1, 2, 5].includes(i) ? PYTHAGOREAN_COMMA / 4 : 0)),
  },
  {
    id: 'well-sixth',
    name: 'Well, sixth of a comma',
    about: 'Six fifths narrowed by a sixth of the comma: milder differences between keys.',
    // F–C … E–B over the tonic C.
    cents: chain(3, (i) => PURE_FIFTH - (i >= -1 && i <= 4 ? PYTHAGOREAN_COMMA / 6 : 0)),
  },
];

/** How far a note lies from equal temperament at the same standard; A keeps the standard. Quarter-tones go with the note below. */
export function temperedOffset(midi: Midi, { temperament, tonic }: Omit<Tuning, 'a4'>): Cents {
  const { cents } = temperaments.find((each) => each.id === temperament) ?? temperaments[0]!;
  const offset = (note: number) => {
    const degree = (((note - tonic) % 12) + 12) % 12;
    return cents[degree]! - 100 * degree;
  };
  return offset(Math.floor(midi)) - offset(69);
}

/** Offsets of all 128 notes from equal temperament, cents; null where a tuning leaves a note out. */
export type Offsets = readonly (Cents | null)[];

/** Where each note lies against equal temperament: cents by MIDI number 0 … 127. */
export function offsetsOf(tuning: Omit<Tuning, 'a4'>): Offsets {
  return Array.from({ length: 128 }, (_, midi) => temperedOffset(midi, tuning));
}

/** Frequency that a note is to have. */
export function targetHertz(midi: Midi, tuning: Tuning): Hertz {
  return midiToHertz(midi + temperedOffset(midi, tuning) / 100, tuning.a4);
}

/** The pitch standards that players meet, Hz. */
export const PITCH_STANDARDS: readonly Hertz[] = [392, 415, 430, 440, 441, 442, 443, 466];
