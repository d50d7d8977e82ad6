import { type Cents, median, type Seconds } from '@/core/base';
import { lengthOf, type Note } from '@/core/hearing/notes';
import type { Reading } from '../reading';

/** In a longer note a vibrato is found. */
const SHORT: Seconds = 1.2;
/** A vibrato of middling extent, and the turns it makes in a second. */
const USUAL: Cents = 25;
const TURNS = 5;

/**
 * How far a note may swing without its being known: it is too short to show the vibrato that others of the take have, or that was
 * asked for.
 */
export function hiddenSwing({ notes, score }: Pick<Reading, 'notes' | 'score'>, note: Note): Cents {
  if (note.vibrato || lengthOf(note) > SHORT) return 0;
  const seen = notes.flatMap(({ vibrato }) => (vibrato ? [vibrato.extentCents] : []));
  if (seen.length > 0) return median(seen);
  return score.vibrato === 'wanted' ? USUAL : 0;
}

/** How far the middle of such a swing may be off when it is taken of part of its turns. */
export const swingError = (reading: Pick<Reading, 'notes' | 'score'>, note: Note): Cents =>
  hiddenSwing(reading, note) / Math.max(1, 2 * TURNS * lengthOf(note));
