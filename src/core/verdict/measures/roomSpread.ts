import type { Decibels } from '@/core/base';
import { lengthOf, type Note } from '@/core/hearing/notes';
import { midiToHertz } from '@/core/tuning';
import type { Reading } from '../reading';

/**
 * Where echoes cancel a partial its level falls far: twice the spread holds nineteen of twenty only if that is taken wider by this a
 * square decibel, and by no more than a third; less where several partials share the power (Rice's distribution, summed numerically).
 */
const WIDER = { perSquareDb: 0.033, most: 0.33 } as const;

/**
 * What the room adds to the difference of the levels of notes, as a standard deviation of which two hold nineteen of twenty: its
 * spread, less where many partials share the power and each is varied by itself.
 */
export function roomSpread({ room }: Pick<Reading, 'room'>, notes: readonly Note[]): Decibels {
  const spread = room.spreadDb ?? 0;
  const wider = Math.min(WIDER.most, WIDER.perSquareDb * spread ** 2);
  return Math.hypot(
    ...notes.map((note) => {
      const partials = partialsIn(note);
      return (spread / Math.sqrt(partials)) * (1 + wider / partials);
    }),
  );
}

/**
 * Share of that spread by which the level moves within a single note: tapers and swells of faultless players in rooms are 1 dB off, and 3
 * in a node.
 */
export const WITHIN_NOTE = 0.4;

/** A level that moves by less over a whole note is not worth a word, however short the note. */
export const LEAST_FADE: Decibels = 2;

/** Whether a room by itself may make the level of a note go up or down as it does. @param inNode see nodes.ts. */
export const mayFadeInRoom = (note: Note, reading: Pick<Reading, 'room'>, inNode: number): boolean =>
  Math.abs((note.levelDriftDbPerSecond ?? 0) * lengthOf(note)) <
  Math.max(LEAST_FADE, 2 * roomSpread(reading, [note]) * inNode);

/** Over so much of 1 / decay the room's answer to two frequencies becomes another: 13.8 / 2π (Schroeder 1962). */
const ALIKE = 2.2;

/**
 * How far a room makes the level of an even note swing that is played with vibrato, dB RMS: each partial goes to and fro over the
 * standing waves, higher ones further.
 */
export function roomSwing({ room: { decaySeconds, spreadDb } }: Pick<Reading, 'room'>, note: Note): Decibels {
  if (!note.vibrato || decaySeconds === null || spreadDb === null) return 0;
  const f0 = midiToHertz(note.soundingMidi);
  const semitones = note.vibrato.extentCents / 100 / Math.SQRT2;
  const powers = note.partialsDb.map((dB) => (dB === null ? 0 : 10 ** (dB / 10)));
  const all = powers.reduce((sum, power) => sum + power, 0);
  // Powers of different partials swing each by itself: their variances add up.
  const variance = powers.reduce((sum, power, k) => {
    const moves = (k + 1) * f0 * (2 ** (semitones / 12) - 1);
    const alike = 1 / (1 + ((moves * decaySeconds) / ALIKE) ** 2);
    return sum + (all > 0 ? (power / all) ** 2 : 0) * spreadDb ** 2 * (1 - alike);
  }, 0);
  return Math.sqrt(variance);
}

/** How many partials of equal power a tone's power is shared by. */
function partialsIn({ partialsDb }: Note): number {
  const powers = partialsDb.flatMap((dB) => (dB === null ? [] : [10 ** (dB / 10)]));
  const sum = powers.reduce((all, power) => all + power, 0);
  const squares = powers.reduce((all, power) => all + power * power, 0);
  return squares > 0 ? (sum * sum) / squares : 1;
}
