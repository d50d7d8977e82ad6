import { emptyTake } from '@/core/take/takes.testing';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { limitsOf } from '@/core/verdict';
import { asWritten } from '@/core/verdict/asWritten.testing';
import { dayOf, digestOf, playedOf } from '.';

const score = scoreOfFamily('octave-slurs', 'flute');
const digest = digestOf(
  { ...emptyTake({ id: 'a', score }), ...asWritten(score) },
  limitsOf('steady'),
  'english',
);
const on = (...dates: readonly string[]) =>
  dates.map((createdAt, i) => ({ ...digest.entry, id: `${i}`, createdAt }));

it('what a clock that was wrong dated ten years ahead was played by today, and makes nothing else old', () => {
  const now = dayOf('2026-12-02T18:00:00Z');
  const entries = on('2026-12-01T17:00:00Z', '2026-12-02T17:00:00Z', '2036-12-02T17:10:00Z');
  const played = playedOf(entries, {}, now);
  expect(played.map(({ day }) => day)).toEqual([now - 25 / 24, now - 1 / 24, now]);
  // A clock of another device may be some hours ahead.
  const [, hours] = playedOf(on('2026-12-01T17:00:00Z', '2026-12-03T01:00:00Z'), {}, now);
  expect(hours!.day).toBeCloseTo(now + 7 / 24, 9);
});
