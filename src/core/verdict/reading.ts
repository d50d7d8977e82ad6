import { type Cents, COLOURS, median, type Midi, type Seconds } from '@/core/base';
import { align, type Alignment, type Beats, type Group, type Match } from '@/core/hearing/matching';
import { blurOf, reckonedWith, type RoomSound } from '@/core/hearing/room';
import { type Note, type NoteEvent, type Transition, type UnknownReason } from '@/core/hearing/notes';
import { type Instrument } from '@/core/instruments';
import { unfolded, type Role, type Score, type ScoreNote } from '@/core/music';
import { beatsOf, type Take, type Trace } from '@/core/take';
import type { Limits } from './limits';
import { straysIn } from './strays';
import { holdingBlurred, withBlurred, withHidden } from './unheard';

/** The parts of a take that judging rests on. */
export type Played = Pick<
  Take,
  | 'score'
  | 'instrument'
  | 'notes'
  | 'events'
  | 'transitions'
  | 'trace'
  | 'timing'
  | 'heldHz'
  | 'conditions'
  | 'durationSeconds'
>;

/** A take laid beside its score, and what the player's level allows. Every measure reads from it. */
export interface Reading extends Pick<Take, 'conditions' | 'heldHz' | 'timing' | 'trace'> {
  readonly score: Score;
  readonly instrument: Instrument;
  readonly limits: Limits;
  readonly notes: readonly Note[];
  readonly events: readonly NoteEvent[];
  readonly alignment: Alignment;
  readonly beats: Beats;
  /** The transition into a heard note, from the one before it. */
  readonly into: ReadonlyMap<number, Transition>;
  /** Sounding pitch of fingered fundamentals as they were played, by the written note that is fingered. */
  readonly fundamentals: ReadonlyMap<Midi, Midi>;
  /** What has to be reckoned with of the room. */
  readonly room: RoomSound;
}

/** @param instrument what the take was played on. */
export function readingOf(take: Played, instrument: Instrument, limits: Limits): Reading {
  const score = unfolded(take.score);
  const beats = beatsOf(take.timing, score);
  const matched = align(score, instrument, take.notes, beats, take.durationSeconds);
  const blurred = withBlurred(matched.matches, take, beats);
  const alignment = { ...matched, matches: withHidden(blurred, take, score, beats) };
  const into = new Map(take.transitions.map((each) => [each.to, each]));
  // Of a mode that was heard faint the music tells whether it is a fault.
  const faint = alignment.matches.flatMap(({ group, parts: [first] }) =>
    group.slurred && first !== undefined ? (into.get(first)?.faintBlip ?? []) : [],
  );
  const room = reckonedWith(take.conditions.room);
  const told = {
    ...take,
    events: [
      ...take.events.filter((event) => isOver(event, take)),
      ...faint,
      ...straysIn(alignment, take.notes, instrument, blurOf(room.decaySeconds)),
    ],
  };
  const { notes: alone, events } = withoutCompany(score, alignment, told);
  const holding = holdingBlurred(alignment.matches, alone, beats);
  const notes = holding.size === 0 ? alone : alone.map((note, i) => (holding.has(i) ? unmoved(note) : note));
  const { conditions, heldHz, timing, trace } = take;
  const known = { score, instrument, limits, notes, events, alignment, beats, into };
  const fundamentals = fundamentalsOf({ score, alignment, notes, trace });
  return { ...known, conditions, heldHz, timing, trace, fundamentals, room };
}

/** Within so much of the end of listening a sound was still going on; the ear's frames are no finer. */
const STILL: Seconds = 0.05;

/** Whether it ended before listening did: where the next note had just begun, it is no crack of the one before. */
const isOver = ({ startSeconds, endSeconds }: NoteEvent, { timing, durationSeconds }: Played): boolean =>
  [...timing.resumed.map(({ fromSeconds }) => fromSeconds), durationSeconds].every(
    (end) => startSeconds >= end || endSeconds < end - STILL,
  );

const COMPANY: UnknownReason = 'company';

/** Where a voice sounds along nothing of pitch, level and colour is the player's alone; the plain notes are untouched. */
function withoutCompany(score: Score, { matches }: Alignment, { notes, events }: Played) {
  const shared = new Set(
    matches.flatMap(({ group, parts }) => (score.notes[group.from]!.company ? parts : [])),
  );
  if (shared.size === 0) return { notes, events };
  return {
    notes: notes.map((note, i) => (shared.has(i) ? unknownNote(note) : note)),
    events: events.filter(({ noteIndex }) => noteIndex === null || !shared.has(noteIndex)),
  };
}

/** What a note does from its beginning to its end. */
const MOVEMENT = [
  'driftCentsPerSecond',
  'wobbleCents',
  'levelDriftDbPerSecond',
  'levelWobbleDb',
  'centsPer10Db',
  'puritySeconds',
] as const;
const SOUND = ['centreCents', 'levelDb', ...COLOURS, ...MOVEMENT] as const;

const unknownNote = (note: Note): Note => ({
  ...without(note, SOUND, COMPANY),
  vibrato: null,
  attack: { ...note.attack, scoopCents: null },
});

/** Of two notes that the room makes one it is not known how each was held. */
const unmoved = (note: Note): Note => without(note, MOVEMENT, 'room');

const without = <Name extends (typeof SOUND)[number]>(
  note: Note,
  names: readonly Name[],
  reason: UnknownReason,
): Note => ({
  ...note,
  ...(Object.fromEntries(names.map((name) => [name, null])) as Record<Name, null>),
  unknown: { ...note.unknown, ...Object.fromEntries(names.map((name) => [name, reason])) },
});

function fundamentalsOf(
  part: Pick<Reading, 'score' | 'alignment' | 'notes' | 'trace'>,
): ReadonlyMap<Midi, Midi> {
  const pitches = new Map<Midi, number[]>();
  const harmonic = new Set(part.score.notes.flatMap((note) => note.fingered ?? []));
  for (const match of part.alignment.matches) {
    const { written, fingered, role } = part.score.notes[match.group.from]!;
    if (match.state !== 'played' || match.note === null) continue;
    if (fingered !== null || role === 'ordinary' || !harmonic.has(written)) continue;
    const pitch = pitchOf(part, part.notes[match.note]!);
    if (Number.isFinite(pitch)) pitches.set(written, [...(pitches.get(written) ?? []), pitch]);
  }
  return new Map([...pitches].map(([written, all]) => [written, median(all)]));
}

/** The first of a group's notes in the score. */
export const scoreNoteOf = ({ score }: Pick<Reading, 'score'>, group: Group): ScoreNote =>
  score.notes[group.from]!;

/** What the family wrote the group’s first note for. */
export const roleOf = (part: Pick<Reading, 'score'>, group: Group): Role | null =>
  scoreNoteOf(part, group).role;

/** The heard note of a match, when it is the asked one. */
export function playedNote(reading: Pick<Reading, 'notes'>, match: Match): Note | null {
  return match.state === 'played' && match.note !== null ? reading.notes[match.note]! : null;
}

export interface PlayedNote {
  readonly match: Match;
  readonly note: Note;
}

/** Matches that were played as asked, each with its note. */
export function playedNotes(reading: Pick<Reading, 'notes' | 'alignment'>): PlayedNote[] {
  return reading.alignment.matches.flatMap((match) => {
    const note = playedNote(reading, match);
    return note ? [{ match, note }] : [];
  });
}

/** Those whose role is one of these. */
export const playedAs = (reading: Reading, ...roles: readonly Role[]): PlayedNote[] =>
  playedNotes(reading).filter(({ match }) => {
    const role = roleOf(reading, match.group);
    return role !== null && roles.includes(role);
  });

/** Those that no hairpin moves. */
export const plainNotes = (reading: Reading): PlayedNote[] =>
  playedNotes(reading).filter(({ match }) => scoreNoteOf(reading, match.group).hairpin === null);

/**
 * How far a heard note's middle is from the asked pitch; null when it is not known. A harmonic is asked at its multiple of the
 * fundamental as it sounded.
 */
export function centsOff(reading: Reading, { note, match: { group } }: PlayedNote): Cents | null {
  if (note.centreCents === null) return null;
  const { fingered, mode } = scoreNoteOf(reading, group);
  if (fingered === null || mode === null)
    return note.centreCents + 100 * (note.soundingMidi - group.sounding);
  const base = reading.fundamentals.get(fingered);
  const cents = base === undefined ? NaN : 100 * (pitchOf(reading, note) - base - 12 * Math.log2(mode));
  return Number.isFinite(cents) ? cents : null;
}

/** Events of a match's notes, those on the way into it included. */
export function eventsOf({ events }: Pick<Reading, 'events'>, { parts }: Match): NoteEvent[] {
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

/** Trace values over a span of time, nulls as NaN. */
export function traced(
  trace: Trace,
  column: 'pitchMidi' | 'levelDb' | 'airinessDb' | 'brightness' | 'richness',
  from: Seconds,
  to: Seconds,
): number[] {
  const first = Math.max(0, Math.ceil(from / trace.stepSeconds));
  return trace[column].slice(first, Math.ceil(to / trace.stepSeconds)).map((value) => value ?? NaN);
}

/** Known values of a figure of notes. */
export const known = (values: readonly (number | null)[]): number[] => values.filter((each) => each !== null);
