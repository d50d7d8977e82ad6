import { displayName } from '@/core/tuning';
import { findFamily, PURPOSES } from '@/core/music';
import {
  addBlock,
  civilDay,
  dateOf,
  isRest,
  lockBlock,
  moveBlock,
  planDays,
  replanned,
  sayBlock,
  scoreOfBlock,
  seenFrom,
  shortenBlock,
  skipBlock,
  standing,
  swapBlock,
  type DayPlan,
} from '.';
import { limitsOf } from '@/core/verdict';
import { named, planForOf, plannedOn, playedFrom, slursOf } from './plan.testing';

const MONDAY = civilDay('2026-11-23');
const everyDay = Array<boolean>(7).fill(true);

/** Notes of each exercise of a day, as one would see them on the stand. */
function noteSets({ blocks }: DayPlan, instrument: string): Set<string> {
  return new Set(
    blocks.flatMap((block) => {
      if (isRest(block) || block.family === 'room-check') return [];
      const made = scoreOfBlock(block, named(instrument), 'steady', 'english');
      if (!made.ok || made.value.notes.length === 0) return [];
      const notes = [...new Set(made.value.notes.map(({ written }) => written))].sort((a, b) => a - b);
      return [`${block.family} ${notes.join(' ')}`];
    }),
  );
}

describe('two simulated months', () => {
  for (const instrument of ['flute', 'clarinet-bb', 'bassoon', 'whistle-d']) {
    const days = planDays(planForOf([], { instrument, today: MONDAY, wishes: { days: everyDay } }), 60);
    const plans = days.map(({ plan }) => plan!);

    it(`have no exercise with the same notes on two days running (${instrument})`, () => {
      for (let i = 1; i < plans.length; i++) {
        const before = noteSets(plans[i - 1]!, instrument);
        const again = [...noteSets(plans[i]!, instrument)].filter((set) => before.has(set));
        expect({ day: i, again }).toEqual({ day: i, again: [] });
      }
    });

    it(`are soft, middling and loud in turn, and begin low, in the middle and high (${instrument})`, () => {
      const first = plans.map(({ blocks }) => blocks.find(({ family }) => family === 'long-tone')!.values);
      expect(new Set(first.map(({ dynamic }) => dynamic))).toEqual(new Set(['p', 'mf', 'f']));
      expect(new Set(first.map(({ note }) => note)).size).toBeGreaterThan(5);
    });

    it(`leave no part of the work out (${instrument})`, () => {
      const sections = new Set(
        plans.flatMap(({ blocks }) => blocks.map(({ family }) => family && findFamily(family)?.section)),
      );
      for (const section of ['sound', 'seams', 'dynamics', 'intonation', 'rhythm'])
        expect(sections).toContain(section);
    });
  }
});

it('meets every exercise of a purpose within two weeks', () => {
  for (const purpose of PURPOSES.filter(
    (each) => each !== 'warming up' && each !== 'music' && each !== 'breath and air',
  )) {
    const planFor = planForOf([], {
      today: MONDAY,
      wishes: { days: everyDay, minutes: 30, purposes: [purpose] },
    });
    const met = new Set(
      planDays(planFor, 14).flatMap(({ plan }) => plan?.blocks.map(({ family }) => family) ?? []),
    );
    const offered = planDays(planForOf([], { today: MONDAY, wishes: { days: everyDay, minutes: 60 } }), 60);
    const plannable = new Set(offered.flatMap(({ plan }) => plan?.blocks.map(({ family }) => family) ?? []));
    const wanted = [...plannable].filter(
      (family) => family !== null && findFamily(family)?.purposes.includes(purpose),
    );
    expect({ purpose, missing: wanted.filter((family) => !met.has(family)) }).toEqual({
      purpose,
      missing: [],
    });
  }
});

it('sees another day as if it had been asked for by itself', () => {
  const flute = named('flute');
  const played = playedFrom(
    [9.2, 3.5, 1.4, 0.3].map((ago) => ({
      day: MONDAY - ago,
      row: { family: ago < 2 ? 'octave-slurs' : 'long-tone' },
      slurs: slursOf(74, 76, 5, 6),
    })),
  );
  const seenOn = (today: number) =>
    standing(played, flute, limitsOf('steady'), MONDAY + 0.5, { today, offsetDays: 0 });
  for (const day of [MONDAY - 2, MONDAY, MONDAY + 1, MONDAY + 5])
    expect(seenFrom(seenOn(MONDAY), played, { today: day, offsetDays: 0 })).toEqual(seenOn(day));
  expect(seenOn(MONDAY + 5).lastSets.size).toBe(0);
  expect(seenOn(MONDAY).lastSets.size).toBe(1);
});

it('plans around days off, and takes days of the player’s own as they are', () => {
  const planFor = planForOf([], { today: MONDAY });
  const own = { ...plannedOn([], { today: MONDAY }), date: dateOf(MONDAY + 2), minutes: 7 };
  const week = planDays(planFor, 7, { [own.date]: own });
  expect(week.map(({ plan }) => plan !== null)).toEqual([true, true, true, true, true, true, false]);
  expect(week[2]!.plan).toBe(own);
});

describe('a day that is changed by hand', () => {
  const planFor = planForOf([], { today: MONDAY, wishes: { minutes: 30 } });
  const day = plannedOn([], { today: MONDAY, wishes: { minutes: 30 } });
  const ids = ({ blocks }: DayPlan) => blocks.map(({ id }) => id);
  const at = (i: number) => day.blocks[i]!.id;

  it('is moved, and the ends are the ends', () => {
    expect(ids(moveBlock(day, at(1), 1))).toEqual([at(0), at(2), at(1), ...ids(day).slice(3)]);
    expect(moveBlock(day, at(0), -1)).toBe(day);
    expect(ids(day)).toEqual(ids(day));
  });

  it('is shortened, left out and put back, and nothing of it is lost', () => {
    const long = day.blocks.find(({ repeats }) => repeats > 1)!;
    const shorter = shortenBlock(day, long.id).blocks.find(({ id }) => id === long.id)!;
    expect(shorter.repeats).toBe(long.repeats - 1);
    expect(shorter.seconds).toBeLessThan(long.seconds);
    expect(skipBlock(skipBlock(day, at(1), true), at(1), false)).toEqual(day);
  });

  it('has another exercise in the place of one', () => {
    const before = day.blocks[2]!;
    const swapped = swapBlock(day, before.id, planFor);
    expect(swapped.blocks).toHaveLength(day.blocks.length);
    expect(day.blocks.map(({ family }) => family)).not.toContain(swapped.blocks[2]!.family);
  });

  it('keeps what is locked when it is planned anew in ten minutes', () => {
    const locked = lockBlock(day, at(2), true);
    const short = replanned(locked, { ...planFor, minutes: 10 });
    expect(short.blocks[2]).toEqual({ ...day.blocks[2]!, locked: true });
    const first = replanned(lockBlock(day, at(0), true), { ...planFor, minutes: 10 });
    expect(first.blocks[0]).toEqual({ ...day.blocks[0]!, locked: true });
    expect(short.minutes).toBe(10);
    expect(new Set(ids(short)).size).toBe(short.blocks.length);
  });

  it('may have one exercise twice', () => {
    const twice = addBlock(day, day.blocks[1]!);
    expect(new Set(ids(twice)).size).toBe(day.blocks.length + 1);
  });

  it('says of each block which notes it has', () => {
    const block = day.blocks.find(({ family }) => family === 'long-tone')!;
    const made = scoreOfBlock(block, planFor.instrument, 'steady', 'english');
    expect(made.ok && sayBlock(block, made.value, (written) => displayName(written, 'english'))).toMatch(
      /^[A-G]/,
    );
  });
});
