import { createEvents, type EventAttributes } from 'ics';
import { failure, success, type Outcome } from '@/core/base';

/** One day of practice, as a calendar is to show it. */
export interface CalendarDay {
  /** `2026-11-26`. */
  readonly date: string;
  readonly title: string;
  /** A line for each block. */
  readonly lines: readonly string[];
  readonly minutes: number;
}

/** Days as an iCalendar file (RFC 5545). @param at hour and minute of the player's clock at which practice begins. */
export function calendarFile(
  days: readonly CalendarDay[],
  at: readonly [hour: number, minute: number],
): Outcome<string> {
  const events = days.map(({ date, title, lines, minutes }): EventAttributes => {
    const [year, month, day] = date.split('-').map(Number) as [number, number, number];
    return {
      uid: `${date}@gold-reed`,
      title,
      description: lines.join('\n'),
      start: [year, month, day, ...at],
      // The player's clock, wherever the player is: no time zone.
      startInputType: 'local',
      startOutputType: 'local',
      duration: { minutes },
      productId: 'gold-reed',
    };
  });
  const { error, value } = createEvents(events);
  return typeof value === 'string' && !error
    ? success(value)
    : failure(`the calendar could not be written: ${error?.message ?? 'unknown'}`);
}
