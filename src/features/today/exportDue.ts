import { DAY_MS } from '@/core/base';

const MONTH_DAYS = 30;

/** Whether the player wants to be told to export the log: on the first day here since the Sunday, or the month, has come round. */
export function isExportDue(
  every: 'never' | 'sunday' | 'month',
  lastExportAt: string | null,
  now: Date,
): boolean {
  if (every === 'never') return false;
  if (lastExportAt === null) return true;
  const last = new Date(lastExportAt);
  if (every === 'month') return now.getTime() - last.getTime() >= MONTH_DAYS * DAY_MS;
  const sunday = new Date(now);
  sunday.setHours(0, 0, 0, 0);
  sunday.setDate(sunday.getDate() - sunday.getDay());
  return last < sunday;
}
