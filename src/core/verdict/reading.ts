import { median } from '@/core/base';
import type { Score, ScoreNote } from '@/core/music';
import { findInstrument, type Instrument } from '@/core/instruments';
import { align, unfolded, type Alignment, type Beats, type Group, type Match } from '@/core/hearing/matching';
import { type Note, type NoteEvent, type Transition } from '@/core/hearing/notes';
import { beatSeconds, type Take, type Trace } from '@/core/take';
import { displayName, type Cents, type Seconds } from '@/core/tuning';
import type { Limits } from './limits';

/** The parts of a take that judging rests on. */
export type Played = Pick<
  Take,
  'score' | 'notes' | 'events' | 'transitions' | 'trace' | 'timing' | 'heldHz' | 'conditions'
>;

/** A take laid beside its score, and what the player's level allows. Every measure reads from it. */
export interface Reading {
  readonly score: Score;
  readonly instrument: Instrument;
  readonly limits: Limits;
  readonly notes: readonly Note[];
  readonly events: readonly NoteEvent[];
  readonly trace: Trace;
  readonly alignment: Alignment;
  readonly beats: Beats;
  readonly floorDb: number;
  /** Seconds at which a beat was to be heard; null in free time. */
  readonly timing: Take['timing'];
  /** The transition into a heard note, from the one before it. */
  readonly into: ReadonlyMap<number, Transition>;
}

/** @throws when the take's instrument is not known any more. */
export function readingOf(take: Played, limits: Limits): Reading {
  const instrument = findInstrument(take.score.instrumentId);
  if (!instrument) throw new Error(`there is no instrument "${take.score.instrumentId}"`);
  const score = unfolded(take.score);
  const beats = beatsOf(take, score);
  return {
    score,
    instrument,
    limits,
    notes: take.notes,
    events: take.events,
    trace: take.trace,
    beats,
    alignment: align(score, instrument, take.notes, beats),
    floorDb: take.conditions.floorDb,
    timing: take.timing,
    into: new Map(take.transitions.map((each) => [each.to, each])),
  };
}

function beatsOf({ timing }: Played, score: Score): Beats {
  const beat = 60 / (score.tempo ?? 60);
  const first = beatSeconds(timing, score, 0);
  return {
    secondsOf: first === null ? null : (at) => beatSeconds(timing, score, at)!,
    beatSeconds: beat,
    musicFrom: first === null ? -Infinity : first - 0.6 * beat,
  };
}

/** The first of a group's notes in the score. */
export const scoreNoteOf = ({ score }: Reading, group: Group): ScoreNote => score.notes[group.from]!;

export const nameOf = (group: Pick<Group, 'written'>): string => displayName(group.written);

/** The heard note of a match, when it is the asked one. */
export function playedNote(reading: Reading, match: Match): Note | null {
  return match.state === 'played' && match.note !== null ? reading.notes[match.note]! : null;
}

/** Matches that were played as asked, each with its note. */
export function playedNotes(reading: Reading): { match: Match; note: Note }[] {
  return reading.alignment.matches.flatMap((match) => {
    const note = playedNote(reading, match);
    return note ? [{ match, note }] : [];
  });
}

/** How far a heard note's middle is from the asked pitch; null when it is not known. */
export function centsOff(note: Note, group: Group): Cents | null {
  return note.centreCents === null ? null : note.centreCents + 100 * (note.soundingMidi - group.sounding);
}

/** Events of a match's notes, those on the way into it included. */
export function eventsOf({ events }: Reading, { parts }: Match): NoteEvent[] {
  return events.filter((event) => event.noteIndex !== null && parts.includes(event.noteIndex));
}

/** The body of a heard note in the trace: from index, to index (half-open), attack and release left out. */
export function bodyIn({ trace }: Pick<Reading, 'trace'>, note: Pick<Note, 'startSeconds' | 'endSeconds'>) {
  const { startSeconds, endSeconds } = note;
  const length = endSeconds - startSeconds;
  const from = Math.ceil((startSeconds + Math.min(0.12, length / 4)) / trace.stepSeconds);
  const to = Math.floor((endSeconds - Math.min(0.06, length / 4)) / trace.stepSeconds);
  return { from, to: Math.max(from + 1, to) };
}

/** Pitch of a heard note against equal temperament: MIDI number with its fraction, from the trace. */
export function pitchOf(reading: Pick<Reading, 'trace'>, note: Note): number {
  const { from, to } = bodyIn(reading, note);
  return median(reading.trace.pitchMidi.slice(from, to).map((pitch) => pitch ?? NaN));
}

/** Trace values over a stretch of time, nulls as NaN. */
export function stretch(
  trace: Trace,
  column: 'pitchMidi' | 'levelDb' | 'airinessDb' | 'brightness' | 'richness',
  from: Seconds,
  to: Seconds,
): number[] {
  const first = Math.max(0, Math.ceil(from / trace.stepSeconds));
  return trace[column].slice(first, Math.ceil(to / trace.stepSeconds)).map((value) => value ?? NaN);
}
