import { useEffect, useMemo, useState } from 'react';
import { findInstrument, type Instrument } from '@/core/instruments';
import {
  civilDay,
  dateOf,
  isPracticeDay,
  planDay,
  type Calendar,
  type CivilDay,
  type DayPlan,
  type PlanFor,
} from '@/core/plan';
import { changePlan, usePlan, usePlayed, useSettings, type Plan } from '@/store';
import { dayKey } from '@/ui';
import { calendarOf, standingOn } from './standings';

/** What is planned for an instrument today, and all that it follows from. */
export interface Planning {
  readonly instrument: Instrument;
  readonly plan: Plan;
  readonly planFor: PlanFor;
  readonly calendar: Calendar;
  /** Of today. */
  readonly date: string;
  readonly today: DayPlan;
  /** The player has made or changed this day. */
  readonly isOwn: boolean;
  /** By the wishes, today is a day of practice. */
  readonly isDay: boolean;
  /** Keeps days as the player made them, by date; null: as it follows from what was heard. */
  readonly keepDays: (days: Readonly<Record<string, DayPlan | null>>) => Promise<void>;
  readonly change: (part: (plan: Plan) => Partial<Plan>) => Promise<void>;
  /** What another day is planned from, as things stand now. */
  readonly planForOn: (day: CivilDay) => PlanFor;
  /** What that day will hold. */
  readonly planOn: (day: CivilDay) => DayPlan;
  readonly problem: string | null;
}

/** @returns null while it is read. */
export function usePlanning(): Planning | null {
  const { settings, ready } = useSettings();
  const { instrumentId, ownInstruments, level, ownLimits } = settings;
  const { plan, problem } = usePlan(instrumentId);
  const { data: played } = usePlayed(instrumentId, false);
  const [now, setNow] = useState(() => new Date());
  useEffect(() => {
    // A page that was left open is come back to on another day.
    const onShown = () => setNow((before) => (dayKey(before) === dayKey(new Date()) ? before : new Date()));
    document.addEventListener('visibilitychange', onShown);
    return () => document.removeEventListener('visibilitychange', onShown);
  }, []);
  const instrument = useMemo(
    () => findInstrument(instrumentId, ownInstruments) ?? null,
    [instrumentId, ownInstruments],
  );
  const date = dayKey(now);
  const calendar = useMemo(() => calendarOf(now), [now]);
  const standsOn = useMemo(() => {
    if (!played || !instrument) return null;
    return (day: CivilDay) => standingOn({ played, instrument, level, ownLimits, date }, now, day);
  }, [played, instrument, level, ownLimits, now, date]);
  const stands = useMemo(() => standsOn?.(calendar.today) ?? null, [standsOn, calendar]);
  return useMemo(() => {
    if (!ready || !plan || !instrument || !stands || !standsOn) return null;
    const { wishes, days, programme } = plan;
    const planFor: PlanFor = {
      standing: stands,
      wishes,
      instrument,
      level,
      day: calendar.today,
      programme: programme && { id: programme.id, startedOn: civilDay(programme.startedOn) },
    };
    const planForOn = (day: CivilDay): PlanFor => ({ ...planFor, day, standing: standsOn(day) });
    const own = days[date];
    const change = (part: (plan: Plan) => Partial<Plan>) => changePlan(instrumentId, part, date);
    return {
      instrument,
      plan,
      planFor,
      calendar,
      date,
      today: own ?? planDay(planFor),
      isOwn: own !== undefined,
      isDay: isPracticeDay(wishes, calendar.today),
      change,
      keepDays: (made) =>
        change(({ days: before }) => ({
          days: Object.fromEntries(
            Object.entries({ ...before, ...made }).flatMap(([of, day]) => (day === null ? [] : [[of, day]])),
          ),
        })),
      planForOn,
      planOn: (day) => days[dateOf(day)] ?? planDay(planForOn(day)),
      problem,
    };
  }, [ready, plan, instrument, stands, standsOn, level, calendar, date, instrumentId, problem]);
}
