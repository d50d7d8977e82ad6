import type { ScoreNote } from './score';

/** A mark is told again after so many breaths. */
const BREATHS = 4;
const isFlick = (hand: string) => hand.startsWith('flick');

/**
 * The notes whose hand mark is written. What is done for an instant, a flick, stands at every note that asks for it; what the
 * hand holds stands where it begins, and again after some breaths, for who looks up there.
 */
export function newHands(notes: readonly ScoreNote[]): Set<number> {
  const written = new Set<number>();
  const told = new Map<string, number>();
  let breaths = 0;
  notes.forEach(({ hand }, i) => {
    if (notes[i - 1]?.breathAfter) breaths++;
    if (hand === null) return;
    if (!isFlick(hand) && breaths - (told.get(hand) ?? -BREATHS) < BREATHS) return;
    written.add(i);
    told.set(hand, breaths);
  });
  return written;
}
