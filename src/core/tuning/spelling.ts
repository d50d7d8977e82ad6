import type { Midi } from '@/core/base';

/** A note as it is written: letter, alteration in semitones (halves for quarter-tones), octave of the letter. */
export interface Spelling {
  readonly step: 'A' | 'B' | 'C' | 'D' | 'E' | 'F' | 'G';
  readonly alter: number;
  readonly octave: number;
}

const BY_FIFTHS = ['F', 'C', 'G', 'D', 'A', 'E', 'B'] as const;
const NATURAL: Readonly<Record<Spelling['step'], number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
/** How far to the flat side of the key's tonic, on the line of fifths, a chromatic note is still spelled flat. */
const FLATTEST = -3;

/**
 * Spelling of a note in a key. On the line of fifths (… B♭ F C G D …) the twelve notes from three fifths below the tonic to
 * eight above it are used, which in C gives E♭, B♭, F♯, C♯ and G♯.
 * @param fifths sharps of the key signature, negative for flats.
 */
export function spell(midi: Midi, fifths = 0): Spelling {
  const below = Math.floor(midi);
  const quarter = midi - below;
  const base = quarter === 0.5 && [1, 3, 6, 8, 10].includes(((below % 12) + 12) % 12) ? below + 1 : below;
  const lowest = fifths + FLATTEST;
  const place = (((base * 7 - lowest) % 12) + 12) % 12;
  // Position on the line of fifths, C = 0.
  const line = lowest + place;
  const letter = BY_FIFTHS[(((line + 1) % 7) + 7) % 7] ?? 'C';
  const alter = Math.floor((line + 1) / 7);
  const octave = Math.round((base - alter - NATURAL[letter]) / 12) - 1;
  return { step: letter, alter: alter + (midi - base), octave };
}

/** The same note by its neighbour’s letter: A♭ for G♯, and G♯ for A♭; a natural stays. */
export function respelled(spelling: Spelling): Spelling {
  const { step, alter, octave } = spelling;
  if (alter === 0) return spelling;
  const letters = 'CDEFGAB';
  const place = letters.indexOf(step) + Math.sign(alter);
  const to = letters[(place + 7) % 7] as Spelling['step'];
  const over = octave + Math.floor(place / 7);
  return {
    step: to,
    alter: spelledMidi(spelling) - spelledMidi({ step: to, alter: 0, octave: over }),
    octave: over,
  };
}

/** The sounding number of a spelling. */
export function spelledMidi({ step, alter, octave }: Spelling): Midi {
  return 12 * (octave + 1) + NATURAL[step] + alter;
}
