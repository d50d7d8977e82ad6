import { quantile } from '@/core/base';
import type { Seconds } from '@/core/tuning';
import type { Interruption } from './interruptions';
import type { Line } from './line';

/** Partials are watched falling over this many frames, and growing over that many. */
const FALL_FRAMES = 4;
const RISE_FRAMES = 6;
const LEAST_RISE_DB = 1;
/** A stop and the start after it are no further apart, and two starts no nearer. */
const REACH: Seconds = 0.13;
const APART: Seconds = 0.1;
const AROUND: Seconds = 0.3;
const USUAL_QUANTILE = 0.1;
/** The rise is found so many frames after the tone begins: it is seen through two windows. */
const SEEN_LATE = 2.8;

/**
 * What each thing that is seen around a possible start weighs, in log-odds: fitted by logistic regression to 1300 starts, and 6400
 * moments that look like one, of simulated players on eight instruments in dry, living and bad rooms.
 */
const WEIGHTS = {
  any: -3.2,
  /** How far the partials grow, dB up to 8, and how new it is, up to 1. */
  rise: 0.82,
  newness: 7.61,
  /** How new the frames around always are: where the pitch swings in a room nothing ever carries on. */
  usual: -26.7,
  /** How far they fell just before, dB down to −6, and how new that was, up to 1. */
  fall: -0.48,
  stopNewness: 2.08,
  /** How new the frames before the stop were, and the calmest between stop and start. */
  before: -6.71,
  between: -5.44,
  /** Frames from the stop to the start. */
  distance: -0.18,
} as const;
/** Log-odds from which one start is believed by itself; with company in the same tone, from which others are too. */
const BELIEVED = 1.5;
const BELIEVED_WITH = { others: 2, odds: -1 } as const;

interface Candidate {
  readonly stop: number;
  readonly at: number;
  readonly odds: number;
}

/**
 * Where a tone of one pitch was begun again between two frames: the tongue stops it and lets it go, and in a room that rings
 * on the level may hardly tell. A stop and a start are moments of newness between stretches that carry on; echoes that add up
 * differently while the pitch swings are never quite new and never quite old.
 */
export function interruptionsWithin(line: Line, from: number, to: number, hop: Seconds): Interruption[] {
  const apart = Math.round(APART / hop);
  const candidates = candidatesIn(line, from, to, hop);
  const sure = candidates.filter(({ odds }) => odds > BELIEVED).length;
  const needed = sure >= BELIEVED_WITH.others ? BELIEVED_WITH.odds : BELIEVED;
  const likely = candidates.filter(({ odds }) => odds > needed);
  // Of two that cannot both be, the likelier.
  return likely
    .filter(({ at, odds }) => likely.every((other) => Math.abs(other.at - at) >= apart || other.odds <= odds))
    .map(({ stop, at }) => ({ from: stop, to: Math.max(stop + 1, Math.round(at - SEEN_LATE)) }));
}

function candidatesIn(line: Line, from: number, to: number, hop: Seconds): Candidate[] {
  const { newness, growthDb } = line;
  const count = to - from;
  const reach = Math.round(REACH / hop);
  const around = Math.round(AROUND / hop);
  const found: Candidate[] = [];
  if (count < reach) return found;
  const novel = Float64Array.from({ length: count }, (_, i) => {
    const value = newness[from + i]!;
    // No pitch in the window of either frame: nothing is carried on.
    return Number.isNaN(value) ? 1 : value;
  });
  // Growth is read over two frames, so that neighbours count everything twice.
  const grown = (i: number, frames: number) => {
    let sum = 0;
    for (let k = i; k < Math.min(count, i + frames); k++) sum += growthDb[from + k]! || 0;
    return sum / 2;
  };
  const rises = Float64Array.from({ length: count }, (_, i) => grown(i, RISE_FRAMES));
  const falls = Float64Array.from({ length: count }, (_, i) => grown(i, FALL_FRAMES));
  const most = (a: number, b: number) => {
    let value = 0;
    for (let k = Math.max(0, a); k < Math.min(count, b); k++) value = Math.max(value, novel[k]!);
    return value;
  };
  for (let i = 16; i < count - 3; i++) {
    if (rises[i]! < LEAST_RISE_DB || !isTop(rises, i)) continue;
    let stop = -1;
    let clearest = -Infinity;
    for (let s = Math.max(2, i - reach); s < i - 2; s++) {
      const clear = 8 * (most(s - 1, s + 5) - most(s - 4, s - 1)) - falls[s]!;
      if (clear <= clearest) continue;
      clearest = clear;
      stop = s;
    }
    let between = Infinity;
    for (let k = stop + 3; k <= i; k++) between = Math.min(between, novel[k]!);
    const usual = quantile(
      novel.subarray(Math.max(0, i - around), Math.min(count, i + around)),
      USUAL_QUANTILE,
    );
    const odds =
      WEIGHTS.any +
      WEIGHTS.rise * Math.min(8, rises[i]!) +
      WEIGHTS.newness * Math.min(1, most(i, i + RISE_FRAMES)) +
      WEIGHTS.usual * Math.min(0.6, usual) +
      WEIGHTS.fall * Math.max(-6, falls[stop]!) +
      WEIGHTS.stopNewness * Math.min(1, most(stop - 1, stop + 5)) +
      WEIGHTS.before * Math.min(1, most(stop - 4, stop - 1)) +
      WEIGHTS.between * (between === Infinity ? 1 : between) +
      WEIGHTS.distance * (i - stop);
    found.push({ stop: from + stop, at: from + i, odds });
  }
  return found;
}

function isTop(values: Float64Array, i: number): boolean {
  for (let k = Math.max(0, i - 5); k <= Math.min(values.length - 1, i + 5); k++)
    if (values[k]! > values[i]!) return false;
  return true;
}
