import { median, quantile } from '@/core/base';
import { midiToHertz, type Seconds } from '@/core/tuning';
import { hopMean } from './gaps';
import { newnessIn, type Line } from './line';

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

/** Frames before the stop, and after the start has settled, over which the pitch is watched: one that swings makes echoes swing. */
const SWING_FRAMES = 26;
const SETTLES_FRAMES = 9;
const MOST_SWING = 60;
/** Frames before a stop in which the level was whole. */
const WHOLE_FRAMES = 6;

/**
 * What each thing that is seen around a possible start weighs, in log-odds: fitted by logistic regression to some 5000 starts of ten
 * simulated instruments, two to six a second, and four times as many moments that look like one, in lines and in held notes
 * with vibrato, in dry, living and bad rooms; half of the instruments were held out while it was chosen.
 */
const WEIGHTS = {
  any: -1.75,
  /** Span of the pitch beside it, in tens of cents up to 6. */
  swing: -1.41,
  /** How far the partials grow, dB up to 8, and how new it is, up to 1. */
  rise: 0.25,
  newness: 5.8,
  /** How new the frames around always are: where the pitch swings in a room nothing ever carries on. */
  usual: -13.4,
  /** How far the partials fell just before, dB down to −6, and how new that was, up to 1. */
  fall: -0.34,
  stopNewness: 5.81,
  /** How new the frames just before the stop were, those well before it and well after the start, and the calmest between the two. */
  before: -6.52,
  wellBefore: -2.29,
  wellAfter: -1.52,
  between: -3.74,
  /** Frames from the stop to the start. */
  distance: -0.07,
} as const;
/** How far the level falls at a stop where the room does not ring. */
const FALLS_DB = 7;
/** A tone that begins again is nearly as loud as it was, within so many frames. */
const BACK_DB = 7;
const BACK_FRAMES = 14;
/** Log-odds from which one start is believed by itself; with company in the same tone, from which others are too. */
const BELIEVED = 1;
const BELIEVED_WITH = { others: 3, odds: -0.7 } as const;

/** Between these frames a tone of one pitch did not carry on: it was stopped and begun again. */
export interface Interruption {
  readonly from: number;
  readonly to: number;
}

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
  const { growthDb, pitch, hopDb } = line;
  const count = to - from;
  const reach = Math.round(REACH / hop);
  const around = Math.round(AROUND / hop);
  const found: Candidate[] = [];
  if (count < reach) return found;
  // At least a period of the tone.
  const smooth = Math.max(3, Math.ceil(1 / (midiToHertz(median(pitch.subarray(from, to))) * hop)) + 2);
  const novel = newnessIn(line, from, to);
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
    const swingFrom = (a: number) =>
      swingOf(pitch, Math.max(from, from + a), Math.min(to, from + a + SWING_FRAMES));
    // A vibrato goes on; between quick notes one of the two sides holds a stop.
    const swing = Math.min(MOST_SWING, swingFrom(stop - 2 - SWING_FRAMES), swingFrom(i + SETTLES_FRAMES));
    const level = (a: number, z: number) =>
      Array.from({ length: z - a }, (_, k) => hopMean(hopDb, from + a + k, smooth));
    const whole = Math.max(...level(Math.max(0, stop - WHOLE_FRAMES), stop + 1));
    const levelFall = whole - Math.min(...level(stop, i + 2));
    // What has stopped and only rings on may waver, but it does not come back.
    if (Math.max(...level(i, Math.min(count, i + BACK_FRAMES))) < whole - BACK_DB) continue;
    // Where nothing rings, a stop is heard as one.
    if (!rings && levelFall < FALLS_DB) continue;
    const odds =
      WEIGHTS.any +
      WEIGHTS.swing * (swing / 10) +
      WEIGHTS.rise * Math.min(8, rises[i]!) +
      WEIGHTS.newness * Math.min(1, most(i, i + RISE_FRAMES)) +
      WEIGHTS.usual * Math.min(0.6, usual) +
      WEIGHTS.fall * Math.max(-6, falls[stop]!) +
      WEIGHTS.stopNewness * Math.min(1, most(stop - 1, stop + 5)) +
      WEIGHTS.before * Math.min(1, most(stop - 4, stop - 1)) +
      WEIGHTS.wellBefore * Math.min(1, most(stop - 12, stop - 5)) +
      WEIGHTS.wellAfter * Math.min(1, most(i + RISE_FRAMES + 2, i + RISE_FRAMES + 12)) +
      WEIGHTS.between * (between === Infinity ? 1 : between) +
      WEIGHTS.distance * (i - stop);
    found.push({ stop: from + stop, at: from + i, odds });
  }
  return found;
}

/** Cents between the ends of the swing of a pitch over some frames; the most where they are too few to tell. */
function swingOf(pitch: Float64Array, from: number, to: number): number {
  const known = pitch.subarray(from, Math.max(from, to)).filter((p) => !Number.isNaN(p));
  return known.length > 6 ? 100 * (quantile(known, 0.9) - quantile(known, 0.1)) : MOST_SWING;
}

function isTop(values: Float64Array, i: number): boolean {
  for (let k = Math.max(0, i - 5); k <= Math.min(values.length - 1, i + 5); k++)
    if (values[k]! > values[i]!) return false;
  return true;
}
