import { DAY_MS } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import type { Played } from '@/core/ledger';
import { civilDay, seenFrom, standing, type Calendar, type CivilDay, type Standing } from '@/core/plan';
import { limitsOf } from '@/core/verdict';
import { instrumentIn, type Settings } from '@/store';
import { dayKey } from '@/ui';

const MINUTE_DAYS = 1 / 1440;

/** What standings follow from. */
export interface StandsFrom extends Pick<Settings, 'level' | 'ownLimits'> {
  readonly played: readonly Played[];
  readonly instrument: Instrument;
  /** Of today. */
  readonly date: string;
}

export const calendarOf = (now: Date): Calendar => ({
  today: civilDay(dayKey(now)),
  offsetDays: -now.getTimezoneOffset() * MINUTE_DAYS,
});

/** How things stand is long to find in years of takes: it is known until something changes that it follows from. */
let known: { readonly from: StandsFrom; readonly stands: Standing } | null = null;

/** How things stand on a day, by what was heard until now. */
export function standingOn(from: StandsFrom, now: Date, day: CivilDay): Standing {
  const { played, instrument, level, ownLimits } = from;
  const calendar = calendarOf(now);
  if (!known || !isSame(known.from, from)) {
    const stands = standing(played, instrument, limitsOf(level, ownLimits), now.getTime() / DAY_MS, calendar);
    known = { from, stands };
  }
  return day === calendar.today ? known.stands : seenFrom(known.stands, played, { ...calendar, today: day });
}

const isSame = (a: StandsFrom, b: StandsFrom): boolean =>
  a.played === b.played &&
  a.instrument === b.instrument &&
  a.level === b.level &&
  JSON.stringify(a.ownLimits) === JSON.stringify(b.ownLimits) &&
  a.date === b.date;

/** Finds how things stand today before a page asks for it. */
export function standAhead(settings: Settings, played: readonly Played[]): void {
  const instrument = instrumentIn(settings, settings.instrumentId);
  if (!instrument) return;
  const now = new Date();
  const { level, ownLimits } = settings;
  standingOn({ played, instrument, level, ownLimits, date: dayKey(now) }, now, calendarOf(now).today);
}
