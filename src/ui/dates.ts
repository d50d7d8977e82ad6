/** Dates as they read on screen, by the browser's own calendar; English like the rest of the words. */
const day = new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long' });
const short = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});
const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
const relative = new Intl.RelativeTimeFormat('en-GB', { numeric: 'auto' });
const DAY_MS = 86_400_000;

export const dayText = (date: Date) => day.format(date);
export const momentText = (date: Date) => short.format(date);
export const clockText = (date: Date) => clock.format(date);

/** Whole calendar days from `date` until `now`. */
export function daysAgo(date: Date, now: Date): number {
  const midnight = (d: Date) => Date.UTC(d.getFullYear(), d.getMonth(), d.getDate());
  return Math.round((midnight(now) - midnight(date)) / DAY_MS);
}

/** `today`, `yesterday`, `5 days ago`. */
export const agoText = (date: Date, now: Date) => relative.format(-daysAgo(date, now), 'day');

/** A heading for one day's takes. */
export function dayHeading(date: Date, now: Date): string {
  const ago = daysAgo(date, now);
  if (ago > 1) return dayText(date);
  return ago === 1 ? 'Yesterday' : 'Today';
}
