import type { ScoreNote } from './score';

/** A silence of so many beats ends a phrase. */
const SILENCE = 0.25;

/** Notes in the phrases that they are played in: each ends at a breath, a silence, or where another key is written. */
export function phrasesOf(notes: readonly ScoreNote[]): ScoreNote[][] {
  const phrases: ScoreNote[][] = [];
  notes.forEach((note, i) => {
    const before = notes[i - 1];
    const goesOn =
      before &&
      !before.breathAfter &&
      note.startBeat - before.startBeat - before.beats <= SILENCE &&
      note.key === before.key;
    if (goesOn) phrases[phrases.length - 1]!.push(note);
    else phrases.push([note]);
  });
  return phrases;
}
