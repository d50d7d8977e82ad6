import { lastPlayedMonth, monthAbout, strandsOf } from './months';

const at = (text: string) => new Date(`${text}T18:40:00`);
const takeOf = (id: string, day: string, minutes: number, clean: number) => ({
  id,
  createdAt: at(day).toISOString(),
  durationSeconds: 60 * minutes,
  figures: { 'slurs-clean': [clean, 0, 0, 4] as [number, number, number, number] },
});

it('opens at the month of the newest take, where this month has none yet', () => {
  const entries = [takeOf('b', '2026-11-30', 2, 4), takeOf('a', '2026-10-04', 2, 4)];
  expect(lastPlayedMonth(entries, at('2026-12-01'))).toEqual(new Date(2026, 10, 1));
  expect(lastPlayedMonth(entries, at('2027-01-01'))).toEqual(new Date(2026, 10, 1));
  expect(lastPlayedMonth([], at('2026-12-01'))).toEqual(new Date(2026, 11, 1));
});

it('turns over months of every length, and over the year', () => {
  expect(monthAbout(at('2026-12-31'), 1)).toEqual(new Date(2027, 0, 1));
  expect(monthAbout(at('2027-01-31'), -1)).toEqual(new Date(2026, 11, 1));
  expect(monthAbout(at('2027-01-31'), 1)).toEqual(new Date(2027, 1, 1));
  expect(strandsOf([], at('2027-02-15'))).toHaveLength(28);
  expect(strandsOf([], at('2028-02-15'))).toHaveLength(29);
  expect(strandsOf([], at('2026-10-25'))).toHaveLength(31);
});

it('stands a day’s takes on each other from the first on, gold where every slur was clean', () => {
  const entries = [
    takeOf('late', '2026-11-30', 3, 4),
    takeOf('early', '2026-11-30', 1.5, 3),
    takeOf('before', '2026-10-30', 9, 4),
  ];
  const days = strandsOf(entries, at('2026-11-03'));
  expect(days.filter(({ takes }) => takes.length > 0)).toHaveLength(1);
  expect(days[29]).toMatchObject({
    date: 30,
    minutes: 4.5,
    takes: [
      { id: 'early', gold: false },
      { id: 'late', gold: true },
    ],
  });
});
