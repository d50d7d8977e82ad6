import { isExportDue } from './exportDue';

const at = (text: string) => new Date(`${text}T18:00:00`);
const told = (every: 'never' | 'sunday' | 'month', last: string | null, now: string) =>
  isExportDue(every, last === null ? null : at(last).toISOString(), at(now));

it('is told from the first Sunday on that has come since the last time', () => {
  // 2026-11-22 is a Sunday.
  expect(told('sunday', '2026-11-20', '2026-11-21')).toBe(false);
  expect(told('sunday', '2026-11-20', '2026-11-22')).toBe(true);
  expect(told('sunday', '2026-11-20', '2026-11-25')).toBe(true);
  expect(told('sunday', '2026-11-22', '2026-11-25')).toBe(false);
  expect(told('sunday', '2026-11-22', '2026-11-29')).toBe(true);
});

it('is told after a month, at once when it never was, and never when that is wanted', () => {
  expect(told('month', '2026-11-01', '2026-11-30')).toBe(false);
  expect(told('month', '2026-11-01', '2026-12-01')).toBe(true);
  expect(told('sunday', null, '2026-11-25')).toBe(true);
  expect(told('never', null, '2026-11-25')).toBe(false);
});
