import type { Midi, Seconds } from '@/core/base';
import { areModesApart, type Instrument } from '@/core/instruments';
import type { Group } from './groups';

/** A note as far as matching needs to know of it. */
export interface Sounded {
  readonly startSeconds: Seconds;
  /** Sounding pitch; its fraction is not asked for. */
  readonly midi: Midi;
  /** How long it lasted; a brief one is more easily one too many. Infinity while it still sounds. */
  readonly seconds: Seconds;
  /** No silence lies between it and the note before. */
  readonly joined: boolean;
}

export interface AlignerOptions {
  readonly groups: readonly Group[];
  readonly instrument: Instrument;
  /** Where a group is to begin, by the beat; null in free time. */
  readonly expected: ((group: Group) => Seconds) | null;
  /** Length of a beat, seconds. */
  readonly beatSeconds: Seconds;
  /** Pitch is moved on purpose: neighbouring pitches are the same note. */
  readonly bending: boolean;
}

/** What one heard note is to the score. */
export type Role =
  | { readonly kind: 'note'; readonly group: number; readonly again: boolean }
  | { readonly kind: 'rest-of-note'; readonly group: number }
  | { readonly kind: 'extra' };

// Costs in units of one missed note, or nearly. What was tuned on: takes of all families with faults and wrong notes.
const MISSED = 0.75;
const EXTRA = 0.8;
const REST_OF_NOTE = 0.3;
const OTHER_MODE = 0.85;
const WRONG = { near: 0.95, far: 1.3, farther: 1.6 } as const;
const BACK = 1.7;
const BACK_TO_PHRASE = 1.25;
const FURTHEST_SKIP = 12;
const LEAP = 4;
/** Of a semitone between quarter and half: where quarter-tones are asked, the nearer one is meant. */
const OFF_PITCH = 0.2;
/** A note that is more than this far from an asked one, in semitones, is another note. */
export const SAME = 0.75;
const OFF_BEAT = 0.5;
const OFF_TIME = 1.5;
const MOST_OFF_TIME = 1.1;
/** Time added to both sides before intervals are compared, so that short ones may differ by a little. */
const SOFTENING: Seconds = 0.05;
const BENT_SEMITONES = 4.5;
/** In an hour of music only so many groups about the place that was reached are asked, most of them behind it. */
const MOST_AT_ONCE = 800;
const BEHIND = 560;

/** Costs of the groups of a window, beginning with group `start`. */
interface Column {
  readonly start: number;
  readonly cost: Float64Array;
  readonly extra: Float64Array;
  /** Group that was reached before, by group; REST where this note goes on the same one, START where it is the first. */
  readonly from: Int32Array;
}

/** The column's cheaper way to each of its groups. */
const cheaper = ({ cost, extra }: Column) => cost.map((each, k) => Math.min(each, extra[k]!));

const REST = -1;
const START = -2;

/**
 * Follows a score note by note: dynamic programming over (heard note, place in the score), as a first-order Viterbi search.
 * Notes may be missed, added, wrong, in another mode, split in two, and passages may be begun again. The same search serves
 * while playing (`place` after every note) and afterwards (`roles`).
 */
export class Aligner {
  private readonly columns: Column[] = [];
  private readonly notes: Sounded[] = [];
  /** Distances in semitones that are another mode's: asked for every note and group, worked out once each. */
  private readonly modes = new Map<number, boolean>();

  constructor(private readonly options: AlignerOptions) {}

  push(note: Sounded): void {
    const { groups } = this.options;
    const before = this.columns[this.columns.length - 1];
    const previous = this.notes[this.notes.length - 1];
    const best = before ? cheaper(before) : null;
    const bestFrom = before?.start ?? 0;
    const bestTo = bestFrom + (best?.length ?? 0);
    const reached = (j: number) => (j < bestFrom || j >= bestTo ? Infinity : best![j - bestFrom]!);
    const cheapest = best ? bestFrom + indexOfLeast(best) : 0;
    const count = Math.min(groups.length, MOST_AT_ONCE);
    const start = Math.min(groups.length - count, Math.max(0, cheapest - BEHIND));
    const column: Column = {
      start,
      cost: new Float64Array(count).fill(Infinity),
      extra: new Float64Array(count).fill(Infinity),
      from: new Int32Array(count).fill(START),
    };
    // A brief sound is easily one too many: a finger, a breath.
    const extra = EXTRA * Math.min(1, 0.35 + note.seconds / 0.4);
    for (let k = 0; k < count; k++) {
      const j = start + k;
      const group = groups[j]!;
      const unlike = this.unlike(group, note);
      let cost: number;
      let from = START;
      if (!best || !previous) cost = Math.min(j * MISSED, LEAP) + this.offBeat(group, note);
      else {
        cost = Infinity;
        const take = (candidate: number, j0: number) => {
          if (candidate < cost) {
            cost = candidate;
            from = j0;
          }
        };
        for (let j0 = Math.max(bestFrom, j - FURTHEST_SKIP); j0 < Math.min(j, bestTo); j0++)
          take(
            best[j0 - bestFrom]! + (j - j0 - 1) * MISSED + this.offTime(groups[j0]!, group, previous, note),
            j0,
          );
        if (cheapest < j - FURTHEST_SKIP) take(reached(cheapest) + LEAP, cheapest);
        if (cheapest >= j) {
          const atPhrase = j === 0 || groups[j - 1]!.phrase !== group.phrase;
          take(reached(cheapest) + (atPhrase ? BACK_TO_PHRASE : BACK), cheapest);
        }
        cost += this.offBeat(group, note);
      }
      cost += unlike;
      if (best && previous && this.goesOn(group, previous, note)) {
        const rest = reached(j) + REST_OF_NOTE;
        if (rest < cost) {
          cost = rest;
          from = REST;
        }
      }
      column.cost[k] = cost;
      column.from[k] = from;
      column.extra[k] = best ? reached(j) + extra : Math.min(j * MISSED, LEAP) + extra + MISSED;
    }
    this.columns.push(column);
    this.notes.push(note);
  }

  /** The group that was last reached, most likely; −1 before anything fitting has been heard. */
  get place(): number {
    const last = this.columns[this.columns.length - 1];
    if (!last) return -1;
    const matched = indexOfLeast(last.cost);
    const left = indexOfLeast(last.extra);
    if (last.cost[matched]! <= last.extra[left]!) return last.start + matched;
    return this.roles().some((role) => role.kind !== 'extra') ? last.start + left : -1;
  }

  /** What each heard note was, in order. */
  roles(): Role[] {
    const roles: Role[] = [];
    const last = this.columns.length - 1;
    if (last < 0) return [];
    const isExtraAt = ({ start, cost, extra }: Column, group: number) =>
      extra[group - start]! < cost[group - start]!;
    const { start } = this.columns[last]!;
    const ends = cheaper(this.columns[last]!).map((each, k) => each + this.leftOver(start + k));
    let j = start + indexOfLeast(ends);
    let isExtra = isExtraAt(this.columns[last]!, j);
    for (let i = last; i >= 0; i--) {
      const column = this.columns[i]!;
      const from = column.from[j - column.start]!;
      const before = this.columns[i - 1];
      if (isExtra) roles.push({ kind: 'extra' });
      else if (from === REST) roles.push({ kind: 'rest-of-note', group: j });
      else {
        roles.push({ kind: 'note', group: j, again: from >= j });
        if (from >= 0) j = from;
      }
      if (before) isExtra = isExtraAt(before, j);
    }
    return roles.reverse();
  }

  /** What it costs that nothing is heard after a group: the take may have been stopped there, but not before its last note. */
  private leftOver(reached: number): number {
    const { groups, expected } = this.options;
    const end = this.notes[this.notes.length - 1]!.startSeconds;
    let due = 0;
    let open = 0;
    for (const group of groups.slice(reached + 1)) {
      if (expected && expected(group) <= end) due++;
      else open++;
    }
    return due * MISSED + Math.min(2, 0.2 * open);
  }

  /** How little a heard pitch is like the one that is asked. */
  private unlike(group: Group, note: Sounded): number {
    const away = note.midi - group.sounding;
    const distance = Math.abs(away);
    if (this.options.bending && distance < BENT_SEMITONES) return 0;
    if (distance < SAME) return OFF_PITCH * Math.max(0, distance - 0.25);
    if (distance <= 2) return WRONG.near;
    return this.isMode(away) ? OTHER_MODE : distance <= 5 ? WRONG.far : WRONG.farther;
  }

  private isMode(away: number): boolean {
    const known = this.modes.get(away) ?? areModesApart(this.options.instrument, away);
    this.modes.set(away, known);
    return known;
  }

  private goesOn(group: Group, previous: Sounded, note: Sounded): boolean {
    const reach = this.options.bending ? BENT_SEMITONES : 0.5;
    return note.joined || this.options.bending
      ? Math.abs(note.midi - previous.midi) < 0.5 || Math.abs(note.midi - group.sounding) < reach
      : Math.abs(note.midi - group.sounding) < 0.5;
  }

  private offBeat(group: Group, note: Sounded): number {
    const { expected, beatSeconds } = this.options;
    if (!expected) return 0;
    return OFF_BEAT * Math.min(1, Math.abs(note.startSeconds - expected(group)) / Math.max(0.5, beatSeconds));
  }

  /** How unlike the asked interval of time the heard one is; where a breath is taken, nothing is asked. */
  private offTime(from: Group, to: Group, previous: Sounded, note: Sounded): number {
    const { expected } = this.options;
    if (!expected || from.phrase !== to.phrase) return 0;
    const heard = note.startSeconds - previous.startSeconds;
    const asked = expected(to) - expected(from);
    const off = Math.abs(Math.log((heard + SOFTENING) / (asked + SOFTENING)));
    return Math.min(MOST_OFF_TIME, OFF_TIME * off);
  }
}

function indexOfLeast(values: Float64Array): number {
  let least = 0;
  for (let i = 1; i < values.length; i++) if (values[i]! < values[least]!) least = i;
  return least;
}
