import type { Midi } from '@/core/base';
import { respelled, spell, tonicOf, type Spelling } from '@/core/tuning';
import type { Bar } from './bars';
import { phrasesOf } from './phrases';
import type { Score, ScoreNote } from './score';

type Music = Pick<Score, 'notes' | 'fifths'>;

const KEYS = [0, 1, -1, 2, -2, 3, -3, 4, -4, 5, -5, 6, -6, 7, -7] as const;
const MAJOR: ReadonlySet<number> = new Set([0, 2, 4, 5, 7, 9, 11]);
/** A note outside of the key weighs more than any distance from the key of the whole. */
const OUTSIDE = 100;
/** Of a phrase that is in a key so much lies outside at most: a leading note of seven. */
const MOST_OUTSIDE = 0.2;

/** Whether a note belongs to the major scale of a signature. */
export const isIn = (fifths: number, written: Midi): boolean =>
  MAJOR.has((((written - tonicOf(fifths)) % 12) + 12) % 12);

/** The key that most of the notes belong to; of several, the nearest to the key of the whole and to that of the phrase before. */
function keyOfPhrase(phrase: readonly ScoreNote[], home: number, before: number): number {
  const pitches = [...new Set(phrase.flatMap(({ written, fingered }) => [written, fingered ?? written]))];
  const outside = (key: number) =>
    pitches.filter((written) => Number.isInteger(written) && !isIn(key, written)).length;
  // What runs through all the semitones is in no other key than the whole's.
  const fitting = KEYS.filter((key) => outside(key) <= MOST_OUTSIDE * pitches.length);
  const costs = fitting.map(
    (key) => OUTSIDE * outside(key) + Math.abs(key - home) + Math.abs(key - before) + Math.abs(key) / 100,
  );
  return fitting[costs.indexOf(Math.min(...costs))] ?? home;
}

/**
 * The key that each note is spelled in, as sharps, negative for flats: the one it was written in, or that of its phrase, so
 * that A♭ major reads A♭ B♭ C and not G♯ B♭ C whatever stands at the clef.
 */
export function keysOf({ notes, fifths }: Music): number[] {
  const keys: number[] = [];
  for (const phrase of phrasesOf(notes)) {
    const key = phrase[0]!.key ?? keyOfPhrase(phrase, fifths, keys[keys.length - 1] ?? fifths);
    keys.push(...phrase.map(() => key));
  }
  return keys;
}

/** The key signature that each bar stands under: the whole's, until a note says in which key it was written. */
export function signaturesOf(score: Music, bars: readonly Bar[]): number[] {
  let fifths = score.fifths;
  return bars.map(({ tokens }) => {
    const begun = tokens.find(({ note, first }) => note !== null && first);
    fifths = begun ? (score.notes[begun.note!]!.key ?? score.fifths) : fifths;
    return fifths;
  });
}

/** How a written note of a score is spelled, where it stands. */
export interface Speller {
  (note: number): Spelling;
  /** The note that is fingered for a harmonic. */
  fingered(note: number): Spelling;
}

/**
 * Which way each note passes as the middle of three semitones in a row, or as their end where the music begins or ends with it:
 * 1 upward, −1 downward, 0 where it does not.
 */
function passingWays(notes: Music['notes']): (-1 | 0 | 1)[] {
  const line: Midi[] = [];
  return notes
    .map(({ written }) => (line.at(-1) === written ? line.length : line.push(written)) - 1)
    .map((place) => {
      const start = Math.max(0, Math.min(place - 1, line.length - 3));
      const [first = 0, middle = 0, last = 0] = line.slice(start, start + 3);
      const way = middle - first;
      return last - middle === way && (way === 1 || way === -1) ? way : 0;
    });
}

/** Spells the notes of a score by number: in their keys, and what passes between two of their semitones with sharps upward, with flats downward. */
export function spellerOf(score: Music): Speller {
  const keys = keysOf(score);
  const ways = passingWays(score.notes);
  const of = (written: Midi, note: number) => spell(written, keys[note]);
  const spelled = (note: number) => {
    const { written, key } = score.notes[note]!;
    const usual = of(written, note);
    // Against the signature: three semitones in a row are in no key, whatever a short phrase may look like.
    const way = isIn(key ?? score.fifths, written) ? 0 : ways[note]!;
    return usual.alter === -way ? respelled(usual) : usual;
  };
  return Object.assign(spelled, {
    fingered: (note: number) => of(score.notes[note]!.fingered ?? score.notes[note]!.written, note),
  });
}
