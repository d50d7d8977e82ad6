import type { Midi } from './units';

const LETTERS: Readonly<Record<string, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
/** The spelling players meet most: sharps for C, F and G, flats for E and B. */
const COMMON_NAMES = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'G#', 'A', 'Bb', 'B'] as const;

/**
 * MIDI number of a scientific note name such as `C4`, `Bb1`, `F#6`.
 * @throws Error when the name is not one; meant for data written in code, not for user input.
 */
export function noteNumber(name: string): Midi {
  const match = /^([A-G])([#b]?)(-?\d)$/.exec(name);
  const letter = match?.[1] === undefined ? undefined : LETTERS[match[1]];
  if (!match || letter === undefined) throw new Error(`"${name}" is not a note name such as C4, Bb1 or F#6`);
  const accidental = match[2] === '#' ? 1 : match[2] === 'b' ? -1 : 0;
  return 12 * (Number(match[3]) + 1) + letter + accidental;
}

/** Name of the nearest semitone, as players most often spell it: `C#5`, `Bb4`. Plain ASCII, for data. */
export function noteName(midi: Midi): string {
  const nearest = Math.round(midi);
  return `${COMMON_NAMES[((nearest % 12) + 12) % 12]}${Math.floor(nearest / 12) - 1}`;
}

/** As `noteName`, with the music signs ♯ and ♭, for the eye. */
export function displayName(midi: Midi): string {
  return noteName(midi).replace('#', '♯').replace('b', '♭');
}

/** As `noteName`, in words for a screen reader: `C sharp 5`. */
export function spokenName(midi: Midi): string {
  return noteName(midi)
    .replace('#', ' sharp ')
    .replace('b', ' flat ')
    .replace(/^([A-G])(\d)/, '$1 $2');
}
