import { tonicOf, type Midi } from '@/core/tuning';

export const MAJOR = [0, 2, 4, 5, 7, 9, 11] as const;
const ARPEGGIO = [0, 4, 7] as const;

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

/** Name of a major key by its signature. */
export const keyTitle = (fifths: number): string =>
  KEY_OPTIONS.find(([id]) => Number(id) === fifths)?.[1] ?? '';

/** Notes from one to another, both included, up or down. */
export function stepwise(from: Midi, to: Midi, step = 1): Midi[] {
  const sign = to >= from ? 1 : -1;
  return Array.from(
    { length: Math.floor(Math.abs(to - from) / step + 1e-9) + 1 },
    (_, i) => from + sign * i * step,
  );
}

/** The notes of a major key (or of its tonic chord) between two limits, rising. */
export function notesOfKey(fifths: number, low: Midi, high: Midi, arpeggio = false): Midi[] {
  const degrees: readonly number[] = arpeggio ? ARPEGGIO : MAJOR;
  const tonic = tonicOf(fifths);
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

/** An easy and a hard key for a day, both going round the circle of fourths. @param day any whole number. */
export function keysOfDay(day: number): { easy: number; hard: number } {
  const easy = [0, -1, 1, -2, 2, -3];
  const hard = [3, -4, 4, -5, 5, 6];
  const at = ((day % 6) + 6) % 6;
  return { easy: easy[at]!, hard: hard[at]! };
}
