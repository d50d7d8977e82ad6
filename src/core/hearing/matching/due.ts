import { pairs } from 'd3-array';
import { median, type Seconds } from '@/core/base';
import type { Due, Note } from '@/core/hearing/notes';
import type { Alignment, Beats, Match } from './align';

/** A note is begun so near to where the rest of its row puts it: share of its length, and a little, but never half-way to the next. */
const SHARE = 0.2;
const SLACK: Seconds = 0.06;
const MOST = 0.45;
/** In free time a row is as quick all through, within this share. */
const PACE_SHARE = 0.15;

/**
 * When notes were to begin that were not found, though the tone before them goes on: the same note is written again there. The time
 * is told by the beat, or else by what was found of the same row.
 */
export function notesDue(
  { matches }: Pick<Alignment, 'matches'>,
  notes: readonly Note[],
  beats: Beats,
): Due[] {
  return rowsOf(matches).flatMap((row) => {
    const heard = row.flatMap(({ parts }) => parts.map((i) => notes[i]!));
    const timeOf = beats.secondsOf
      ? byBeat(row, notes, beats.secondsOf)
      : byShare(row, matches[row[row.length - 1]!.group.index + 1], notes);
    if (!timeOf) return [];
    return row.slice(1).flatMap(({ group }, i): Due[] => {
      const at = timeOf(group.startBeat);
      const length = Math.min(
        at - timeOf(row[i]!.group.startBeat),
        timeOf(group.startBeat + group.beats) - at,
      );
      const half = Math.min(MOST * length, SLACK + SHARE * length);
      const isBegun = heard.some(({ startSeconds }) => Math.abs(startSeconds - at) < half);
      const goesOn = heard.some((note) => note.startSeconds < at - half && note.endSeconds > at + SLACK);
      return goesOn && !isBegun ? [{ from: at - half, to: at + half }] : [];
    });
  });
}

/** Neighbours on one pitch of which some were found and some were not. */
function rowsOf(matches: readonly Match[]): Match[][] {
  const rows: Match[][] = [];
  matches.forEach((match, i) => {
    const isSame = matches[i - 1]?.group.sounding === match.group.sounding;
    if (isSame) rows[rows.length - 1]!.push(match);
    else rows.push([match]);
  });
  return rows.filter((row) => row.some(({ note }) => note === null) && row.some(({ note }) => note !== null));
}

type TimeOf = (beat: number) => Seconds;

/** By the metronome, as late as what was found on both sides: who rushes is early by more and more. */
function byBeat(row: readonly Match[], notes: readonly Note[], secondsOf: TimeOf): TimeOf {
  const found = row.flatMap(({ group: { startBeat }, parts: [first] }) =>
    first === undefined ? [] : [{ startBeat, late: notes[first]!.startSeconds - secondsOf(startBeat) }],
  );
  return (beat) => {
    const before = found.findLast(({ startBeat }) => startBeat <= beat) ?? found[0]!;
    const after = found.find(({ startBeat }) => startBeat > beat) ?? before;
    const share = after === before ? 0 : (beat - before.startBeat) / (after.startBeat - before.startBeat);
    return secondsOf(beat) + before.late + share * (after.late - before.late);
  };
}

/**
 * In free time by the share of the row's time, from its first sound to the next note. Where none follows, to the end of its last
 * sound, if that is as quick as the row was: the player may have stopped in the middle of it.
 */
function byShare(row: readonly Match[], after: Match | undefined, notes: readonly Note[]): TimeOf | null {
  const parts = row.flatMap((match) => match.parts);
  const next = after?.parts[0];
  const first = row[0]!.group;
  const last = row[row.length - 1]!.group;
  const start = notes[parts[0]!]!.startSeconds;
  const end = next === undefined ? notes[parts[parts.length - 1]!]!.endSeconds : notes[next]!.startSeconds;
  const endBeat = next === undefined ? last.startBeat + last.beats : after!.group.startBeat;
  if (end <= start) return null;
  const pace = (end - start) / (endBeat - first.startBeat);
  const heardPace = next === undefined ? paceOf(row, notes) : pace;
  if (!(Math.abs(pace - heardPace) <= PACE_SHARE * heardPace)) return null;
  return (beat) => start + pace * (beat - first.startBeat);
}

/** Seconds a beat from each note that was found to the next; NaN of fewer than two. */
function paceOf(row: readonly Match[], notes: readonly Note[]): Seconds {
  const found = row.flatMap(({ group: { startBeat }, parts: [first] }) =>
    first === undefined ? [] : [{ startBeat, startSeconds: notes[first]!.startSeconds }],
  );
  return median(pairs(found, (a, b) => (b.startSeconds - a.startSeconds) / (b.startBeat - a.startBeat)));
}
