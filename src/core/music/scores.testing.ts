import { findInstrument } from '@/core/instruments';
import { noteName } from '@/core/tuning';
import { findFamily, type Score } from '.';

/** For tests and the bench: the score of a family with these values, which has to be one. */
export function scoreOfFamily(
  family: string,
  instrumentId: string,
  values: Readonly<Record<string, unknown>> = {},
): Score {
  const instrument = findInstrument(instrumentId);
  const made = instrument && findFamily(family)?.make(instrument, values);
  if (!made) throw new Error(`there is no family ${family} or no instrument ${instrumentId}`);
  if (!made.ok) throw new Error(made.problem);
  return made.value;
}

/** For tests and the bench: one held note. */
export const heldNote = (instrumentId: string, values: Readonly<Record<string, unknown>> = {}): Score =>
  scoreOfFamily('long-tone', instrumentId, values);

export const names = (score: Score) => score.notes.map((note) => noteName(note.written)).join(' ');
export const labels = (score: Score) => score.notes.flatMap((note) => note.label ?? []);
export const attacks = (score: Score) => new Set(score.notes.map((note) => note.attack));
