import { min, pairs } from 'd3-array';
import { type Decibels, type Midi, quantile, type Seconds } from '@/core/base';
import type { Beats, Group, Match } from '@/core/hearing/matching';
import { lengthOf, type Note } from '@/core/hearing/notes';
import { blurOf, reckonedWith } from '@/core/hearing/room';
import type { Dynamic, Score } from '@/core/music';
import type { Take } from '@/core/take';

/** What of a take tells why a note was not heard. */
type Heard = Pick<Take, 'notes' | 'conditions'>;

/** So much of a note's time has to be filled by its neighbour of the same pitch. */
const FILLED = 0.5;

/**
 * In a room that rings a note that is begun anew at the pitch of the note beside it is sometimes not to be told from it: one
 * long sound is heard. Such a note was not missed; whether it was begun is not known.
 */
export function withBlurred(matches: readonly Match[], { notes, conditions }: Heard, beats: Beats): Match[] {
  const { decaySeconds } = reckonedWith(conditions.room);
  const blur = blurOf(decaySeconds);
  const heardAt = (i: number) => {
    const match = matches[i];
    return match?.state === 'played' && match.note !== null
      ? { group: match.group, note: notes[match.note]! }
      : null;
  };
  const reached =
    blur > 0 && !beats.secondsOf ? beatReached(matches, notes, decaySeconds ?? 0, beats.beatSeconds) : null;
  return matches.map((match, i) => {
    const mayBeHeld = reached !== null && match.state === 'unplayed' && isWithin(match, reached);
    if (mayBeHeld) return { ...match, state: 'blurred' };
    if (blur === 0 || match.state !== 'missed') return match;
    const { startBeat, beats: length, sounding } = match.group;
    const beside = [i - 1, i + 1].filter((at) => matches[at]?.group.sounding === sounding);
    const isFilled = beats.secondsOf
      ? beside.length > 0 &&
        isFilledBy(notes, sounding, beats.secondsOf(startBeat), beats.secondsOf(startBeat + length))
      : beside.some((at) => {
          const heard = heardAt(at);
          return heard !== null && isLong(heard.note, heard.group, beats);
        });
    return isFilled ? { ...match, state: 'blurred' } : match;
  });
}

/** Whether a sound lasts for so much longer than its note that it may hold the next one too. */
const isLong = (note: Note, { beats }: Group, { beatSeconds }: Beats): boolean =>
  lengthOf(note) > (1 + FILLED) * beats * beatSeconds;

/**
 * Notes that hold another of their pitch which could not be told from them: somewhere in their middle the tone was stopped and begun
 * anew, so that how they moved is not how they were held.
 * @returns indices of notes.
 */
export function holdingBlurred(
  matches: readonly Match[],
  notes: readonly Note[],
  beats: Beats,
): ReadonlySet<number> {
  /** The nearest note on one side, behind others that were not told apart either. */
  const beside = (from: number, step: 1 | -1): Match | undefined => {
    let at = from + step;
    while (matches[at]?.state === 'blurred') at += step;
    const match = matches[at];
    return match?.group.sounding === matches[from]!.group.sounding ? match : undefined;
  };
  return new Set(
    matches.flatMap(({ state }, i) =>
      state === 'blurred'
        ? [beside(i, -1), beside(i, 1)].flatMap((match) =>
            match && match.note !== null && isLong(notes[match.note]!, match.group, beats) ? match.parts : [],
          )
        : [],
    ),
  );
}

/** Fewer sounds of a row do not tell how quick it was, and it is taken to be as quick as asked; of more their quicker ones do. */
const FEWEST_IN_ROW = 4;
const QUICKER = 0.25;

/** How far into the row of one pitch that it was left in the player may have come: its pitch, and a beat. */
interface Reached {
  readonly sounding: Midi;
  readonly beat: number;
}

/**
 * In free time a row of one pitch that was left in its middle, of which some sounds may hold several notes: how many were played is told
 * by no more than how long it was played, and how quickly at the quickest. Null where each sound is as long as one note.
 */
function beatReached(
  matches: readonly Match[],
  notes: readonly Note[],
  decaySeconds: Seconds,
  usualPace: Seconds,
): Reached | null {
  const last = matches.findLastIndex(({ note }) => note !== null);
  const sounding = matches[last]?.group.sounding;
  if (sounding === undefined || matches[last + 1]?.group.sounding !== sounding) return null;
  const first = matches.findLastIndex(({ group }, i) => i < last && group.sounding !== sounding) + 1;
  const row = matches
    .slice(first, last + 1)
    .flatMap(({ group, note }) => (note === null ? [] : [{ group, note: notes[note]! }]));
  // The last one rings on.
  const lastSound = row[row.length - 1]!.note;
  const end = Math.max(lastSound.startSeconds, lastSound.endSeconds - decaySeconds);
  const paces = pairs(
    row,
    (here, next) =>
      (next.note.startSeconds - here.note.startSeconds) / (next.group.startBeat - here.group.startBeat),
  );
  const pace = row.length < FEWEST_IN_ROW ? usualPace : quantile(paces, QUICKER);
  const lastPace = (end - lastSound.startSeconds) / row[row.length - 1]!.group.beats;
  if (![...paces, lastPace].some((each) => each > (1 + FILLED) * pace)) return null;
  return { sounding, beat: row[0]!.group.startBeat + (end - row[0]!.note.startSeconds) / pace };
}

const isWithin = ({ group }: Match, { sounding, beat }: Reached): boolean =>
  group.sounding === sounding && group.startBeat + FILLED * group.beats < beat;

/** Noise this near under the softest that was heard hides what is as soft. */
const HIDES_DB: Decibels = 12;
/** What is heard in so little of a soft note's time, of itself or of another, is no answer to it. */
const SCRAP = 0.25;
/** So much softer than what is not asked softly a soft note is at least. */
const SOFTER_DB: Decibels = 10;
const SOFT: ReadonlySet<Dynamic> = new Set(['pp', 'p']);

/** Where soft notes hardly stand over the room's noise, one that was not heard may have been hidden by it. */
export function withHidden(
  matches: readonly Match[],
  { notes, conditions }: Heard,
  score: Score,
  { beatSeconds: beat }: Beats,
): Match[] {
  const isSoft = ({ group }: Match) => SOFT.has(score.notes[group.from]!.dynamic);
  const softestOf = (those: readonly Match[]) =>
    min(those.flatMap(({ note }) => (note === null ? [] : (notes[note]!.levelDb ?? []))));
  const softest = softestOf(matches.filter(isSoft)) ?? (softestOf(matches) ?? Infinity) - SOFTER_DB;
  if (softest - conditions.floorDb > HIDES_DB) return [...matches];
  /** What flares up in the noise is no more than a scrap of a note. */
  const isScrap = ({ note, group }: Match) =>
    note !== null && lengthOf(notes[note]!) < SCRAP * group.beats * beat;
  /** Of a soft note and a loud one of its pitch beside it either may stand for the one that was heard. */
  const mayBeSoft = (match: Match, i: number) =>
    isSoft(match) ||
    [matches[i - 1], matches[i + 1]].some(
      (beside) => beside?.group.sounding === match.group.sounding && isSoft(beside),
    );
  return matches.map((match, i) =>
    (match.state === 'missed' && mayBeSoft(match, i)) || (isSoft(match) && isScrap(match))
      ? { ...match, note: null, parts: [], state: 'hidden' }
      : match,
  );
}

/** Whether one sound of a pitch goes on through most of a time, whichever of several notes it was taken for. */
const isFilledBy = (notes: readonly Note[], sounding: Midi, from: Seconds, to: Seconds): boolean =>
  notes.some(
    ({ soundingMidi, startSeconds, endSeconds }) =>
      soundingMidi === sounding &&
      Math.min(to, endSeconds) - Math.max(from, startSeconds) > FILLED * (to - from),
  );
