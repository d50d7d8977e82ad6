import { civilDay, sessionOf, usualWishes } from '@/core/plan';
import { plannedOn } from '@/core/plan/plan.testing';
import {
  changePlans,
  NO_PLANS,
  PLANS_KEY,
  readPlans,
  readSession,
  withPast,
  withPlan,
  withPlansOf,
  withRoutine,
  writeSession,
} from './planStore';
import { MapStorage } from './storage.testing';
import type { Tab } from './tab';

const day = plannedOn([], { today: civilDay('2026-11-26') });
const routine = { id: 'a', name: 'Before rehearsals', instrumentId: 'flute', blocks: day.blocks };
const session = (id: string) => sessionOf(id, new Date(0), day.date, 'flute', 'A day', day.blocks);
const tabOf = (id: string, ...open: string[]): Tab => ({ id, open: () => Promise.resolve(new Set(open)) });

describe('plans', () => {
  it('keep what was told by instrument, and days of the player’s own until two months after', () => {
    const told = withPlan(NO_PLANS, 'flute', { wishes: { ...usualWishes, minutes: 35 } }, day.date);
    const later = withPlan(told, 'flute', { days: { [day.date]: day, '2026-01-01': day } }, day.date);
    expect(later.plans['flute']).toMatchObject({ wishes: { minutes: 35 }, days: { [day.date]: day } });
    expect(Object.keys(later.plans['flute']!.days)).toEqual([day.date]);
    expect(withPlan(later, 'flute', { programme: null }, '2027-03-01').plans['flute']!.days).toEqual({});
  });

  it('are stored, and read as they were; what cannot be read is told and left as it lies', async () => {
    const storage = new MapStorage();
    await changePlans(storage, 'log', (plans) => withRoutine(plans, routine));
    await Promise.all([
      changePlans(storage, 'log', (plans) => withRoutine(plans, { ...routine, id: 'b' })),
      changePlans(storage, 'log', (plans) => withPast(plans, session('s'))),
    ]);
    const read = await readPlans(storage);
    expect(read.routines.map(({ id }) => id)).toEqual(['a', 'b']);
    expect(read.past).toEqual([session('s')]);
    storage.map.set(PLANS_KEY, '{"version":1,"plans":');
    await expect(readPlans(storage)).rejects.toThrow(/plans/);
    await expect(changePlans(storage, 'log', () => NO_PLANS)).rejects.toThrow();
    expect(storage.map.get(PLANS_KEY)).toBe('{"version":1,"plans":');
  });

  it('of an archive fill what is missing and take the place of nothing', () => {
    const mine = withRoutine(
      withPlan(NO_PLANS, 'flute', { wishes: { ...usualWishes, minutes: 35 } }, day.date),
      routine,
    );
    const theirs = withRoutine(
      withRoutine(withPlan(withPlan(NO_PLANS, 'oboe', {}, day.date), 'flute', {}, day.date), {
        ...routine,
        name: 'Other',
      }),
      { ...routine, id: 'b' },
    );
    const both = withPlansOf(mine, theirs);
    expect(Object.keys(both.plans).sort()).toEqual(['flute', 'oboe']);
    expect(both.plans['flute']!.wishes.minutes).toBe(35);
    expect(both.routines.map(({ name }) => name)).toEqual(['Before rehearsals', 'Before rehearsals']);
  });
});

describe('a session that goes on', () => {
  it('is its tab’s own, is taken up where its tab is gone, and ends without a trace', async () => {
    const storage = new MapStorage();
    await writeSession(storage, 'log', tabOf('one'), session('s1'));
    await writeSession(storage, 'log', tabOf('two'), session('s2'));
    expect((await readSession(storage, tabOf('one', 'two')))?.id).toBe('s1');
    expect(await readSession(storage, tabOf('three', 'one', 'two'))).toBeNull();
    expect((await readSession(storage, tabOf('three', 'one')))?.id).toBe('s2');
    await writeSession(storage, 'log', tabOf('three'), { ...session('s2'), at: 1 });
    expect((await readSession(storage, tabOf('two', 'three')))?.id).toBe('s1');
    await writeSession(storage, 'log', tabOf('three'), null);
    await writeSession(storage, 'log', tabOf('one'), null);
    expect(await readSession(storage, tabOf('four'))).toBeNull();
  });
});
