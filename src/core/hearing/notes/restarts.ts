import { median, quantile } from '@/core/base';
import { midiToHertz, type Seconds } from '@/core/tuning';
import { hopMean } from './gaps';
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

/** Frames on each side over which the pitch is watched: one that swings makes echoes swing. */
const SWING_FRAMES = 40;
/** Frames before a stop in which the level was whole. */
const WHOLE_FRAMES = 6;

/**
 * What each thing that is seen around a possible start weighs, in log-odds: fitted by logistic regression to some 2000 starts, and
 * five times as many moments that look like one, of simulated players and of recorded instruments with and without vibrato, in
 * dry, living and bad rooms.
 */
const WEIGHTS = {
  any: -3.23,
  /** Span of the pitch around it, in tens of cents up to 6. */
  swing: -0.69,
  /** How far the partials grow, dB up to 8, and how new it is, up to 1. */
  rise: 0.52,
  newness: 5.74,
  /** How new the frames around always are: where the pitch swings in a room nothing ever carries on. */
  usual: -1.12,
  /** How far the partials fell just before, dB down to −6, how new that was, up to 1, and how far the level fell, dB up to 12. */
  fall: -0.13,
  stopNewness: 2.6,
  levelFall: 0.18,
  /** How new the frames before the stop were, and the calmest between stop and start. */
  before: -5.56,
  between: -3.95,
  /** Frames from the stop to the start. */
  distance: -0.24,
} as const;
/** How far the level falls at a stop where the room does not ring. */
const FALLS_DB = 7;
const FULL_STOP_DB = 18;
/** Cents between the ends of a swing. */
const FAR_SWING = 28;
/** A tone that begins again is nearly as loud as it was, within so many frames. */
const BACK_DB = 7;
const BACK_FRAMES = 14;
/** Log-odds from which one start is believed by itself; with company in the same tone, from which others are too. */
const BELIEVED = 1.8;
const BELIEVED_WITH = { others: 2, odds: 0 } as const;

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
export function interruptionsWithin(
  line: Line,
  from: number,
  to: number,
  hop: Seconds,
  rings: boolean,
): Interruption[] {
  const apart = Math.round(APART / hop);
  const candidates = candidatesIn(line, from, to, hop, rings);
  const sure = candidates.filter(({ odds }) => odds > BELIEVED).length;
  const needed = sure >= BELIEVED_WITH.others ? BELIEVED_WITH.odds : BELIEVED;
  const likely = candidates.filter(({ odds }) => odds > needed);
  // Of two that cannot both be, the likelier.
  return likely
    .filter(({ at, odds }) => likely.every((other) => Math.abs(other.at - at) >= apart || other.odds <= odds))
    .map(({ stop, at }) => ({ from: stop, to: Math.max(stop + 1, Math.round(at - SEEN_LATE)) }));
}

function candidatesIn(line: Line, from: number, to: number, hop: Seconds, rings: boolean): Candidate[] {
  const { newness, growthDb, pitch, hopDb } = line;
  const count = to - from;
  const reach = Math.round(REACH / hop);
  const around = Math.round(AROUND / hop);
  const found: Candidate[] = [];
  if (count < reach) return found;
  // At least a period of the tone.
  const smooth = Math.max(3, Math.ceil(1 / (midiToHertz(median(pitch.subarray(from, to))) * hop)) + 2);
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
    const near = pitch
      .subarray(Math.max(from, from + i - SWING_FRAMES), Math.min(to, from + i + SWING_FRAMES))
      .filter((p) => !Number.isNaN(p));
    const swing = near.length > 4 ? 100 * (quantile(near, 0.9) - quantile(near, 0.1)) : 0;
    const level = (a: number, z: number) =>
      Array.from({ length: z - a }, (_, k) => hopMean(hopDb, from + a + k, smooth));
    const whole = Math.max(...level(Math.max(0, stop - WHOLE_FRAMES), stop + 1));
    const levelFall = whole - Math.min(...level(stop, i + 2));
    // What has stopped and only rings on may waver, but it does not come back.
    if (Math.max(...level(i, Math.min(count, i + BACK_FRAMES))) < whole - BACK_DB) continue;
    // Where nothing rings, a stop is heard as one; where the pitch swings far, echoes make falls that only a full stop exceeds.
    if (levelFall < (rings ? (swing > FAR_SWING ? FULL_STOP_DB : 0) : FALLS_DB)) continue;
    const odds =
      WEIGHTS.any +
      WEIGHTS.swing * (Math.min(60, swing) / 10) +
      WEIGHTS.rise * Math.min(8, rises[i]!) +
      WEIGHTS.newness * Math.min(1, most(i, i + RISE_FRAMES)) +
      WEIGHTS.usual * Math.min(0.6, usual) +
      WEIGHTS.fall * Math.max(-6, falls[stop]!) +
      WEIGHTS.levelFall * Math.min(12, levelFall) +
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
