import type { Hertz, Midi } from '@/core/base';
import { soundingOf, type Instrument } from '@/core/instruments';
import { justRatio, midiToHertz } from '@/core/tuning';
import { barSpans, metresFrom } from './metres';
import { scoreBeats, type Score } from './score';

/** A drone of one's own lies an octave under the first note, unless that is low already. */
const LOW_FOR_A_DRONE: Midi = 55;

/** What is left of a score from a beat on, counted from its own beat 0; its first note is begun, not slurred to. */
export function restFrom(score: Score, beat: number): Score {
  if (beat === 0) return score;
  const later = <T extends { startBeat: number }>(parts: readonly T[]) =>
    parts
      .filter((part) => part.startBeat >= beat - 1e-6)
      .map((part) => ({ ...part, startBeat: part.startBeat - beat }));
  const [first, ...notes] = later(score.notes);
  const begun = first && { ...first, attack: first.attack === 'none' ? ('tongued' as const) : first.attack };
  return {
    ...score,
    metres: metresFrom(score, beat),
    notes: begun ? [begun, ...notes] : notes,
    pictures: later(score.pictures),
  };
}

/** Some bars of a score, and which of its notes the first of theirs is. */
export interface Bars {
  readonly score: Score;
  readonly first: number;
  /** Number of the first bar as musicians count, a pickup being none; whether bars come after. */
  readonly firstBar: number;
  readonly goesOn: boolean;
}

/**
 * The music between two bar lines, as written there: a note that comes from the bar before, or goes on into the next, is
 * cut at the line, so that no rest stands where something sounds. Beats are counted from the first bar line.
 */
export function barsBetween(score: Score, from: number, to: number): Bars {
  const sounds = ({ startBeat, beats }: { startBeat: number; beats: number }) =>
    startBeat + beats > from + 1e-6 && startBeat < to - 1e-6;
  const notes = score.notes.filter(sounds).map((note) => {
    const begins = Math.max(from, note.startBeat);
    const ends = Math.min(to, note.startBeat + note.beats);
    const goesOn = ends < note.startBeat + note.beats;
    const cameFrom = begins > note.startBeat;
    return {
      ...note,
      startBeat: begins - from,
      beats: ends - begins,
      ...(goesOn && { breathAfter: false }),
      ...(cameFrom && { label: null, hand: null, attack: 'none' as const }),
    };
  });
  return {
    score: { ...score, metres: metresFrom(score, from), notes, pictures: [], repeats: 1 },
    first: score.notes.findIndex(sounds),
    firstBar: barSpans(score, scoreBeats(score)).findLast(({ startBeat }) => startBeat <= from + 1e-6)!
      .number,
    goesOn: to < scoreBeats(score) - 1e-6,
  };
}

/** Sounding notes of a drone: what the music asks for, or its first note. */
export function droneNotes(score: Score, instrument: Instrument): readonly Midi[] {
  if (score.drone.length > 0) return score.drone;
  const first = score.notes[0];
  if (!first) return [];
  const sounding = soundingOf(instrument, first.written);
  return [sounding > LOW_FOR_A_DRONE ? sounding - 12 : sounding];
}

/**
 * Frequencies of a drone: its root at the pitch standard, the others pure over it, since a chord is tuned by its own
 * intervals and not by the tuner's.
 */
export function droneHertz(score: Score, instrument: Instrument, a4: Hertz): Hertz[] {
  const notes = droneNotes(score, instrument);
  const asked = score.parameters['root'];
  const root = typeof asked === 'number' ? soundingOf(instrument, asked) : (notes[0] ?? 69);
  return notes.map((note) => {
    const up = (((note - root) % 12) + 12) % 12;
    const [p, q] = justRatio(up);
    return midiToHertz(root, a4) * (p / q) * 2 ** ((note - root - up) / 12);
  });
}
