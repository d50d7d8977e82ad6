import * as z from 'zod';
import { DAY_MS } from '@/core/base';
import { PURPOSES } from '@/core/music';
import type { Purpose } from '@/core/music';

/** A day of some place on earth as a whole number: days since 1970 by the calendar there. */
export type CivilDay = number;

const DATE = /^\d{4}-\d{2}-\d{2}$/;

/** `2026-11-25`. @throws RangeError for what is no date. */
export function civilDay(date: string): CivilDay {
  const day = Date.parse(`${date}T00:00:00Z`) / DAY_MS;
  if (!DATE.test(date) || Number.isNaN(day)) throw new RangeError(`"${date}" is no date`);
  return day;
}

/** `2026-11-25`: a day as dates are stored. */
export const dateOf = (day: CivilDay): string => new Date(day * DAY_MS).toISOString().slice(0, 10);

/** Monday first. */
export const WEEKDAYS = [
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday',
] as const;

/** 0 is Monday. 1970 began on a Thursday. */
export const weekdayOf = (day: CivilDay): number => (((day + 3) % 7) + 7) % 7;

/** A stored date, `2026-11-25`, that exists. */
export const dateSchema = z.string().refine((date) => DATE.test(date) && !Number.isNaN(Date.parse(date)), {
  error: 'must be a date like 2026-11-25',
});

export const purposeSchema = z.enum(PURPOSES as [Purpose, ...Purpose[]]);

/** What a plan goes by: told by the player, and changed by nobody else. */
export const wishesSchema = z.object({
  /** Of a practice day, all in all. */
  minutes: z.number().int().min(5).max(120),
  /** Which days are practice days, Monday first. */
  days: z.array(z.boolean()).length(7),
  /** What is practised for, if there is such a thing. */
  event: z.object({ name: z.string().trim().min(1).max(60), date: dateSchema }).nullable(),
  purposes: z.array(purposeSchema),
  /** When lip, jaw or hand was last told to be sore. */
  soreOn: dateSchema.nullable(),
  /** How many of the metronome's steps a drill goes up when it was clean, and down when it was not. */
  notches: z.object({ up: z.number().int().min(0).max(4), down: z.number().int().min(0).max(4) }),
});
export type Wishes = z.infer<typeof wishesSchema>;

export const usualWishes: Wishes = {
  minutes: 20,
  days: [true, true, true, true, true, true, false],
  event: null,
  purposes: [],
  soreOn: null,
  notches: { up: 2, down: 2 },
};

/** Whether the player wishes to practise on a day, by its weekday. */
export const isPracticeDay = ({ days }: Wishes, day: CivilDay): boolean => days[weekdayOf(day)] === true;

/** The first practice day after a day; the next day, where there is none in a week. */
export function nextPracticeDay(wishes: Wishes, day: CivilDay): CivilDay {
  for (let next = day + 1; next <= day + 7; next++) if (isPracticeDay(wishes, next)) return next;
  return day + 1;
}

/**
 * Which practice day this is, counted through: one more from each practice day to the next, so that what goes round by it
 * (loudness, keys, where one starts) never stands still.
 */
export function ordinalOf({ days }: Wishes, day: CivilDay): number {
  const weekday = weekdayOf(day);
  const aWeek = days.filter(Boolean).length;
  const before = days.slice(0, weekday).filter(Boolean).length;
  return ((day - weekday + 3) / 7) * aWeek + before;
}
