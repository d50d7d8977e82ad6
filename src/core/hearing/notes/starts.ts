import { bisector, mean } from 'd3-array';
import { clamp, type Decibels, median, type Seconds } from '@/core/base';
import { QUICK_PARTIALS } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';
import { logOdds, type Evidence } from './evidence';
import { hopMean } from './gaps';
import type { Start } from './inStep';
import { noveltyIn } from './line';
import { PitchMoves, type Movement } from './pitchMoves';
import type { Scene } from './scene';
import type { Doubt } from './replacement';

/** Partials are watched falling over this many frames, and growing over that many. */
const FALL_FRAMES = 4;
const RISE_FRAMES = 6;
const LEAST_RISE_DB = 1;
/** Nothing begins again so soon after it began. */
const FIRST_FRAME = 16;
/** A stop and the start after it are no further apart. */
const REACH: Seconds = 0.13;
/** Frames on each side in which it is looked how new everything is. */
const AROUND = 32;

/** Frames before a stop in which the level was whole, and after a start in which it is whole again. */
const WHOLE_FRAMES = 6;
const AGAIN_FRAMES = 10;
/** Partials so far under the strongest are left out; one that falls by more than this has fallen. */
const FAINT_DB = 30;
const FALLEN_DB = 2;
/** Those that are nearly as loud as it tell whether it is the same tone again. */
const STRONG_DB = 15;
/** What took the note's place begins no earlier before the stop, and ends no later after the start. */
const BESIDE = 8;

/** What is seen around a possible start: levels in dB. */
interface Seen {
  readonly partials: Partials;
  /** Most that the level rises in three frames. */
  readonly rise: Decibels;
  /** Lowest level between stop and start against what it was. */
  readonly lowest: Decibels;
  /** How new the start is, the frames just before the stop, the calmest frame between them, and all around it usually. */
  readonly novelty: number;
  readonly before: number;
  readonly between: number;
  readonly usual: number;
  /** Log-odds that something took the note's place instead. */
  readonly replaced: number;
  /** Frames from the stop to the start. */
  readonly apart: number;
  readonly moves: Movement;
}

/**
 * Fitted by logistic regression to some 17,000 starts of simulated and recorded instruments, two to six a second, and 7,000 moments
 * that look like one, in lines with and without faults, scales and long notes with and without vibrato, in living and bad rooms.
 * Which to use was chosen with one instrument of six held out. Growth and rise were fitted up to 10 and 12 dB; they go on counting as
 * much up to 16, which was tried on the same and on seam drills.
 */
const PRIOR = -4.19;
const EVIDENCE: readonly Evidence<Seen>[] = [
  { weight: 0.278, of: ({ partials }) => clamp(partials.growthDb, -6, 16) },
  { weight: -0.184, of: ({ partials }) => clamp(partials.growthDb, -6, 3) },
  { weight: 0.203, of: ({ rise }) => clamp(rise, 0, 16) },
  { weight: 4.59, of: ({ partials }) => partials.fallenShare },
  // What begins again is as it was.
  { weight: -0.211, of: ({ partials }) => clamp(partials.otherDb - 4, 0, 6) },
  { weight: -0.377, of: ({ lowest }) => clamp(lowest, -14, 0) },
  { weight: -0.351, of: ({ lowest }) => clamp(-4 - lowest, 0, 10) },
  { weight: 3.94, of: ({ novelty }) => Math.min(1, novelty) },
  { weight: -1.49, of: ({ before }) => Math.min(1, before) },
  { weight: -0.961, of: ({ between }) => between },
  // Where the pitch moves in a room, everything is new.
  { weight: -4.05, of: ({ usual }) => usual },
  { weight: 0.354, of: ({ replaced }) => clamp(replaced, -6, 4) },
  { weight: -1.452, of: ({ replaced }) => clamp(replaced + 1.5, 0, 5.5) },
  { weight: -0.298, of: ({ apart }) => Math.max(0, apart - 12) },
  { weight: -1.757, of: ({ moves }) => moves.speed },
  { weight: 0.503, of: ({ moves }) => moves.settling },
  { weight: -1.122, of: ({ moves }) => moves.widest },
  { weight: 0.606, of: ({ moves }) => moves.narrowest },
];
/** How far the level falls at a stop where the room does not ring. */
const FALLS_DB = 7;
/** A tone that begins again is nearly as loud as it was, within so many frames. */
const BACK_DB = 7;
const BACK_FRAMES = 14;

/**
 * Moments at which a tone of one pitch may have been stopped and begun again between two frames, in the order of time, with how likely
 * each is. @param doubts moments in which something else may have taken its place, in the order in which they begin.
 */
export function startsWithin(
  { line, frames: { hopSeconds: hop, quickPartials }, a4, rings }: Scene,
  from: number,
  to: number,
  doubts: readonly Doubt[],
): Start[] {
  const { growthDb, hopDb } = line;
  const count = to - from;
  const reach = Math.round(REACH / hop);
  const found: Start[] = [];
  if (count < reach) return found;
  const f0 = midiToHertz(median(line.pitch.subarray(from, to)), a4);
  // At least a period of the tone.
  const smooth = Math.max(3, Math.ceil(1 / (f0 * hop)) + 2);
  const novel = noveltyIn(line, from, to);
  const pitch = new PitchMoves(line.pitch.subarray(from, to), f0);
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
  for (let i = FIRST_FRAME; i < count - 3; i++) {
    if (rises[i]! < LEAST_RISE_DB || !isTop(rises, i)) continue;
    let stop = -1;
    let clearest = -Infinity;
    for (let s = Math.max(2, i - reach); s < i - 2; s++) {
      const clear = 8 * (most(s - 1, s + 5) - most(s - 4, s - 1)) - falls[s]!;
      if (clear <= clearest) continue;
      clearest = clear;
      stop = s;
    }
    const level = (a: number, z: number) =>
      Array.from({ length: Math.min(count, z) - a }, (_, k) => hopMean(hopDb, from + a + k, smooth));
    const whole = Math.max(...level(Math.max(0, stop - WHOLE_FRAMES), stop + 1));
    // What has stopped and only rings on may waver, but it does not come back.
    if (Math.max(...level(i, i + BACK_FRAMES)) < whole - BACK_DB) continue;
    // Where nothing rings, a stop is heard as one.
    if (!rings && whole - Math.min(...level(stop, i + 2)) < FALLS_DB) continue;
    let between = Infinity;
    for (let k = stop + 3; k <= i; k++) between = Math.min(between, novel[k]!);
    const odds = logOdds(PRIOR, EVIDENCE, {
      partials: partialsAround(quickPartials, from, stop, i, count),
      rise: fastestRise(level(stop, i + BACK_FRAMES + 1)),
      lowest: Math.min(...level(stop, i + 1)) - whole,
      novelty: most(i, i + RISE_FRAMES),
      before: most(stop - 4, stop - 1),
      between: between === Infinity ? 1 : between,
      usual: median(novel.subarray(Math.max(0, i - AROUND), Math.min(count, i + AROUND))),
      replaced: mostLikely(doubts, from + stop, from + i),
      apart: i - stop,
      moves: pitch.around(stop, i),
    });
    found.push({ stop: from + stop, at: from + i, odds });
  }
  return found;
}

/** The likeliest of what may have taken the note's place between a stop and a start. */
function mostLikely(doubts: readonly Doubt[], stop: number, at: number): number {
  let odds = -Infinity;
  for (let i = byBeginning.right(doubts, stop - BESIDE); i < doubts.length && doubts[i]!.from < at; i++) {
    const { to, odds: here } = doubts[i]!;
    if (to > stop + 3 && to < at + BESIDE) odds = Math.max(odds, here);
  }
  return odds;
}

const byBeginning = bisector(({ from }: Doubt) => from);

interface Partials {
  readonly fallenShare: number;
  readonly growthDb: Decibels;
  /** How far they are from what they were when it is whole again. */
  readonly otherDb: Decibels;
}

/** How the partials that matter fall before a start and grow at it. @param from frame that `stop`, `at` and `count` are counted from. */
function partialsAround(
  quickPartials: Float32Array,
  from: number,
  stop: number,
  at: number,
  count: number,
): Partials {
  const dB = (i: number, k: number) =>
    20 * Math.log10(quickPartials[QUICK_PARTIALS * (from + i) + k]! + 1e-9);
  const over = (a: number, z: number, k: number, pick: (...values: number[]) => number) => {
    let value = dB(a, k);
    for (let i = a + 1; i < Math.min(count, z); i++) value = pick(value, dB(i, k));
    return value;
  };
  const first = Math.max(0, stop - WHOLE_FRAMES);
  const partials = Array.from({ length: QUICK_PARTIALS }, (_, k) => ({
    was: over(first, stop + 1, k, Math.max),
    is: over(at, at + AGAIN_FRAMES, k, Math.max),
    most: over(first, at + AGAIN_FRAMES, k, Math.max),
    least: over(stop, at + 2, k, Math.min),
    growth: dB(Math.min(count - 1, at + 4), k) - dB(Math.max(0, at - 2), k),
  }));
  const within = (db: Decibels) => {
    const strongest = Math.max(...partials.map(({ most }) => most));
    return partials.filter(({ most }) => most > strongest - db);
  };
  const audible = within(FAINT_DB);
  return {
    fallenShare: audible.filter(({ was, least }) => was - least > FALLEN_DB).length / audible.length,
    growthDb: mean(audible, ({ growth }) => growth)!,
    otherDb: mean(within(STRONG_DB), ({ was, is }) => Math.abs(is - was))!,
  };
}

/** Most that a level rises in three frames. */
function fastestRise(level: readonly number[]): number {
  let fastest = 0;
  for (let i = 3; i < level.length; i++) fastest = Math.max(fastest, level[i]! - level[i - 3]!);
  return fastest;
}

function isTop(values: Float64Array, i: number): boolean {
  for (let k = Math.max(0, i - 5); k <= Math.min(values.length - 1, i + 5); k++)
    if (values[k]! > values[i]!) return false;
  return true;
}
