import { ascending, groups, rollups } from 'd3-array';
import { median, type Midi } from '@/core/base';
import { breaksBy, seamBetween, type Break, type Instrument } from '@/core/instruments';
import type { FaultKind, Limits } from '@/core/verdict';
import { isClean, openedBy, type Crossing } from './crossing';
import type { Played } from './played';
import { SeamFollowing, reliability, type Reliability } from './reliability';

/** One slur over a break as it was played, and whether it held by the limits of today. */
export interface Crossed {
  readonly take: Played;
  readonly crossing: Crossing;
  readonly clean: boolean;
  readonly opened: FaultKind | null;
}

/** How a seam stands. `few`: too few crossings to say. */
export type SeamState = 'gold' | 'nearly' | 'mending' | 'weak' | 'few';

const GOLD = 0.9;
/** Gold has opened when what it holds is surely less than nine in ten, or falls to this. */
const OPENED = 0.8;
const NEARLY = 0.85;
const WEAK = 0.6;
/** Fewer crossings say nothing. */
const FEW = 5;

/** Two notes, one way, over a break. */
export interface MappedSeam {
  readonly from: Midi;
  readonly to: Midi;
  readonly crossed: readonly Crossed[];
  readonly reliability: Reliability;
  readonly state: SeamState;
}

/** A break with all that was slurred over it. */
export interface MappedBreak extends Break {
  readonly seams: readonly MappedSeam[];
  readonly reliability: Reliability;
  readonly state: SeamState;
}

/** A seam that turned to gold at some take, or opened again. */
export interface Turn {
  readonly from: Midi;
  readonly to: Midi;
  readonly takeId: string;
  readonly day: number;
  readonly turned: 'gold' | 'open';
}

const trialsOf = (crossed: readonly Crossed[]) =>
  crossed.map(({ take, clean }) => ({ clean, day: take.day, take: take.entry.id }));

/** All slurs that it can be said of whether they held, oldest first. */
export function crossedIn(played: readonly Played[], limits: Limits): Crossed[] {
  return played.flatMap((take) =>
    take.crossings.flatMap((crossing) => {
      const clean = isClean(crossing, limits);
      return clean === null ? [] : [{ take, crossing, clean, opened: openedBy(crossing, limits) }];
    }),
  );
}

/** Of so many crossings of late the middle is asked. */
const OF_LATE = 40;

/** Whether the middle of what was measured until then passes the player's level too: nine clean of ten by a hair are not gold. */
function passes(crossed: readonly Crossed[], limits: Limits, until = crossed.length): boolean {
  const late = crossed.slice(Math.max(0, until - OF_LATE), until);
  const within = (of: 'intervalCents' | 'stepDb', limit: number) => {
    const middle = median(late.flatMap(({ crossing }) => crossing[of] ?? []));
    return Number.isNaN(middle) || Math.abs(middle) <= limit;
  };
  return within('intervalCents', limits.intervalCents) && within('stepDb', limits.levelStepDb);
}

/** What the map says of a seam. @param passed see `passes`: without it nothing is gold. */
export function stateOf({ of, share }: Reliability, passed: boolean): SeamState {
  if (of < FEW) return 'few';
  if (share.low > GOLD && passed) return 'gold';
  if (share.value >= NEARLY) return 'nearly';
  return share.value >= WEAK ? 'mending' : 'weak';
}

function seamOf(from: Midi, to: Midi, crossed: readonly Crossed[], limits: Limits, now: number): MappedSeam {
  const found = reliability(trialsOf(crossed), now);
  return { from, to, crossed, reliability: found, state: stateOf(found, passes(crossed, limits)) };
}

const seamKey = ({ crossing: { from, to } }: Crossed) => `${from}-${to}`;

/**
 * Breaks low to high, each with the seams over it, the weakest first. Leaps over two breaks belong to neither.
 * @param view of the first break, where the instrument has two.
 */
export function seamMap(
  played: readonly Played[],
  instrument: Instrument,
  limits: Limits,
  now: number,
  view: 'mode' | 'hand' = 'mode',
): MappedBreak[] {
  const all = crossedIn(played, limits);
  const places = breaksBy(instrument, view);
  const lies = ({ above }: Break, { crossing: { from, to } }: Crossed) =>
    Math.min(from, to) < above && Math.max(from, to) >= above;
  const overOne = all.filter((crossed) => places.filter((place) => lies(place, crossed)).length === 1);
  return places.map((place) => {
    const over = overOne.filter((crossed) => lies(place, crossed));
    const seams = groups(over, seamKey)
      .map(([, crossed]) => seamOf(crossed[0]!.crossing.from, crossed[0]!.crossing.to, crossed, limits, now))
      .sort((a, b) => ascending(a.reliability.share.value, b.reliability.share.value));
    const found = reliability(trialsOf(over), now);
    return { ...place, seams, reliability: found, state: stateOf(found, passes(over, limits)) };
  });
}

/** One seam, whether it lies over a break or not. */
export function seamHistory(
  played: readonly Played[],
  from: Midi,
  to: Midi,
  limits: Limits,
  now: number,
): MappedSeam {
  const crossed = crossedIn(played, limits).filter(
    ({ crossing }) => crossing.from === from && crossing.to === to,
  );
  return seamOf(from, to, crossed, limits, now);
}

/**
 * When seams over a break turned to gold, and when gold ones opened again, oldest first. Each is told at the take that did it.
 * A seam is looked at after each take that crosses it, and not by every crossing.
 */
export function turnsOf(played: readonly Played[], instrument: Instrument, limits: Limits): Turn[] {
  const over = crossedIn(played, limits).filter(
    ({ crossing: { from, to } }) => seamBetween(instrument, from, to) !== null,
  );
  return groups(over, seamKey)
    .flatMap(([, crossed]) => turnsOfSeam(crossed, limits))
    .sort((a, b) => ascending(a.day, b.day));
}

function turnsOfSeam(crossed: readonly Crossed[], limits: Limits): Turn[] {
  const { from, to } = crossed[0]!.crossing;
  const turns: Turn[] = [];
  const following = new SeamFollowing();
  let gold = false;
  for (let i = 0; i < crossed.length; i++) {
    const { take, clean } = crossed[i]!;
    following.add({ clean, day: take.day, take: take.entry.id });
    if (crossed[i + 1]?.take === take) continue;
    const found = following.at(take.day);
    const isTurned = gold
      ? found.share.high < GOLD || found.share.value < OPENED
      : found.share.low > GOLD && stateOf(found, passes(crossed, limits, i + 1)) === 'gold';
    if (!isTurned) continue;
    gold = !gold;
    turns.push({ from, to, takeId: take.entry.id, day: take.day, turned: gold ? 'gold' : 'open' });
  }
  return turns;
}

/** A stretch of a seam's time. */
export interface Stretch {
  readonly fromDay: number;
  readonly untilDay: number;
  readonly clean: number;
  readonly of: number;
}

/** A seam's crossings in equal stretches of time from its first to its last, those in which it was not played left out. */
export function stretchesOf(crossed: readonly Crossed[], most: number, leastDays = 7): Stretch[] {
  const [first, last] = [crossed[0]?.take.day, crossed.at(-1)?.take.day];
  if (first === undefined || last === undefined) return [];
  const length = Math.max(leastDays, (last - first) / most + 1e-6);
  const places = rollups(
    crossed,
    (same) => ({ clean: same.filter(({ clean }) => clean).length, of: same.length }),
    ({ take }) => Math.floor((take.day - first) / length),
  );
  return places.map(([place, counts]) => ({
    fromDay: first + place * length,
    untilDay: first + (place + 1) * length,
    ...counts,
  }));
}

/** What opened a seam, most often first. */
export function openersOf(
  crossed: readonly Crossed[],
): { readonly kind: FaultKind; readonly count: number }[] {
  return rollups(
    crossed.flatMap(({ opened }) => opened ?? []),
    (same) => same.length,
    (kind) => kind,
  )
    .map(([kind, count]) => ({ kind, count }))
    .sort((a, b) => b.count - a.count);
}
