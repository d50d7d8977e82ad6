import { greatest } from 'd3-array';
import type { Cents, Decibels, Midi, Seconds } from '@/core/base';
import type { Dynamic } from '@/core/music';
import { dipSpread, type FaultKind, type Limits } from '@/core/verdict';

/** One slur as it was played: numbers only. Whether it was clean is asked of it with the limits of the day. */
export interface Crossing {
  readonly from: Midi;
  readonly to: Midi;
  readonly dynamic: Dynamic;
  /** Where in the take. */
  readonly atSeconds: Seconds;
  /** Both notes were heard. */
  readonly heard: boolean;
  /** Something sounded, or was silent, that was not asked for. */
  readonly cracked: boolean;
  /** What that was; null also for slurs of a time when it was not written down. */
  readonly crackedBy: Crack | null;
  /** Standard deviation of what the room adds to its levels. */
  readonly spreadDb: Decibels;
  readonly dipDb: Decibels | null;
  readonly bumpDb: Decibels | null;
  /** Beyond what the room alone takes to let the first note go. */
  readonly slurMs: number | null;
  /** What of it is surely the player's: none where a swing was wider than it. */
  readonly overshootCents: Cents | null;
  /** Null also where the two notes were not asked at one level. */
  readonly stepDb: Decibels | null;
  /** Wide is positive; null also where the interval was not looked at. */
  readonly intervalCents: Cents | null;
}

/** What can open a slur besides its own figures. Stored by place in this list: it may only grow at its end. */
export const CRACKS = [
  'break-up',
  'break-down',
  'squeak',
  'undertone',
  'hole',
  'late-speech',
  'wrong-note',
  'slipped',
  'stopped',
] as const satisfies readonly FaultKind[];
export type Crack = (typeof CRACKS)[number];

const all = (spreadDb: Decibels): Decibels => spreadDb;
const none = (): Decibels => 0;

/** What of a crossing is held against which limit; levels are blurred by the room. */
export const HELD_AGAINST = [
  { of: 'dipDb', limit: 'seamDipDb', blur: dipSpread, fault: ['hole', 'hole'] },
  { of: 'bumpDb', limit: 'seamBumpDb', blur: all, fault: ['bump', 'bump'] },
  { of: 'stepDb', limit: 'levelStepDb', blur: all, fault: ['narrow-leap', 'narrow-leap'] },
  { of: 'slurMs', limit: 'seamMs', blur: none, fault: ['slow-slur', 'slow-slur'] },
  { of: 'overshootCents', limit: 'overshootCents', blur: none, fault: ['overshoot', 'overshoot'] },
  {
    of: 'intervalCents',
    limit: 'intervalCents',
    blur: none,
    fault: ['narrow-interval', 'wide-interval'],
  },
] as const satisfies readonly {
  of: keyof Crossing;
  limit: keyof Limits;
  /** What of the room's spread of levels it may be off by. */
  blur: (spreadDb: Decibels) => Decibels;
  /** What it is called beyond its limit: below zero, above. */
  fault: readonly [FaultKind, FaultKind];
}[];
export type Measured = (typeof HELD_AGAINST)[number]['of'];

/** Beyond a limit by more than twice what it may be off by. */
export const isBeyond = (value: number | null, limit: number, spread: number): boolean =>
  value !== null && Math.abs(value) > limit && Math.abs(value) - 2 * spread > limit;

/** What opened a slur that is not clean by these limits: what cracked, else what is furthest beyond. Null: nothing did. */
export function openedBy(crossing: Crossing, limits: Limits): FaultKind | null {
  if (crossing.cracked) return crossing.crackedBy;
  if (!crossing.heard) return null;
  const beyond = HELD_AGAINST.flatMap(({ of, limit, blur, fault: [below, above] }) => {
    const value = crossing[of];
    return value !== null && isBeyond(value, limits[limit], blur(crossing.spreadDb))
      ? [{ fault: value < 0 ? below : above, by: Math.abs(value) / limits[limit] }]
      : [];
  });
  return greatest(beyond, ({ by }) => by)?.fault ?? null;
}

/** Levels vary by this and more from note to note where a room rings; played close by, or in the open, by less than one. */
const RINGING: Decibels = 2;

/** Whether a crossing was surely played where the room rings: what is short under a slur may be covered there. */
export const isCovered = ({ spreadDb }: Crossing): boolean => spreadDb > RINGING;

/** Whether a crossing is clean by these limits; null when it cannot be said. */
export function isClean(crossing: Crossing, limits: Limits): boolean | null {
  if (crossing.cracked) return false;
  if (!crossing.heard) return null;
  if (
    HELD_AGAINST.some(({ of, limit, blur }) => isBeyond(crossing[of], limits[limit], blur(crossing.spreadDb)))
  )
    return false;
  const isOpen = (dB: Decibels | null, limit: Decibels) => dB !== null && Math.abs(dB) > limit;
  return isOpen(crossing.dipDb, limits.seamDipDb) || isOpen(crossing.bumpDb, limits.seamBumpDb) ? null : true;
}
