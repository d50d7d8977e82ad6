import { median, type Cents, type Decibels, type Seconds } from '@/core/base';
import type { Match } from '@/core/hearing/matching';
import { lengthOf, type Note } from '@/core/hearing/notes';
import { roomWobble } from './measures/wobble';
import { roomSpread } from './measures/roomSpread';
import { scoreNoteOf, traced, type Reading } from './reading';

/** A note that lost so much for so long stopped: a breath or the tongue, where none was written. */
const STOP_DB: Decibels = 12;
const LEAST_STOP: Seconds = 0.06;
/** In free time what is silent for longer has ended, and was begun anew. */
const MOST_STOP: Seconds = 2;
/** Its beginning and its end are told by others. */
const EDGE: Seconds = 0.12;

/** How long a held note was silent within, seconds in all; null where it cannot be told. 0: it went on. */
export function stoppedFor(reading: Reading, match: Match): Seconds | null {
  const { notes, trace, conditions, beats } = reading;
  const span = spanOf(reading, match);
  if (span === null || scoreNoteOf(reading, match.group).hairpin !== null) return null;
  // Of a sound that did not all arrive it is not known who was silent.
  if (conditions.lostSeconds > 0) return null;
  const [from, to] = [span.from + EDGE, span.to - EDGE];
  if (to - from < 2 * EDGE) return null;
  const levels = traced(trace, 'levelDb', from, to);
  const middle = median(levels);
  const depth = STOP_DB + 2 * roomSpread(reading, [notes[match.note!]!]);
  if (middle - depth < conditions.floorDb) return null;
  const most = beats.secondsOf === null ? MOST_STOP : Infinity;
  // What does not come back is its end, and the room's.
  const isLow = levels.map((level) => level < middle - depth);
  let run = 0;
  let all = 0;
  for (const low of isLow.slice(isLow.indexOf(false), isLow.lastIndexOf(false) + 1)) {
    const seconds = run * trace.stepSeconds;
    if (!low && seconds >= LEAST_STOP && seconds <= most) all += seconds;
    run = low ? run + 1 : 0;
  }
  return all;
}

/** From its first sound to its last; null where it was not heard. */
export function spanOf({ notes }: Reading, { parts }: Match): { from: Seconds; to: Seconds } | null {
  const [first] = parts;
  const last = parts[parts.length - 1];
  return first === undefined || last === undefined
    ? null
    : { from: notes[first]!.startSeconds, to: notes[last]!.endSeconds };
}

/** A note that is asked to last so long is held; of less than this share of it, it is cut short: a breath may be taken out of it. */
const HELD: Seconds = 1.5;
const LEAST_SHARE = 0.75;
/** Between the end of a note and that of listening, where the note ended by itself. */
const STOPPING: Seconds = 0.5;

/** How long a note lasted that ended long before it was to; null where it did not, or nothing says when it was to end. */
export function cutShortTo(reading: Reading, match: Match): Seconds | null {
  const { beats, score, timing, trace } = reading;
  const span = spanOf(reading, match);
  if (span === null || beats.secondsOf === null || match.state !== 'played') return null;
  // Who stopped the block, or was interrupted, did not end the note.
  const listenedTo = trace.levelDb.length * trace.stepSeconds;
  if (timing.resumed.length > 0 || span.to > listenedTo - STOPPING) return null;
  // How long a hold is, is the player's own: what counts there is how long it is pure. A hairpin may end in nothing.
  if (score.counts.measures.includes('hold') || scoreNoteOf(reading, match.group).hairpin !== null)
    return null;
  const { startBeat, beats: asked } = match.group;
  const wanted = beats.secondsOf(startBeat + asked) - beats.secondsOf(startBeat);
  const lasted = span.to - span.from;
  return wanted >= HELD && lasted < LEAST_SHARE * wanted ? lasted : null;
}

/** The end of a held note: so much of it, and it is a note long enough to have one. */
const ENDING: Seconds = 0.5;
const HAS_ENDING: Seconds = 2.5;
/** What a note does while it is let go is its release. */
const RELEASE: Seconds = 0.08;
/** What lies so far off is another note. */
const MOST_OFF: Cents = 100;

/** How far the end of a held note lies from its middle, cents; null where it is too short, or room or noise may have moved it. */
export function endingOf(reading: Reading, note: Note, inNode: number): Cents | null {
  if (lengthOf(note) < HAS_ENDING || note.centreCents === null) return null;
  const { startSeconds, endSeconds } = note;
  const pitches = (from: Seconds, to: Seconds) =>
    traced(reading.trace, 'pitchMidi', from, to).filter((pitch) => Number.isFinite(pitch));
  const ending = pitches(endSeconds - RELEASE - ENDING, endSeconds - RELEASE);
  const middle = pitches(startSeconds + EDGE, endSeconds - RELEASE - 2 * ENDING);
  if (ending.length < 4 || middle.length < 4) return null;
  const cents = 100 * (median(ending) - median(middle));
  return Math.abs(cents) > MOST_OFF || Math.abs(cents) < 2 * roomWobble(reading, inNode) ? null : cents;
}
