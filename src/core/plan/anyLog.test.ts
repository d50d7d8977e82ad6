import * as fc from 'fast-check';
import { runs } from '@/core/base/thinned.testing';
import { crossingsOf, instruments, writtenRange, type Instrument } from '@/core/instruments';
import { families, LEVELS, type Level } from '@/core/music';
import type { Played } from '@/core/ledger';
import { FAULT_KINDS } from '@/core/verdict';
import {
  civilDay,
  dateOf,
  doseOf,
  isRest,
  planDays,
  sayBlock,
  sayDay,
  sayWhy,
  scoreOfBlock,
  weekdayOf,
  type DayPlan,
} from '.';
import { named, planForOf, plannedOn, playedFrom, slursOf, type Asked, type Was } from './plan.testing';

const MONDAY = civilDay('2026-11-23');
const BETWEEN = 20;

/** One take of some exercise within the last two months, good or bad, with slurs over the instrument's breaks. */
const anyTake = (instrument: Instrument): fc.Arbitrary<Was> => {
  const crossings = crossingsOf(instrument);
  return fc
    .record({
      back: fc.integer({ min: 0, max: 60 }),
      family: fc.constantFrom(...families.map(({ id }) => id)),
      tempo: fc.integer({ min: 40, max: 160 }),
      fault: fc.option(fc.constantFrom(...FAULT_KINDS)),
      seam: fc.nat({ max: Math.max(0, crossings.length - 1) }),
      of: fc.integer({ min: 0, max: 12 }),
      share: fc.double({ min: 0, max: 1, noNaN: true }),
    })
    .map(({ back, family, tempo, fault, seam, of, share }) => {
      const place = crossings[seam];
      return {
        day: MONDAY - back + 0.5,
        row: { family, tempo, instrumentId: instrument.id, faults: fault ? { [fault]: 2 } : {} },
        slurs: place ? slursOf(place.from, place.to, Math.round(share * of), of) : [],
      };
    });
};

interface Case {
  readonly asked: Asked;
  readonly instrument: Instrument;
  readonly level: Level;
  readonly played: readonly Played[];
  readonly minutes: number;
}

const anyCase: fc.Arbitrary<Case> = fc
  .record({
    id: fc.constantFrom(...instruments.map(({ id }) => id)),
    level: fc.constantFrom(...LEVELS),
    minutes: fc.integer({ min: 5, max: 90 }),
    ahead: fc.integer({ min: 0, max: 6 }),
    sore: fc.boolean(),
  })
  .chain(({ id, level, minutes, ahead, sore }) =>
    fc.array(anyTake(named(id)), { maxLength: 25 }).map((takes) => ({
      instrument: named(id),
      level,
      minutes,
      played: playedFrom([...takes].sort((a, b) => a.day - b.day)),
      asked: {
        instrument: id,
        level,
        today: MONDAY + ahead,
        wishes: { minutes, soreOn: sore ? dateOf(MONDAY) : null },
      },
    })),
  );

const secondsOf = ({ blocks }: DayPlan) => blocks.reduce((sum, { seconds }) => sum + seconds + BETWEEN, 0);

/** Holds for a plan of any log: @throws with the case, made as small as it goes. */
const always = (check: (plan: DayPlan, of: Case) => void, numRuns = runs(60)): void =>
  fc.assert(
    fc.property(anyCase, (of) => check(plannedOn(of.played, of.asked), of)),
    { numRuns },
  );

describe('whatever was played before', () => {
  it('every block can be played on the instrument, within its range and its dose', () =>
    always(({ blocks }, { instrument, level }) => {
      const { low, high } = writtenRange(instrument);
      const doses = new Map<string, number>();
      for (const block of blocks) {
        if (isRest(block)) continue;
        const made = scoreOfBlock(block, instrument, level, 'english');
        if (!made.ok) throw new Error(`${block.family}: ${made.problem}`);
        for (const { written } of made.value.notes) {
          expect(written).toBeGreaterThanOrEqual(low);
          expect(written).toBeLessThanOrEqual(high);
        }
        doses.set(block.family!, (doses.get(block.family!) ?? 0) + block.seconds);
      }
      for (const [family, seconds] of doses) expect(seconds).toBeLessThanOrEqual(doseOf(family));
    }));

  it('a day is no longer than was asked for, and a sore one is half of it', () =>
    always((plan, { minutes, asked: { today, wishes } }) => {
      const sore = wishes?.soreOn !== null && today - MONDAY < 3;
      expect(plan.minutes).toBeLessThanOrEqual(Math.max(5, sore ? Math.ceil(minutes / 2) : minutes));
      expect(secondsOf(plan)).toBeLessThan(60 * plan.minutes * 1.25 + 60);
    }));

  it('it begins with a tone, not with a rest, and ends with no rest; every block is named once', () =>
    always(({ blocks }) => {
      expect(['room-check', 'long-tone']).toContain(blocks[0]!.family);
      expect(isRest(blocks.at(-1)!)).toBe(false);
      expect(new Set(blocks.map(({ id }) => id)).size).toBe(blocks.length);
      blocks.forEach((block, i) => {
        if (i > 0 && isRest(block)) expect(isRest(blocks[i - 1]!)).toBe(false);
      });
    }));

  it('it is the same from the same log, also seen from the days before', () =>
    always((plan, { played, asked }) => {
      expect(plannedOn(played, asked)).toEqual(plan);
      const [first] = planDays(planForOf(played, { ...asked, wishes: { ...asked.wishes, days: ALL } }), 1);
      expect(first!.plan).toEqual(plannedOn(played, { ...asked, wishes: { ...asked.wishes, days: ALL } }));
    }, 40));

  it('every block says why, and no sentence has a hole in it', () =>
    always((plan, { instrument, level, asked: { today } }) => {
      for (const block of plan.blocks) {
        expect(sayWhy(block.why, String, weekdayOf(today))).toMatch(SENTENCE);
        const made = isRest(block) ? null : scoreOfBlock(block, instrument, level, 'english');
        if (made?.ok) expect(sayBlock(block, made.value, String)).toMatch(SENTENCE);
      }
      expect(sayDay(plan, String)).toMatch(SENTENCE);
    }));
});

const ALL = Array<boolean>(7).fill(true);
/** Something is said, and nothing in it is a value that was not there. */
const SENTENCE = /^(?!.*(undefined|NaN|null|Infinity|\[object))(?=.*\S)/;
