import * as fc from 'fast-check';
import {
  addBlock,
  civilDay,
  dateOf,
  isPracticeDay,
  lockBlock,
  moveBlock,
  moveToDay,
  nextPracticeDay,
  ordinalOf,
  replanned,
  scoreOfBlock,
  seamInterval,
  seamPriority,
  shortenBlock,
  skipBlock,
  swapBlock,
  usualWishes,
  type BreakStanding,
  type DayPlan,
  type SeamStanding,
} from '.';
import { planForOf, plannedOn } from './plan.testing';

const MONDAY = civilDay('2026-11-23');
const PLAN_FOR = planForOf([], { instrument: 'oboe', today: MONDAY, wishes: { minutes: 45 } });
const DAY = plannedOn([], { instrument: 'oboe', today: MONDAY, wishes: { minutes: 45 } });

/** One change by hand, at the block that is at a place in the day. */
type Change = (day: DayPlan, id: string) => DayPlan;
const anyChange: fc.Arbitrary<{ name: string; change: Change }> = fc.oneof(
  fc.integer({ min: -4, max: 4 }).map((by) => ({
    name: `move by ${by}`,
    change: (day: DayPlan, id: string) => moveBlock(day, id, by),
  })),
  fc
    .boolean()
    .map((on) => ({ name: `skip ${on}`, change: (day: DayPlan, id: string) => skipBlock(day, id, on) })),
  fc
    .boolean()
    .map((on) => ({ name: `lock ${on}`, change: (day: DayPlan, id: string) => lockBlock(day, id, on) })),
  fc.constant({ name: 'shorten', change: shortenBlock }),
  fc.constant({ name: 'swap', change: (day: DayPlan, id: string) => swapBlock(day, id, PLAN_FOR) }),
  fc.constant({
    name: 'twice',
    change: (day: DayPlan, id: string) =>
      addBlock(
        day,
        day.blocks.find((block) => block.id === id)!,
      ),
  }),
);
const anyChanges = fc.array(fc.record({ at: fc.nat({ max: 30 }), made: anyChange }), { maxLength: 12 });

const changedBy = (changes: readonly { at: number; made: { change: Change } }[]): DayPlan =>
  changes.reduce((day, { at, made }) => made.change(day, day.blocks[at % day.blocks.length]!.id), DAY);
const familiesOf = ({ blocks }: DayPlan) => blocks.map(({ family }) => family);

describe('whatever is changed by hand', () => {
  const before = JSON.stringify(DAY);

  it('the day stays one that can be played, each block named once, and the day before stays as it was', () => {
    fc.assert(
      fc.property(anyChanges, (changes) => {
        const day = changedBy(changes);
        expect(JSON.stringify(DAY)).toBe(before);
        expect(new Set(day.blocks.map(({ id }) => id)).size).toBe(day.blocks.length);
        expect(day.blocks.length).toBe(
          DAY.blocks.length + changes.filter(({ made: { name } }) => name === 'twice').length,
        );
        for (const block of day.blocks) {
          expect(block.repeats).toBeGreaterThanOrEqual(1);
          expect(block.seconds).toBeGreaterThan(0);
          if (block.family !== null)
            expect(scoreOfBlock(block, PLAN_FOR.instrument, 'steady', 'english').ok).toBe(true);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('what is locked is there in any other minutes, and nothing of it is changed', () => {
    fc.assert(
      fc.property(anyChanges, fc.integer({ min: 5, max: 60 }), (changes, minutes) => {
        const day = changedBy(changes);
        const again = replanned(day, { ...PLAN_FOR, minutes });
        expect(again.blocks.filter(({ locked }) => locked)).toEqual(
          day.blocks.filter(({ locked }) => locked),
        );
        expect(new Set(again.blocks.map(({ id }) => id)).size).toBe(again.blocks.length);
      }),
      { numRuns: 60 },
    );
  });

  it('a block that goes to another day is there and no longer here', () => {
    const next = plannedOn([], { instrument: 'oboe', today: MONDAY + 1, wishes: { minutes: 45 } });
    fc.assert(
      fc.property(anyChanges, fc.nat({ max: 30 }), (changes, at) => {
        const day = changedBy(changes);
        const moving = day.blocks[at % day.blocks.length]!;
        const [here, there] = moveToDay(day, next, moving.id);
        expect(here.blocks).toEqual(day.blocks.filter((block) => block !== moving));
        expect(familiesOf(there)).toEqual([...familiesOf(next), moving.family]);
        expect(there.blocks.at(-1)).toMatchObject({ locked: true, skipped: false, seconds: moving.seconds });
      }),
      { numRuns: 40 },
    );
  });
});

describe('practice days', () => {
  const anyDays = fc
    .array(fc.boolean(), { minLength: 7, maxLength: 7 })
    .filter((days) => days.some((practised) => practised))
    .map((days) => ({ ...usualWishes, days }));
  const anyDay = fc.integer({ min: -20_000, max: 60_000 });

  it('are counted one by one, whatever days of the week they are', () => {
    fc.assert(
      fc.property(anyDays, anyDay, (wishes, day) => {
        const next = nextPracticeDay(wishes, day);
        expect(next).toBeGreaterThan(day);
        expect(isPracticeDay(wishes, next)).toBe(true);
        expect(ordinalOf(wishes, nextPracticeDay(wishes, next)) - ordinalOf(wishes, next)).toBe(1);
      }),
    );
  });

  it('are dates, and back', () => {
    fc.assert(fc.property(anyDay, (day) => civilDay(dateOf(day)) === day));
    for (const wrong of ['2026-13-01', '2026-02-30x', '', 'yesterday'])
      expect(() => civilDay(wrong)).toThrow(RangeError);
  });
});

describe('what a break asks for', () => {
  /** A break with one way over it, last heard some days ago. */
  const standing = (share: number, held: number, ago: number): BreakStanding => {
    const of = 10;
    const clean = Math.round(share * of);
    const seam: SeamStanding = {
      from: 75,
      to: 76,
      share,
      clean,
      of: 3 * of,
      lately: { clean, of },
      last: { day: MONDAY - ago, clean, of },
      held,
    };
    return { below: 75, above: 76, seams: [seam], share, of: 3 * of, lastDay: MONDAY - ago, held, times: 5 };
  };
  const anyShare = fc.double({ min: 0, max: 1, noNaN: true });
  const anyHeld = fc.integer({ min: 0, max: 12 });
  const anyAgo = fc.integer({ min: 0, max: 60 });

  it('is never less after a longer wait, and comes back after four weeks at the latest', () => {
    fc.assert(
      fc.property(anyShare, anyHeld, anyAgo, (share, held, ago) => {
        const now = seamPriority(standing(share, held, ago), MONDAY);
        expect(seamPriority(standing(share, held, ago + 1), MONDAY)).toBeGreaterThanOrEqual(now);
        const interval = seamInterval(standing(share, held, ago));
        expect(interval).toBeGreaterThanOrEqual(1);
        expect(interval).toBeLessThanOrEqual(28);
      }),
    );
  });

  it('is more where less of it held, and waits longer the more days it has held', () => {
    fc.assert(
      fc.property(anyShare, anyShare, anyHeld, anyAgo, (one, other, held, ago) => {
        const [worse, better] = [Math.min(one, other), Math.max(one, other)];
        // Shares within a step of the way they are told in are the same.
        fc.pre(better - worse > 0.1);
        expect(seamPriority(standing(worse, held, ago), MONDAY)).toBeGreaterThanOrEqual(
          seamPriority(standing(better, held, ago), MONDAY),
        );
        expect(seamInterval(standing(better, held + 1, ago))).toBeGreaterThanOrEqual(
          seamInterval(standing(better, held, ago)),
        );
      }),
    );
  });
});
