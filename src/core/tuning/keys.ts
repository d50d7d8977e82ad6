import type { Midi } from '@/core/base';

/** Major keys by the number of their sharps, from seven flats to seven sharps. */
const NAMES = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'] as const;

/** A major key's name. @param fifths its sharps, negative for flats, −7 … 7. */
export const keyName = (fifths: number): (typeof NAMES)[number] => NAMES[fifths + 7] ?? 'C';

/** Sharps of a major key by its name; 0 where there is none of that name. */
export function fifthsOfKey(name: string): number {
  const place = NAMES.findIndex((each) => each === name);
  return place < 0 ? 0 : place - 7;
}

/** Pitch class of a key's tonic, C = 0. */
export const tonicOf = (fifths: number): number => (((fifths * 7) % 12) + 12) % 12;

/** The key that one becomes when it is moved by semitones, from five flats to six sharps. */
export const movedKey = (fifths: number, semitones: Midi): number =>
  ((((fifths + 7 * semitones + 5) % 12) + 12) % 12) - 5;
