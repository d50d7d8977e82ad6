import type { Seconds } from '@/core/base';
import type { ScoreNote } from '../score';

/** So much of two playings has to be the same for them to be playings of one phrase. */
const ALIKE = 0.7;
const LEAST_NOTES = 3;

/** Pairs of notes that are the same in two rows, in order (longest common subsequence). */
function samePairs(a: readonly ScoreNote[], b: readonly ScoreNote[]): [number, number][] {
  const longest = Array.from({ length: a.length + 1 }, () => new Uint16Array(b.length + 1));
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      longest[i]![j] =
        a[i]!.written === b[j]!.written
          ? 1 + longest[i + 1]![j + 1]!
          : Math.max(longest[i + 1]![j]!, longest[i]![j + 1]!);
  const pairs: [number, number][] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;)
    if (a[i]!.written === b[j]!.written) pairs.push([i++, j++]);
    else if (longest[i + 1]![j]! >= longest[i]![j + 1]!) i++;
    else j++;
  return pairs;
}

/** By so many notes two playings may differ. */
const APART = 2;
/** A breath between two playings; within a phrase its own figures may come again. */
const BREATH: Seconds = 0.25;

/** Two playings of one phrase: `first` begins at `from`, `last` at `to` and goes on to the end. */
export interface Playings {
  readonly from: number;
  readonly to: number;
}

/**
 * The last two playings of a phrase that was played again and again, parted by a breath, or by nothing where they are all.
 * @param notes in free time, a beat a second.
 * @returns null: it was played once.
 */
export function lastPlayings(notes: readonly ScoreNote[]): Playings | null {
  let best: (Playings & { worth: number }) | null = null;
  for (let to = notes.length - LEAST_NOTES; to >= LEAST_NOTES; to--) {
    const length = notes.length - to;
    const before = notes[to - 1]!;
    const silence = notes[to]!.startBeat - before.startBeat - before.beats;
    for (
      let from = Math.max(0, to - length - APART);
      from <= to - Math.max(LEAST_NOTES, length - APART);
      from++
    ) {
      if (from > 0 && silence < BREATH) continue;
      const alike = (2 * samePairs(notes.slice(from, to), notes.slice(to)).length) / (notes.length - from);
      const worth = 4 * alike + Math.min(2, silence);
      if (alike >= ALIKE && (!best || worth > best.worth)) best = { from, to, worth };
    }
  }
  return best && { from: best.from, to: best.to };
}

/**
 * Notes of a playing that the other one does not have, or has at another length.
 * @param playing @param other both set down in beats.
 * @returns indices in `playing`.
 */
export function unlike(playing: readonly ScoreNote[], other: readonly ScoreNote[]): number[] {
  const same = new Map(samePairs(other, playing).map(([i, j]) => [j, i]));
  const step = (notes: readonly ScoreNote[], i: number) =>
    (notes[i + 1]?.startBeat ?? NaN) - notes[i]!.startBeat;
  return playing.flatMap((_, j) => {
    const i = same.get(j);
    if (i === undefined) return [j];
    const [here, there] = [step(playing, j), step(other, i)];
    const isApart = same.get(j + 1) === i + 1 && Math.abs(here - there) > 1e-6;
    return isApart ? [j] : [];
  });
}
