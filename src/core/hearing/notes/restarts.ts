import { mean } from 'd3-array';
import { clamp, median } from '@/core/base';
import { QUICK_PARTIALS } from '@/core/hearing/signal';
import { midiToHertz, type Decibels, type Seconds } from '@/core/tuning';
import { evidenceOfSwing } from './echoedVibrato';
import { hopMean } from './gaps';
import { inStep, likeliest, type Start } from './inStep';
import { newnessIn } from './line';
import { PitchMoves } from './pitchMoves';
import { swingIn, vibratoIn } from './vibrato';
import type { Doubt } from './replacements';
import type { Scene } from './scene';

/** Partials are watched falling over this many frames, and growing over that many. */
const FALL_FRAMES = 4;
const RISE_FRAMES = 6;
const LEAST_RISE_DB = 1;
/** Nothing begins again so soon after it began. */
const FIRST_FRAME = 16;
/** A stop and the start after it are no further apart, and two starts no nearer. */
const REACH: Seconds = 0.13;
const APART: Seconds = 0.1;
/** Frames on each side in which it is looked how new everything is. */
const AROUND = 32;
/** The rise is found so many frames after the tone begins: it is seen through two windows. */
const SEEN_LATE = 2.8;

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

/**
 * What each thing that is seen around a possible start weighs, in log-odds: fitted by logistic regression to some 17,000 starts of
 * simulated and recorded instruments, two to six a second, and 7,000 moments that look like one, in lines with and without faults,
 * scales and long notes with and without vibrato, in living and bad rooms. Which to use was chosen with one instrument of six held out.
 */
const WEIGHTS = {
  any: -4.19,
  /** How far the partials grow, dB from −6 to 10, what of it is under 3 dB, how new it is, up to 1, and how fast the level rises, dB in three frames. */
  growth: 0.278,
  lowGrowth: -0.184,
  newness: 3.94,
  rise: 0.203,
  /** Share of the partials that had fallen before, and how new the frames just before that were. */
  fallen: 4.59,
  before: -1.49,
  /** Lowest level between stop and start against what it was, dB from −14, and what of it is under −4 dB. */
  lowest: -0.377,
  low: -0.351,
  /** How far the partials are from what they were once it is whole again, on average, dB from 4 to 10: what begins again is as it was. */
  other: -0.211,
  /** Log-odds that something took the note's place instead, from −6 to 4, and what of it is over −1.5. */
  replaced: 0.354,
  surelyReplaced: -1.452,
  /** The calmest frame between stop and start, and how new all around usually is: where the pitch moves in a room, everything is. */
  between: -0.961,
  usual: -4.05,
  /** Frames from the stop to the start, beyond twelve. */
  distance: -0.298,
  /** How the pitch moves around it: see PitchMoves. */
  slow: -1.757,
  settling: 0.503,
  most: -1.122,
  least: 0.606,
} as const;
/** How far the level falls at a stop where the room does not ring. */
const FALLS_DB = 7;
/** A tone that begins again is nearly as loud as it was, within so many frames. */
const BACK_DB = 7;
const BACK_FRAMES = 14;
/** Log-odds from which one start is believed by itself; with company in the same tone, from which others are too. */
const BELIEVED = { dry: 1.5, inEcho: 0.9 } as const;
/**
 * In a tone longer than this there are more moments that an echo may make look like one by chance: as much likelier it has to be, by
 * no more than this.
 */
const FEW_CHANCES: Seconds = 0.5;
const MOST_CHANCES = 0.6;
const BELIEVED_WITH = { others: 3, odds: -0.35 } as const;
/** Within a vibrato wider than repeated notes swing by themselves, it takes more. */
const BELIEVED_IN_SWING = { cents: 20, odds: 4 } as const;

/**
 * Where echoes swing the level of a vibrato, each of its swings looks like a start. A start is looked at again when the pitch swings by
 * so much of its variance, so wide, in the second around it; in a room that rings like most.
 */
const SWING = { share: 0.25, cents: 3, around: 1 } as const;
const USUAL_SPREAD: Decibels = 4;
/**
 * Log-odds that it takes for a swing: of pieces of vibratos that looked begun again nine of ten are over it, of notes begun again one of
 * ten (with vibrato) or of fifty (begun 25 cents low).
 */
const LEAST_EVIDENCE = 11;

/** Between these frames a tone of one pitch did not carry on: it was stopped and begun again. */
export interface Interruption {
  readonly from: number;
  readonly to: number;
}

/**
 * Where a tone of one pitch was begun again between two frames: the tongue stops it and lets it go, and in a room that rings
 * on the level may hardly tell. A stop and a start are moments of newness between stretches that carry on. Echoes add up
 * differently as soon as the pitch moves by some hertz, and then a tone that goes on is new in every frame: what is seen is held
 * against how the pitch moves there.
 */
export function interruptionsWithin(
  scene: Scene,
  from: number,
  to: number,
  doubts: readonly Doubt[],
): Interruption[] {
  const { line, frames, rings } = scene;
  const apart = Math.round(APART / frames.hopSeconds);
  const candidates = candidatesIn(scene, from, to, doubts);
  const believed = BELIEVED[rings ? 'inEcho' : 'dry'];
  const sure = candidates.filter(({ odds }) => odds > believed).length;
  const vibrato = sure > 0 ? vibratoIn(line.pitch.subarray(from, to), frames.hopSeconds) : null;
  const needed =
    vibrato && vibrato.extentCents > BELIEVED_IN_SWING.cents
      ? BELIEVED_IN_SWING.odds
      : sure >= BELIEVED_WITH.others
        ? BELIEVED_WITH.odds
        : believed +
          (rings ? clamp(Math.log(((to - from) * frames.hopSeconds) / FEW_CHANCES), 0, MOST_CHANCES) : 0);
  const likely = likeliest(
    candidates.filter(({ odds }) => odds > needed),
    apart,
  );
  // Where nothing rings every start is heard by itself.
  const regular = rings && !vibrato ? inStep(from, candidates, apart) : [];
  const starts = likeliest([...new Set([...likely, ...regular])], apart);
  const swings = rings ? swingsAmong(starts, scene, { from, to }) : new Set<Start>();
  // Where most are, the others are too.
  if (swings.size > 0 && 2 * swings.size >= starts.length) return [];
  return starts
    .filter((start) => !swings.has(start))
    .sort((a, b) => a.at - b.at)
    .map(({ stop, at }) => ({ from: stop, to: Math.max(stop + 1, Math.round(at - SEEN_LATE)) }));
}

/** Which of what look like starts are swings of a vibrato. */
function swingsAmong(
  starts: readonly Start[],
  { line, frames, a4, decaySeconds }: Scene,
  { from, to }: Interruption,
): ReadonlySet<Start> {
  const length = Math.min(to - from, Math.round(SWING.around / frames.hopSeconds));
  const evidence = starts.map(({ at }) => {
    const first = clamp(at - (length >> 1), from, to - length);
    const pitch = line.pitch.subarray(first, first + length);
    const { swing, share } = swingIn(pitch, frames.hopSeconds);
    if (share < SWING.share || swing.extentCents < SWING.cents) return 0;
    const hertz = pitch.map((semitones) => midiToHertz(semitones, a4));
    return evidenceOfSwing(frames, hertz, first, swing, { decaySeconds, spreadDb: USUAL_SPREAD });
  });
  // Of a tone that lasts for several stretches each tells by itself.
  const ofAll = (mean(evidence) ?? 0) * ((to - from) / length);
  return new Set(starts.filter((_, i) => Math.max(evidence[i]!, ofAll) > LEAST_EVIDENCE));
}

function candidatesIn(
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
  const novel = newnessIn(line, from, to);
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
    const partials = partialsAround(quickPartials, from, stop, i, count);
    let between = Infinity;
    for (let k = stop + 3; k <= i; k++) between = Math.min(between, novel[k]!);
    const lowest = clamp(Math.min(...level(stop, i + 1)) - whole, -14, 0);
    const replaced = clamp(mostLikely(doubts, from + stop, from + i), -6, 4);
    const odds =
      WEIGHTS.any +
      WEIGHTS.growth * clamp(partials.growthDb, -6, 10) +
      WEIGHTS.lowGrowth * Math.min(3, clamp(partials.growthDb, -6, 10)) +
      WEIGHTS.newness * Math.min(1, most(i, i + RISE_FRAMES)) +
      WEIGHTS.rise * clamp(fastestRise(level(stop, i + BACK_FRAMES + 1)), 0, 12) +
      WEIGHTS.fallen * partials.fallenShare +
      WEIGHTS.before * Math.min(1, most(stop - 4, stop - 1)) +
      WEIGHTS.lowest * lowest +
      WEIGHTS.low * Math.max(0, -4 - lowest) +
      WEIGHTS.other * Math.max(0, Math.min(10, partials.otherDb) - 4) +
      WEIGHTS.replaced * replaced +
      WEIGHTS.surelyReplaced * Math.max(0, replaced + 1.5) +
      WEIGHTS.between * (between === Infinity ? 1 : between) +
      WEIGHTS.usual * median(novel.subarray(Math.max(0, i - AROUND), Math.min(count, i + AROUND))) +
      WEIGHTS.distance * Math.max(0, i - stop - 12) +
      pitch.weigh(WEIGHTS, stop, i);
    found.push({ stop: from + stop, at: from + i, odds });
  }
  return found;
}

/** The likeliest of what may have taken the note's place between a stop and a start. */
function mostLikely(doubts: readonly Doubt[], stop: number, at: number): number {
  let odds = -Infinity;
  for (const doubt of doubts)
    if (doubt.from > stop - BESIDE && doubt.from < at && doubt.to > stop + 3 && doubt.to < at + BESIDE)
      odds = Math.max(odds, doubt.odds);
  return odds;
}

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
