import { noteNumber } from '@/core/tuning';
import { sinceLast } from '@/core/ledger';
import { rowOf } from '@/core/ledger/memory.testing';
import {
  afterBlock,
  again,
  blockNow,
  civilDay,
  dateOf,
  dayOfProgramme,
  crossedTold,
  endNow,
  isOver,
  lengthOf,
  outcomeOf,
  programmesFor,
  progressOf,
  sayChange,
  sessionOf,
  skipBlock,
  skipNow,
  takesOf,
  usualWishes,
  withFailedPlace,
  type Wishes,
} from '.';
import { named, plannedOn, playedFrom } from './plan.testing';

const MONDAY = civilDay('2026-11-23');
const plan = plannedOn([], { today: MONDAY });
const begun = () => sessionOf('s', new Date(0), plan.date, 'flute', 'A day', plan.blocks);

it('goes block by block to its end, and tells the takes that came of it', () => {
  let session = begun();
  for (let i = 0; !isOver(session); i++) session = afterBlock(session, `take-${i}`);
  expect(takesOf(session)).toHaveLength(plan.blocks.length);
  expect(blockNow(session)).toBeNull();
  const { done, total } = progressOf(session);
  expect(done).toBe(total);
});

it('plays one again, skips one, ends early, and leaves out what was left out of the day', () => {
  const once = afterBlock(begun(), 'first');
  expect(blockNow(again(once))).toEqual(plan.blocks[0]);
  const twice = afterBlock(again(once), 'second');
  expect(twice.done).toEqual([{ blockId: plan.blocks[0]!.id, takes: ['first', 'second'], skipped: false }]);
  expect(skipNow(once).done.at(-1)).toMatchObject({ takes: [], skipped: true });
  expect(isOver(endNow(once))).toBe(true);
  const without = skipBlock(plan, plan.blocks[1]!.id, true);
  expect(sessionOf('s', new Date(0), plan.date, 'flute', '', without.blocks).blocks).toHaveLength(
    plan.blocks.length - 1,
  );
  expect(() => sessionOf('s', new Date(0), plan.date, 'flute', '', [])).toThrow(RangeError);
});

describe('a place that failed', () => {
  const [low, high] = [noteNumber('D#5'), noteNumber('E5')];
  const crossed = crossedTold([...Array(6).keys()].map((i) => ({ from: low, to: high, clean: i < 2 })));

  const other = plan.blocks.findIndex(({ family }) => family === 'octave-slurs') + 1;

  it('comes next, alone and slower, once', () => {
    const session = { ...afterBlock(begun(), 'a'), at: other };
    const next = withFailedPlace(session, crossed, named('flute'), 'steady');
    expect(blockNow(next)).toMatchObject({
      family: 'just-this-seam',
      values: { from: low, to: high, tempo: 56 },
      why: { clean: 2, total: 6 },
    });
    expect(
      withFailedPlace({ ...next, at: next.at + 1 }, crossed, named('flute'), 'steady').blocks,
    ).toHaveLength(next.blocks.length);
  });

  it('does not come for a few slurs, nor where most of them held', () => {
    const session = { ...afterBlock(begun(), 'a'), at: other };
    const few = crossedTold([{ from: low, to: high, clean: false }]);
    const held = crossedTold([...Array(6).keys()].map((i) => ({ from: low, to: high, clean: i > 1 })));
    expect(withFailedPlace(session, few, named('flute'), 'steady')).toBe(session);
    expect(withFailedPlace(session, held, named('flute'), 'steady')).toBe(session);
  });
});

describe('against the time before', () => {
  const slurs = (clean: number, of: number) =>
    rowOf(0, { figures: { 'slurs-clean': [clean, null, of, of] } });
  const wobble = (value: number, spread: number) =>
    rowOf(0, { family: 'long-tone', figures: { wobble: [value, spread, 9, null] } });

  it('tells a difference from chance', () => {
    expect(sinceLast(slurs(19, 20), slurs(8, 20))?.verdict).toBe('better');
    expect(sinceLast(slurs(7, 9), slurs(5, 9))?.verdict).toBe('same');
    expect(sinceLast(slurs(8, 20), slurs(19, 20))?.verdict).toBe('worse');
    expect(sinceLast(wobble(2, 0.5), wobble(4, 0.5))?.verdict).toBe('better');
    expect(sinceLast(wobble(2, 3), wobble(4, 3))?.verdict).toBe('same');
    expect(sinceLast(slurs(3, 3), slurs(4, 4))?.verdict).toBe('same');
    expect(sinceLast(slurs(3, 3), wobble(2, 1))).toBeNull();
    // Of other music nothing is called better; the same slur played more often is the same.
    const elsewhere = { ...wobble(4, 0.5), parameters: { note: 74 } };
    expect(sinceLast(wobble(2, 0.5), elsewhere)).toMatchObject({ verdict: 'untold', setOtherwise: true });
  });

  it('is said with both figures and the day', () => {
    expect(sayChange(sinceLast(slurs(7, 9), slurs(5, 9))!, 2, 2)).toBe(
      '7 of 9 clean, 5 of 9 clean on Monday: no more apart than chance can do.',
    );
  });
});

describe('a programme', () => {
  const running = { id: 'holds', startedOn: MONDAY };
  const hold = (day: number, seconds: number) => ({
    day: MONDAY + day + 0.7,
    row: { family: 'long-hold', figures: { 'best-hold': [seconds, null, 1, null] as const } },
  });

  it('ends with what it changed and its interval, also when that is nothing', () => {
    const ends = (after: readonly number[]) =>
      outcomeOf(
        running,
        playedFrom([...[8, 9, 8.5].map((s, i) => hold(i, s)), ...after.map((s, i) => hold(53 + i, s))]),
        usualWishes,
        { offsetDays: 0 },
      )!;
    const better = ends([13, 14, 13.5]);
    expect(better.verdict).toBe('better');
    expect(better.change!.value).toBeCloseTo(5, 6);
    // Two samples of three, standard deviation 0.5 each: 5 ± t(4) · 0.408.
    expect(better.change!.low).toBeCloseTo(5 - 2.776 * 0.408, 1);
    expect(ends([8.2, 9.1, 8.4]).verdict).toBe('no-change');
    expect(ends([13]).verdict).toBe('unknown');
  });

  it('for an event lasts until its day, wherever that is moved, and is offered only where there is time for it', () => {
    const ready = { id: 'event', startedOn: MONDAY };
    const on = (days: number) => ({
      ...usualWishes,
      event: { name: 'Lantern Night', date: dateOf(MONDAY + days) },
    });
    expect(lengthOf(ready, on(21))).toBe(21);
    expect(dayOfProgramme(ready, on(21), MONDAY + 20)).toBe(21);
    expect(dayOfProgramme(ready, on(21), MONDAY + 21)).toBeNull();
    expect(dayOfProgramme(ready, on(25), MONDAY + 21)).toBe(22);
    expect(lengthOf(ready, usualWishes)).toBeNull();
    const offered = (wishes: Wishes) =>
      programmesFor(named('flute'), wishes, MONDAY).some(({ id }) => id === 'event');
    expect([on(30), on(10), on(9), usualWishes].map(offered)).toEqual([true, true, false, false]);
  });
});
