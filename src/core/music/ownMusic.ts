import type { Midi } from '@/core/base';
import { handAt, seamBetween, type Instrument } from '@/core/instruments';
import { displayName, type Naming } from '@/core/tuning';
import { metresFrom, startOfBar } from './metres';
import { EVERYTHING_COUNTS, type Score, type ScoreNote } from './score';

/** A place in any music that practice should know of. */
export interface Place {
  readonly kind: 'seam' | 'vent' | 'weak' | 'outside';
  /** Index of the note; of the second one for a seam. */
  readonly note: number;
  readonly text: string;
}

const NEAR_BEATS = 0.05;

/**
 * Marks every crossing of a break, every place where the hand has to do something at once, every note that the player's map
 * calls weak, and every note the instrument does not have.
 */
export function placesIn(
  score: Score,
  instrument: Instrument,
  naming: Naming,
  weak: readonly Midi[] = [],
): Place[] {
  const { notes } = score;
  const lowest = instrument.registers[0]!.low;
  const highest = instrument.registers.at(-1)!.high;
  return notes.flatMap((note, i): Place[] => {
    const before = notes[i - 1];
    const joined =
      before && note.startBeat - before.startBeat - before.beats < NEAR_BEATS ? before : undefined;
    const seam = joined ? seamBetween(instrument, joined.written, note.written) : null;
    const slurredFrom = note.attack === 'none' && joined ? joined.written : null;
    const hand = handAt(instrument, note.written, slurredFrom);
    const name = displayName(note.written, naming);
    const places: Place[] = [];
    if (note.written < lowest || note.written > highest)
      places.push({ kind: 'outside', note: i, text: `${name} lies outside the ${instrument.name}’s range` });
    if (seam && joined)
      places.push({
        kind: 'seam',
        note: i,
        text: `${displayName(joined.written, naming)} ${note.attack === 'none' ? 'slurred' : 'tongued'} ${seam.direction} to ${name}`,
      });
    if (hand?.when === 'flick') places.push({ kind: 'vent', note: i, text: `${name}: ${hand.mark}` });
    if (weak.includes(note.written))
      places.push({ kind: 'weak', note: i, text: `${name} is weak on your map` });
    return places;
  });
}

/** Hand marks and modes put in for an instrument, in music that came without them. */
export function markedFor(notes: readonly ScoreNote[], instrument: Instrument): ScoreNote[] {
  return notes.map((note, i) => {
    if (note.fingered !== null) return note;
    const before = note.attack === 'none' ? (notes[i - 1]?.written ?? null) : null;
    return { ...note, hand: handAt(instrument, note.written, before)?.mark ?? null };
  });
}

/**
 * A few notes cut out of a score as a drill of their own, repeated, slower.
 * @param from @param to indices of the first and last note, both included. @param share of the tempo.
 */
export function excerpt(score: Score, from: number, to: number, share = 0.75): Score {
  const cut = score.notes.slice(Math.max(0, from), to + 1);
  const start = cut[0]?.startBeat ?? 0;
  const first = startOfBar(score, start);
  return {
    ...score,
    free: false,
    metres: metresFrom(score, first),
    family: 'excerpt',
    title: `From ${score.title}`,
    tempo: score.tempo === null ? null : Math.max(30, Math.round(score.tempo * share)),
    notes: cut.map((note, i) => ({
      ...note,
      startBeat: note.startBeat - first,
      attack: i === 0 && note.attack === 'none' ? 'tongued' : note.attack,
    })),
    pictures: [],
    repeats: 4,
    counts: EVERYTHING_COUNTS,
    parameters: { from, to, share },
  };
}
