import type { Entry } from '@/core/ledger';
import { dayKey } from '@/ui';

/** What a strand is drawn from. */
type Row = Pick<Entry, 'id' | 'createdAt' | 'durationSeconds' | 'figures'>;

/** First day of the month that a date is in, or of one so many months later, by the player's own calendar. */
export const monthAbout = (date: Date, later = 0) => new Date(date.getFullYear(), date.getMonth() + later, 1);

/**
 * The month to open the log at: that of the newest take. On the first of a month, or after a holiday, this one is empty.
 * @param entries newest first.
 */
export const lastPlayedMonth = (entries: readonly Pick<Row, 'createdAt'>[], now: Date) =>
  monthAbout(entries[0] ? new Date(entries[0].createdAt) : now);

/**
 * Days of a month with their takes, first to last.
 * @param entries newest first.
 */
export function strandsOf(entries: readonly Row[], month: Date) {
  const count = new Date(month.getFullYear(), month.getMonth() + 1, 0).getDate();
  const days = Array.from({ length: count }, (_, i) => {
    const when = new Date(month.getFullYear(), month.getMonth(), i + 1);
    const takes: { id: string; minutes: number; gold: boolean }[] = [];
    return { key: dayKey(when), when, date: i + 1, minutes: 0, takes };
  });
  const byKey = new Map(days.map((day) => [day.key, day]));
  for (const entry of [...entries].reverse()) {
    const day = byKey.get(dayKey(new Date(entry.createdAt)));
    if (!day) continue;
    const [clean, , , of] = entry.figures['slurs-clean'] ?? [];
    const minutes = entry.durationSeconds / 60;
    day.minutes += minutes;
    day.takes.push({ id: entry.id, minutes, gold: clean !== undefined && clean === of });
  }
  return days;
}
