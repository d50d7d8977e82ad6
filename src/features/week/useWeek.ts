import { groups } from 'd3-array';
import { useMemo } from 'react';
import { DAY_MS } from '@/core/base';
import type { Entry } from '@/core/ledger';
import { mondayOf, planDays, type CivilDay, type DayPlan } from '@/core/plan';
import type { Planning } from '@/features/planning';
import { useEntries } from '@/store';

/** One day of a week: what was played, and what is planned where the day is not over. */
export interface WeekDay {
  readonly day: CivilDay;
  readonly isToday: boolean;
  readonly isPast: boolean;
  /** Exercises that were played, with their minutes, in order. */
  readonly played: readonly {
    readonly family: string;
    readonly title: string;
    readonly minutes: number;
    readonly seam: boolean;
  }[];
  readonly plan: DayPlan | null;
}

const RECENT = 200;
const WEEK = 7;

/** The week that today is in, and the days of it; none before the log has been read. */
export function useWeek(planning: Planning | null, weeksOn: number): readonly WeekDay[] {
  const { data } = useEntries(RECENT);
  return useMemo(() => {
    if (!planning || !data) return [];
    const { calendar, planFor, planForOn, plan, instrument } = planning;
    const first = mondayOf(calendar.today) + WEEK * weeksOn;
    const mine = data.entries.filter(({ instrumentId }) => instrumentId === instrument.id);
    const byDay = new Map(
      groups(mine, ({ createdAt }) => Math.floor(Date.parse(createdAt) / DAY_MS + calendar.offsetDays)),
    );
    // A day that has been played is not planned once more: the next follows from what was heard on it.
    const isPlayed = byDay.has(calendar.today);
    const from = calendar.today + (isPlayed ? 1 : 0);
    const coming = new Map(
      planDays(isPlayed ? planForOn(from) : planFor, Math.max(0, first + WEEK - from), plan.days).map(
        ({ day, plan: of }) => [day, of],
      ),
    );
    return Array.from({ length: WEEK }, (_, i): WeekDay => {
      const day = first + i;
      return {
        day,
        isToday: day === calendar.today,
        isPast: day < calendar.today,
        played: exercisesOf(byDay.get(day) ?? []),
        plan: day < calendar.today ? null : (coming.get(day) ?? null),
      };
    });
  }, [planning, weeksOn, data]);
}

function exercisesOf(entries: readonly Entry[]): WeekDay['played'] {
  return groups([...entries].reverse(), ({ family }) => family).map(([family, same]) => ({
    family,
    title: same[0]!.title,
    minutes: same.reduce((sum, { durationSeconds }) => sum + durationSeconds / 60, 0),
    seam: same.some(({ figures }) => figures['slurs-clean'] !== undefined),
  }));
}
