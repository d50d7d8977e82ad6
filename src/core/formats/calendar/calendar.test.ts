import { calendarFile } from '.';

it('is a calendar that calendars can read, at the hour of wherever one is', () => {
  const file = calendarFile(
    [{ date: '2026-11-26', title: 'Twenty minutes', lines: ['One, 2 min', 'Two'], minutes: 20 }],
    [18, 0],
  );
  if (!file.ok) throw new Error(file.problem);
  expect(file.value).toMatch(/^BEGIN:VCALENDAR\r\n/);
  expect(file.value).toContain('DTSTART:20261126T180000\r\n');
  expect(file.value).toContain('DURATION:PT20M');
  expect(file.value).toContain('SUMMARY:Twenty minutes');
});
