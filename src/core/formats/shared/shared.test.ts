import { plannedOn } from '@/core/plan/plan.testing';
import { civilDay } from '@/core/plan';
import { linkPart, readLink, readShared, sharedText, type Shared, SHARED_VERSION } from '.';

const plan = plannedOn([], { today: civilDay('2026-11-26') });
const week: Shared = {
  goldReed: SHARED_VERSION,
  kind: 'week',
  name: 'A week',
  instrumentId: 'flute',
  days: [plan],
};

it('goes through a link and through a file, and comes back as it was', async () => {
  const part = await linkPart(week);
  expect(part).toMatch(/^[\w-]+$/);
  expect(await readLink(part)).toEqual({ ok: true, value: week });
  expect(readShared(sharedText(week))).toEqual({ ok: true, value: week });
  // A link has to go through a message.
  expect(part.length).toBeLessThan(2000);
});

it('is refused with the reason where it is cut, foreign, newer, wrong, or far too long', async () => {
  const problem = async (found: ReturnType<typeof readShared> | Promise<ReturnType<typeof readShared>>) => {
    const read = await found;
    return read.ok ? 'taken' : read.problem;
  };
  const part = await linkPart(week);
  expect(await problem(readLink(part.slice(0, -20)))).toMatch(/cut/);
  expect(await problem(readLink('§$%'))).toMatch(/cut/);
  expect(await problem(readShared('{"a":1}'))).toMatch(/no routine/);
  expect(await problem(readShared('{"goldReed":3}'))).toMatch(/newer/);
  expect(await problem(readShared('hello'))).toMatch(/damaged/);
  const wrong = { ...week, days: [{ ...plan, date: 'tomorrow' }] };
  expect(await problem(readShared(JSON.stringify(wrong)))).toMatch(/days\.0\.date: must be a date/);
  const bomb = { ...week, name: ' '.repeat(40_000_000) };
  expect(await problem(readLink(await linkPart(bomb)))).toMatch(/cut/);
});
