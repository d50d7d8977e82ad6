import { scoreBeats, type Score } from './score';

/** Bounds of what can be practised from, far beyond any part for a wind instrument: three hours at a beat a second. */
const MOST_NOTES = 6000;
const MOST_BEATS = 10_800;

/** Which bound a score is beyond, in words; null: it can be shown and practised from. */
export function boundsProblem(score: Score): string | null {
  const beats = scoreBeats(score);
  if (score.notes.length > MOST_NOTES)
    return `it has ${score.notes.length} notes; ${MOST_NOTES} is the most. Export the part you play, or a movement of it`;
  if (!(beats <= MOST_BEATS))
    return `it is ${Math.round(beats)} beats long; ${MOST_BEATS} is the most. A rest or a note in it is far too long`;
  return null;
}
