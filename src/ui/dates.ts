import { DAY_MS } from '@/core/base';

/** Makes it when it is first asked for: each format takes the browser a millisecond or more. */
function once<T>(make: () => T): () => T {
  let made: T | undefined;
  return () => (made ??= make());
}

/** Dates as they read on screen, by the browser's own calendar; English like the rest of the words. */
const dates = (options: Intl.DateTimeFormatOptions) => once(() => new Intl.DateTimeFormat('en-GB', options));
const day = dates({ weekday: 'long', day: 'numeric', month: 'long' });
const short = dates({ day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
const clock = dates({ hour: '2-digit', minute: '2-digit' });
const dayAndMonth = dates({ day: 'numeric', month: 'short' });
const whole = dates({ day: 'numeric', month: 'long', year: 'numeric' });
const month = dates({ month: 'long', year: 'numeric' });
const span = dates({ day: 'numeric', month: 'long', timeZone: 'UTC' });
const relative = once(() => new Intl.RelativeTimeFormat('en-GB', { numeric: 'auto' }));

export const dayText = (date: Date) => day().format(date);
export const momentText = (date: Date) => short().format(date);
export const monthText = (date: Date) => month().format(date);
/** Of days since 1970, as trends and maps count them: `26 Nov`. */
export const shortDay = (days: number) => dayAndMonth().format(new Date(days * DAY_MS));
/** The same with its year: `26 November 2026`. */
export const wholeDay = (days: number) => whole().format(new Date(days * DAY_MS));
/** A week by its first day, in days since 1970: `23 to 29 November`. */
export const weekText = (first: number) =>
  span()
    .formatRange(new Date(first * DAY_MS), new Date((first + 6) * DAY_MS))
    .replace(/\s*–\s*/, ' to ');
export const clockText = (date: Date) => clock().format(date);

/** Whole calendar days from `date` until `now`. */
export function daysAgo(date: Date, now: Date): number {
  const midnight = (d: Date) => Date.UTC(d.getFullYear(), d.getMonth(), d.getDate());
  return Math.round((midnight(now) - midnight(date)) / DAY_MS);
}

/** `today`, `yesterday`, `5 days ago`. */
export const agoText = (date: Date, now: Date) => relative().format(-daysAgo(date, now), 'day');

/** A heading for one day's takes. */
export function dayHeading(date: Date, now: Date): string {
  const ago = daysAgo(date, now);
  if (ago > 1) return dayText(date);
  return ago === 1 ? 'Yesterday' : 'Today';
}

/** A calendar day as the player’s clock has it, to tell days apart by: `2026-11-26`. */
export function dayKey(date: Date): string {
  const two = (part: number) => String(part).padStart(2, '0');
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}
