import type { Midi } from '@/core/base';
import type { Spelling } from './spelling';

const LETTERS: Readonly<Record<string, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
/** The spelling players meet most: sharps for C, F and G, flats for E and B. */
const COMMON_NAMES = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'G#', 'A', 'Bb', 'B'] as const;

/** How notes are called: English letters, German letters (H for B, B for B flat), or fixed do. */
export type Naming = 'english' | 'german' | 'fixed-do';

const NAMES: Readonly<Record<Naming, readonly string[]>> = {
  english: COMMON_NAMES.map((name) => name.replace('#', '♯').replace('b', '♭')),
  german: ['C', 'Cis', 'D', 'Es', 'E', 'F', 'Fis', 'G', 'Gis', 'A', 'B', 'H'],
  'fixed-do': ['do', 'do♯', 're', 'mi♭', 'mi', 'fa', 'fa♯', 'sol', 'sol♯', 'la', 'si♭', 'si'],
};

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

const pitchClass = (midi: Midi) => ((midi % 12) + 12) % 12;
const octaveOf = (midi: Midi) => Math.floor(midi / 12) - 1;
const isNatural = (midi: Midi) => [0, 2, 4, 5, 7, 9, 11].includes(pitchClass(midi));

/** Name of the nearest semitone, as players most often spell it: `C#5`, `Bb4`. Plain ASCII, for data. */
export function noteName(midi: Midi): string {
  const nearest = Math.round(midi);
  return `${COMMON_NAMES[pitchClass(nearest)]}${octaveOf(nearest)}`;
}

/** Nearest quarter-tone, for the eye: `B♭4`, and between two semitones `E½♭4` or `D½♯4`. */
export function displayName(midi: Midi, naming: Naming): string {
  const nearest = Math.round(2 * midi) / 2;
  const below = Math.floor(nearest);
  const name = (note: Midi) => NAMES[naming][pitchClass(note)] ?? '';
  if (below === nearest) return `${name(below)}${octaveOf(below)}`;
  return isNatural(below)
    ? `${name(below)}½♯${octaveOf(below)}`
    : `${name(below + 1)}½♭${octaveOf(below + 1)}`;
}

const SIGNS: Readonly<Record<string, string>> = {
  '-2': '♭♭',
  '-1.5': '♭½♭',
  '-1': '♭',
  '-0.5': '½♭',
  '0': '',
  '0.5': '½♯',
  '1': '♯',
  '1.5': '♯½♯',
  '2': '♯♯',
};
const DO_RE_MI: Readonly<Record<string, string>> = {
  C: 'do',
  D: 're',
  E: 'mi',
  F: 'fa',
  G: 'sol',
  A: 'la',
  B: 'si',
};

/** A note as it is spelled where it stands, for the eye: `A♭4` in four flats, where `displayName` would say `G♯4`. */
export function spelledName({ step, alter, octave }: Spelling, naming: Naming): string {
  if (naming === 'german' && Number.isInteger(alter)) return `${germanName(step, alter)}${octave}`;
  const name = naming === 'fixed-do' ? DO_RE_MI[step]! : naming === 'german' && step === 'B' ? 'H' : step;
  return `${name}${SIGNS[String(alter)] ?? ''}${octave}`;
}

function germanName(step: string, alter: number): string {
  if (step === 'B')
    return alter === 0 ? 'H' : alter === -1 ? 'B' : alter < 0 ? 'Heses' : `H${'is'.repeat(alter)}`;
  if (alter >= 0) return step + 'is'.repeat(alter);
  return /[AE]/.test(step) ? `${step}s${'es'.repeat(-alter - 1)}` : step + 'es'.repeat(-alter);
}

/** As `noteName`, in words for a screen reader: `C sharp 5`, `E half flat 4`. */
export function spokenName(midi: Midi): string {
  const nearest = Math.round(2 * midi) / 2;
  const below = Math.floor(nearest);
  const spoken = (note: Midi, half = '') =>
    noteName(note)
      .replace('#', ' sharp ')
      .replace('b', ' flat ')
      .replace(/^([A-G])(-?\d)/, `$1${half} $2`);
  if (below === nearest) return spoken(below);
  return isNatural(below) ? spoken(below, ' half sharp') : spoken(below + 1, ' half flat');
}
