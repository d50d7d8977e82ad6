import { endOfBars } from './metres';
import type { Score } from './score';

/** A score with its repeats written out, each from a new bar. */
export function unfolded(score: Score): Score {
  if (score.repeats <= 1) return score;
  const length = endOfBars(score);
  const times = Array.from({ length: score.repeats }, (_, i) => i * length);
  const shifted = <T extends { startBeat: number }>(parts: readonly T[]) =>
    times.flatMap((by) => parts.map((part) => ({ ...part, startBeat: part.startBeat + by })));
  const last = score.notes.length - 1;
  return {
    ...score,
    repeats: 1,
    metres: shifted(score.metres),
    notes: shifted(score.notes.map((note, i) => (i === last ? { ...note, breathAfter: true } : note))),
    pictures: shifted(score.pictures),
  };
}
