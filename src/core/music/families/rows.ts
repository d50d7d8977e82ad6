import type { Midi } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import { spell, tonicOf } from '@/core/tuning';

/** A scale on a tonic: its notes in semitones over it, and how far its signature is from the major key's on the same tonic. */
interface Scale {
  readonly id: string;
  readonly title: string;
  readonly degrees: readonly [number, number, number, number, number, number, number];
  readonly fifths: number;
}

const SCALES = [
  { id: 'major', title: 'major', degrees: [0, 2, 4, 5, 7, 9, 11], fifths: 0 },
  { id: 'harmonic-minor', title: 'minor, raised seventh', degrees: [0, 2, 3, 5, 7, 8, 11], fifths: -3 },
  { id: 'minor', title: 'minor, natural', degrees: [0, 2, 3, 5, 7, 8, 10], fifths: -3 },
  { id: 'dorian', title: 'dorian', degrees: [0, 2, 3, 5, 7, 9, 10], fifths: -2 },
  { id: 'phrygian', title: 'phrygian', degrees: [0, 1, 3, 5, 7, 8, 10], fifths: -4 },
  { id: 'lydian', title: 'lydian', degrees: [0, 2, 4, 6, 7, 9, 11], fifths: 1 },
  { id: 'mixolydian', title: 'mixolydian', degrees: [0, 2, 4, 5, 7, 9, 10], fifths: -1 },
] as const satisfies readonly Scale[];

export const SCALE_OPTIONS = SCALES.map(({ id, title }) => [id, title] as const);
const MAJOR: Scale = SCALES[0];
const scaleOf = (id: string): Scale => SCALES.find((each) => each.id === id) ?? MAJOR;

/** The flattest signature of the twelve: of minor keys seven flats, so that no leading note needs a double sharp. */
const flattestOf = (scale: Scale): number => (scale.fifths < 0 ? -7 : -5);

/** Signature of a scale on the tonic of a major key, as sharps. */
export function signatureOf(key: number, scale: string): number {
  const flattest = flattestOf(scaleOf(scale));
  return ((((key + scaleOf(scale).fifths - flattest) % 12) + 12) % 12) + flattest;
}

/** Semitones of a degree over the tonic: 1 is the tonic itself, 8 the octave, 0 and less lie under it. */
export function semitonesOf(degree: number, scale: string): number {
  const { degrees } = scaleOf(scale);
  return degrees[(((degree - 1) % 7) + 7) % 7]! + 12 * Math.floor((degree - 1) / 7);
}

/** Keys round the circle of fourths from C, as sharps of their signature. */
export const CIRCLE_OF_FOURTHS = [0, -1, -2, -3, -4, -5, 6, 5, 4, 3, 2, 1] as const;

export const KEY_OPTIONS = [
  ['0', 'C'],
  ['-1', 'F'],
  ['-2', 'B♭'],
  ['-3', 'E♭'],
  ['-4', 'A♭'],
  ['-5', 'D♭'],
  ['6', 'F♯'],
  ['5', 'B'],
  ['4', 'E'],
  ['3', 'A'],
  ['2', 'D'],
  ['1', 'G'],
] as const;
export type Key = (typeof KEY_OPTIONS)[number][0];

/** The key that an exercise is in when nothing is said. */
export const usualKey = ({ plainKeys }: Instrument): Key =>
  KEY_OPTIONS.find(([id]) => Number(id) === plainKeys?.[0])?.[0] ?? '0';

/** Name of a key by the major key on its tonic: `E♭`, `E♭ dorian`. */
export function keyTitle(key: number, scale = 'major'): string {
  const tonic = KEY_OPTIONS.find(([id]) => Number(id) === key)?.[1] ?? '';
  return scale === 'major' || tonic === ''
    ? tonic
    : `${tonicTitle(key, scale)} ${scaleOf(scale).title.split(',')[0]}`;
}

/** The tonic as its signature has it: six flats and minor is E♭ minor, whatever its major key is called. */
function tonicTitle(key: number, scale: string): string {
  const { step, alter } = spell(60 + tonicOf(key), signatureOf(key, scale));
  return `${step}${alter === 0 ? '' : alter > 0 ? '♯' : '♭'}`;
}

/** Notes from one to another, both included, up or down. */
export function stepwise(from: Midi, to: Midi, step = 1): Midi[] {
  const sign = to >= from ? 1 : -1;
  return Array.from(
    { length: Math.floor(Math.abs(to - from) / step + 1e-9) + 1 },
    (_, i) => from + sign * i * step,
  );
}

/** The notes of a scale (or of its tonic chord) between two limits, rising. @param key the major key on its tonic. */
export function notesOfKey(key: number, scale: string, low: Midi, high: Midi, arpeggio = false): Midi[] {
  const all: readonly number[] = scaleOf(scale).degrees;
  const degrees = arpeggio ? [0, 2, 4].map((degree) => all[degree]!) : all;
  const tonic = tonicOf(key);
  return stepwise(Math.ceil(low), high).filter((note) => degrees.includes((((note - tonic) % 12) + 12) % 12));
}

/** The traditional steps of the metronome. */
export const TEMPO_NOTCHES: readonly number[] = [
  ...stepwise(40, 60, 2),
  ...stepwise(63, 72, 3),
  ...stepwise(76, 120, 4),
  ...stepwise(126, 144, 6),
  ...stepwise(152, 208, 8),
];

/** The tempo some notches up (or down) from another; a tempo between two notches counts as the lower one. */
export function tempoNotch(tempo: number, by: number): number {
  let at = 0;
  for (let i = 0; i < TEMPO_NOTCHES.length; i++) if (TEMPO_NOTCHES[i]! <= tempo) at = i;
  return TEMPO_NOTCHES[Math.min(TEMPO_NOTCHES.length - 1, Math.max(0, at + by))]!;
}

const EASY = [0, -1, 1, -2, 2, -3] as const;
const HARD = [3, -4, 4, -5, 5, 6] as const;

/**
 * An easy and a hard key for a day, both going round the circle of fourths; where the instrument is made for some keys, two of
 * those in turn. @param day any whole number.
 */
export function keysOfDay(day: number, { plainKeys }: Instrument): { easy: number; hard: number } {
  const of = (keys: readonly number[], at: number) => keys[((at % keys.length) + keys.length) % keys.length]!;
  return { easy: of(plainKeys ?? EASY, day), hard: plainKeys ? of(plainKeys, day + 1) : of(HARD, day) };
}
