import { clamp, leastSquares, median, quantile } from '@/core/base';
import { QUICK_PARTIALS, type Frames } from '@/core/hearing/signal';
import type { Decibels, Seconds } from '@/core/tuning';
import { hopMean } from './gaps';
import { isInPlace } from './isInPlace';
import type { Plateau, Replaced } from './plateaus';

/**
 * Partials of a mode m times higher are every m-th of the note. Where their balance against the others is over the usual by this, and
 * by so much more than it ever is beside it, a moment is looked at.
 */
const SHIFT_DB: Decibels = 4;
const OVER_USUAL = 2;
/** It is coming, and going, while the balance is within this of its limit. */
const COMES_DB: Decibels = 3;
const SHORTEST: Seconds = 0.02;
const LONGEST: Seconds = 0.3;
/** At a note's ends the room is still filling, or emptying. */
const EDGE: Seconds = 0.08;
/** Frames before it, or after it, that it is held against. */
const BESIDE = 14;
/** Frames about its ends in which it may begin, or end. */
const NEAR = 4;
const MULTIPLES = [2, 3] as const;

/**
 * What is seen of such a moment, in log-odds: fitted by logistic regression to 460 breaks and 2,900 other moments (slurs, tongued and
 * repeated notes, held ones, without fault) of eight simulated instruments in living and bad rooms; each instrument was told by
 * the others. Levels in dB.
 */
const WEIGHTS = {
  any: -6.92,
  /** How much the balance always varies, up to 4. */
  spread: -1.03,
  /** How far the mode's partials have grown over what they usually are, −6 to 12: what takes a note's place is as loud as it was. */
  grown: 0.57,
  /** How much the one that grew most has grown, −5 to 15. */
  mostGrown: 0.18,
  /** How far they fall after it, −5 to 12, and by how much that differs from how they grew, up to 10: the note comes back as it was. */
  fallsBack: -0.18,
  differs: -0.26,
  /** How new its first and its last moment are, up to 1. */
  begins: 2.34,
  ends: 3.49,
  /** 1 where it begins and ends anew, and the sound beside it is as loud: see `isInPlace`. */
  inPlace: 1.63,
  /** How fast the note's other partials grow meanwhile, hundreds of dB a second, −2 to 2: they are left to the room, and fall. */
  slope: -0.24,
  /** How far the sound falls beyond 3 dB, up to 5: a tongue makes a pause. */
  pause: -0.92,
  /** How long it lasts, 0.03 to 0.2 seconds. */
  length: 11.9,
} as const;
const TOLD_FROM = 0.2;
/** What takes a note's place is as loud as the note was, to within this. */
const AS_LOUD: Decibels = -7;
const PAUSE_DB: Decibels = 3;

/**
 * Moments in a held note in which a mode two or three times higher took its place while its echo kept its pitch: all that can be
 * found of them is that the partials which the mode has grow, and those which it lacks are left to the room.
 * @param modes pitches that could take the place of a note, MIDI numbers.
 */
export function hiddenModes(note: Plateau, modes: readonly number[], frames: Frames): Replaced[] {
  const hop = frames.hopSeconds;
  const edge = Math.round(EDGE / hop);
  const from = note.from + edge;
  const to = note.to - edge;
  if (to - from < 4 * edge) return [];
  return MULTIPLES.flatMap((m) => {
    const pitch = note.pitch + 12 * Math.log2(m);
    if (!modes.some((mode) => Math.abs(mode - pitch) < 0.5)) return [];
    const balances = balancesOf(frames, from, to, m);
    const { balance } = balances;
    const usual = median(balance);
    const spread = median(balance.map((value) => Math.abs(value - usual)));
    const limit = usual + Math.max(SHIFT_DB, OVER_USUAL * spread);
    const found: Replaced[] = [];
    for (let i = 0; i < balance.length; i++) {
      if (!(balance[i]! > limit)) continue;
      let end = i;
      while (end < balance.length && balance[end]! > limit) end++;
      const comes = balance.subarray(0, i).findLastIndex((value) => value <= limit - COMES_DB) + 1;
      const gone = balance.subarray(end).findIndex((value) => value <= limit - COMES_DB);
      const goes = gone < 0 ? balance.length : end + gone;
      const seconds = (goes - comes) * hop;
      // What does not go again is the next note.
      const isMoment = seconds >= SHORTEST && seconds <= LONGEST && goes < balance.length && end > i + 1;
      const odds = isMoment
        ? oddsOf({ comes, begun: i, end, goes }, balances, spread, m, from, frames)
        : -Infinity;
      if (odds > TOLD_FROM)
        found.push({
          from: from + comes,
          to: from + goes,
          pitch: Math.max(pitch, note.pitch + 12 * Math.log2(strongestPartial(frames, from + i, from + end))),
          joined: true,
          within: note,
          odds,
        });
      i = end;
    }
    return found;
  });
}

/** Frames in which a balance comes, is over its limit, is no longer so, and has gone. */
interface Moment {
  readonly comes: number;
  readonly begun: number;
  readonly end: number;
  readonly goes: number;
}

function oddsOf(
  { comes, begun, end, goes }: Moment,
  { shared, others, usual, usualOthers }: Balances,
  spread: Decibels,
  m: number,
  from: number,
  frames: Frames,
): number {
  const hop = frames.hopSeconds;
  const sounding = median(shared.subarray(begun, end));
  if (sounding < decibels(power(usual) + power(usualOthers)) + AS_LOUD) return -Infinity;
  const before = (of: Float64Array) => median(of.subarray(Math.max(0, comes - BESIDE), Math.max(1, comes)));
  // Whoever plays louder has more of every partial.
  if (median(others.subarray(begun, end)) > Math.min(usualOthers, before(others))) return -Infinity;
  const earlier = comes > 2 ? before(shared) : usual;
  const fallsBack = sounding - median(shared.subarray(goes, goes + BESIDE));
  const newest = (at: number) =>
    Math.max(
      ...frames.newness.subarray(at - NEAR, at + NEAR + 1).map((each) => (Number.isNaN(each) ? 1 : each)),
    );
  const level = (a: number, b: number) =>
    quantile(
      Array.from({ length: b - a }, (_, k) => hopMean(frames.hopDb, a + k, 3)),
      0.3,
    );
  const fell = level(from + begun - BESIDE, from + begun - 2) - level(from + begun, from + end + 2);
  const grew = growthOfPartials(frames, m, {
    from: from + Math.max(0, comes - BESIDE),
    to: from + Math.max(1, comes),
    begun: from + begun,
    end: from + end,
  });
  const meanwhile = Array.from(others.subarray(begun, end));
  const { slope } = leastSquares(
    meanwhile.map((_, k) => k * hop),
    meanwhile,
  );
  return (
    WEIGHTS.any +
    WEIGHTS.spread * clamp(spread, 0, 4) +
    WEIGHTS.grown * clamp(sounding - usual, -6, 12) +
    WEIGHTS.mostGrown * clamp(Math.max(...grew), -5, 15) +
    WEIGHTS.fallsBack * clamp(fallsBack, -5, 12) +
    WEIGHTS.differs * Math.min(10, Math.abs(sounding - earlier - fallsBack)) +
    WEIGHTS.begins * newest(from + comes) +
    WEIGHTS.ends * newest(from + goes) +
    WEIGHTS.inPlace * (isInPlace(frames, from + begun, from + end) ? 1 : 0) +
    WEIGHTS.slope * clamp(slope / 100, -2, 2) +
    WEIGHTS.pause * clamp(fell - PAUSE_DB, 0, 5) +
    WEIGHTS.length * clamp((goes - comes) * hop, 0.03, 0.2)
  );
}

const power = (dB: Decibels): number => 10 ** (dB / 10);
const decibels = (of: number): Decibels => 10 * Math.log10(of);

/** How far each m-th partial has grown in some frames over what it was in others, dB. */
function growthOfPartials(
  { quickPartials }: Frames,
  m: number,
  at: { readonly from: number; readonly to: number; readonly begun: number; readonly end: number },
): Decibels[] {
  const levelOf = (k: number, a: number, b: number): Decibels =>
    median(
      Array.from(
        { length: b - a },
        (_, i) => 20 * Math.log10(quickPartials[(a + i) * QUICK_PARTIALS + k - 1]! + 1e-7),
      ),
    );
  const grew: Decibels[] = [];
  for (let k = m; k <= QUICK_PARTIALS; k += m)
    grew.push(levelOf(k, at.begun, at.end) - levelOf(k, at.from, at.to));
  return grew;
}

/** Number of the partial that is strongest over most of some frames: all that is heard of a squeak that lies on it. */
export function strongestPartial({ quickPartials }: Frames, from: number, to: number): number {
  const times = new Uint16Array(QUICK_PARTIALS);
  for (let i = from; i < to; i++) {
    let top = 0;
    for (let k = 1; k < QUICK_PARTIALS; k++)
      if (quickPartials[i * QUICK_PARTIALS + k]! > quickPartials[i * QUICK_PARTIALS + top]!) top = k;
    times[top]!++;
  }
  return 1 + times.indexOf(Math.max(...times));
}

/** In dB by frame: every m-th partial against the others, these partials alone, and the others alone. */
interface Balances {
  readonly balance: Float64Array;
  readonly shared: Float64Array;
  readonly others: Float64Array;
  /** What these partials, and the others, are over the whole of the note. */
  readonly usual: Decibels;
  readonly usualOthers: Decibels;
}

function balancesOf({ quickPartials }: Frames, from: number, to: number, m: number): Balances {
  const count = Math.max(0, to - from);
  const [balance, shared, others] = [0, 1, 2].map(() => new Float64Array(count)) as [
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  for (let i = 0; i < count; i++) {
    let every = 1e-12;
    let rest = 1e-12;
    for (let k = 1; k <= QUICK_PARTIALS; k++) {
      const power = quickPartials[(from + i) * QUICK_PARTIALS + k - 1]! ** 2;
      if (k % m === 0) every += power;
      else rest += power;
    }
    shared[i] = decibels(every);
    others[i] = decibels(rest);
    balance[i] = shared[i]! - others[i]!;
  }
  return { balance, shared, others, usual: median(shared), usualOthers: median(others) };
}
