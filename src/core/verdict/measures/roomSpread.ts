import type { Note } from '@/core/hearing/notes';
import type { Decibels } from '@/core/tuning';
import type { Reading } from '../reading';

/**
 * Standard deviation of what the room adds to the difference of the levels of notes: its spread, less where many partials share
 * the power and each is varied by itself.
 */
export function roomSpread({ conditions }: Reading, notes: readonly Note[]): Decibels {
  const spread = conditions.room?.spreadDb ?? 0;
  return Math.sqrt(notes.reduce((sum, note) => sum + spread ** 2 / partialsIn(note), 0));
}

/** How many partials of equal power a tone's power is shared by. */
function partialsIn({ partialsDb }: Note): number {
  const powers = partialsDb.flatMap((dB) => (dB === null ? [] : [10 ** (dB / 10)]));
  const sum = powers.reduce((all, power) => all + power, 0);
  const squares = powers.reduce((all, power) => all + power * power, 0);
  return squares > 0 ? (sum * sum) / squares : 1;
}
