import { DAY_MS } from '@/core/base';
import { findInstrument, type Instrument } from '@/core/instruments';
import { playedOf, type Crossing, type Entry, type Played } from '@/core/ledger';
import { rowOf, slurOf } from '@/core/ledger/memory.testing';
import type { Level } from '@/core/music';
import { limitsOf } from '@/core/verdict';
import { planDay, standing, usualWishes, type DayPlan, type PlanFor, type Wishes } from '.';

export const named = (id: string): Instrument => {
  const found = findInstrument(id);
  if (!found) throw new Error(`no instrument ${id}`);
  return found;
};

/** What was played, told shortly. @property day days since 1970, with the time of day. */
export interface Was {
  readonly day: number;
  readonly row?: Partial<Entry>;
  readonly slurs?: readonly Crossing[];
}

export function playedFrom(takes: readonly Was[]): readonly Played[] {
  const rows = takes.map(({ day, row }, i) =>
    rowOf(0, {
      id: `take-${String(i).padStart(4, '0')}`,
      createdAt: new Date(day * DAY_MS).toISOString(),
      ...row,
    }),
  );
  const slurs = new Map(takes.map(({ slurs: own = [] }, i) => [rows[i]!.id, own]));
  return playedOf(rows, {}).map((take) => ({ ...take, crossings: slurs.get(take.entry.id) ?? [] }));
}

/** So many slurs, so many of them clean. */
export const slursOf = (from: number, to: number, clean: number, of: number): Crossing[] =>
  Array.from({ length: of }, (_, i) => slurOf(from, to, i < clean));

export interface Asked {
  readonly instrument?: string;
  readonly level?: Level;
  readonly today: number;
  readonly wishes?: Partial<Wishes>;
  readonly minutes?: number;
}

export function planForOf(
  played: readonly Played[],
  { instrument = 'flute', level = 'steady', today, wishes, minutes }: Asked,
): PlanFor {
  const which = named(instrument);
  return {
    standing: standing(played, which, limitsOf(level), today + 0.75, { today, offsetDays: 0 }),
    wishes: { ...usualWishes, ...wishes },
    instrument: which,
    level,
    day: today,
    ...(minutes !== undefined && { minutes }),
  };
}

export const plannedOn = (played: readonly Played[], asked: Asked): DayPlan =>
  planDay(planForOf(played, asked));
