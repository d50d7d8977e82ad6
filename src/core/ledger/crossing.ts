import { greatest } from 'd3-array';
import type { Dynamic } from '@/core/music';
import type { Note } from '@/core/hearing/notes';
import type { Cents, Decibels, Midi, Seconds } from '@/core/tuning';
import {
  asksLevel,
  spoilsNext,
  type FaultKind,
  type JudgedSeam,
  type Judgement,
  type Limits,
} from '@/core/verdict';

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
] as const satisfies readonly FaultKind[];
export type Crack = (typeof CRACKS)[number];

/** What of a crossing is held against which limit; levels are blurred by the room. */
const HELD_AGAINST = [
  { of: 'dipDb', limit: 'seamDipDb', blurred: true, fault: ['hole', 'hole'] },
  { of: 'bumpDb', limit: 'seamBumpDb', blurred: true, fault: ['bump', 'bump'] },
  { of: 'stepDb', limit: 'levelStepDb', blurred: true, fault: ['narrow-leap', 'narrow-leap'] },
  { of: 'slurMs', limit: 'seamMs', blurred: false, fault: ['slow-slur', 'slow-slur'] },
  { of: 'overshootCents', limit: 'overshootCents', blurred: false, fault: ['overshoot', 'overshoot'] },
  {
    of: 'intervalCents',
    limit: 'intervalCents',
    blurred: false,
    fault: ['narrow-interval', 'wide-interval'],
  },
] as const satisfies readonly {
  of: keyof Crossing;
  limit: keyof Limits;
  blurred: boolean;
  /** What it is called beyond its limit: below zero, above. */
  fault: readonly [FaultKind, FaultKind];
}[];
type Measured = (typeof HELD_AGAINST)[number]['of'];

/** A slur of a judged take; none where the player had stopped before it. */
export function crossingOf(seam: JudgedSeam, judgement: Judgement, notes: readonly Note[]): Crossing[] {
  const { from, to, transition, why, spreadDb, blurSeconds } = seam;
  if (from.state === 'unplayed' || to.state === 'unplayed') return [];
  const asked = judgement.score.notes[to.group.from]!;
  if (asked.fingered !== null || judgement.score.notes[from.group.from]!.fingered !== null) return [];
  const counts = (id: 'interval' | 'seam') => judgement.score.counts.measures.includes(id);
  const measured: Record<Measured, number | null> = {
    dipDb: transition?.dipDb ?? null,
    bumpDb: transition?.bumpDb ?? null,
    slurMs: transition?.seconds == null ? null : 1000 * Math.max(0, transition.seconds - blurSeconds),
    overshootCents: transition?.overshootCents ?? null,
    stepDb: asksLevel(judgement, seam) ? (transition?.levelStepDb ?? null) : null,
    intervalCents: counts('interval') ? seam.errorCents : null,
  };
  const spoilt = judgement.faults.some(({ kind, group }) => group === from.group.index && spoilsNext(kind));
  if (spoilt) for (const { of } of HELD_AGAINST) measured[of] = null;
  // Beyond its limit and yet no fault: something else, before or in the notes, accounts for it. It is not held against the slur, now or later.
  if (why.length === 0)
    for (const { of, limit, blurred } of HELD_AGAINST)
      if (isBeyond(measured[of], judgement.limits[limit], blurred ? spreadDb : 0)) measured[of] = null;
  const crack = why.find(({ kind, amount }) => amount === null || kind === 'late-speech');
  return [
    {
      from: from.group.written,
      to: to.group.written,
      dynamic: asked.dynamic,
      atSeconds: to.note === null ? 0 : notes[to.parts[0] ?? to.note]!.startSeconds,
      heard: from.note !== null && to.note !== null,
      cracked: crack !== undefined,
      crackedBy: CRACKS.find((kind) => kind === crack?.kind) ?? null,
      spreadDb,
      ...measured,
    },
  ];
}

/** Beyond a limit by more than twice what it may be off by. */
const isBeyond = (value: number | null, limit: number, spread: number): boolean =>
  value !== null && Math.abs(value) > limit && Math.abs(value) - 2 * spread > limit;

/** What opened a slur that is not clean by these limits: what cracked, else what is furthest beyond. Null: nothing did. */
export function openedBy(crossing: Crossing, limits: Limits): FaultKind | null {
  if (crossing.cracked) return crossing.crackedBy;
  if (!crossing.heard) return null;
  const beyond = HELD_AGAINST.flatMap(({ of, limit, blurred, fault: [below, above] }) => {
    const value = crossing[of];
    return value !== null && isBeyond(value, limits[limit], blurred ? crossing.spreadDb : 0)
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
    HELD_AGAINST.some(({ of, limit, blurred }) =>
      isBeyond(crossing[of], limits[limit], blurred ? crossing.spreadDb : 0),
    )
  )
    return false;
  return crossing.dipDb !== null && Math.abs(crossing.dipDb) > limits.seamDipDb ? null : true;
}
