import type { Block, DayPlan } from './block';
import { planDay } from './day';
import type { PlanFor } from './planFor';
import { setKey, type BreakStanding, type SkillStanding, type Standing } from './standing';
import { dateOf, isPracticeDay, weekdayOf, type CivilDay } from './wishes';

/** The standing as it will be after a day that goes by its plan, with everything holding as it does now. */
export function afterPlan(standing: Standing, { blocks }: DayPlan, day: CivilDay): Standing {
  const played = blocks.filter(({ family, skipped }) => family !== null && !skipped);
  if (played.length === 0) return { ...standing, today: day + 1 };
  const skills = new Map(standing.skills);
  for (const { family, values } of played)
    skills.set(family!, practised(skills.get(family!), family!, values, day));
  return {
    ...standing,
    today: day + 1,
    skills,
    breaks: standing.breaks.map((place) =>
      played.some((block) => crosses(block, place))
        ? {
            ...place,
            lastDay: day,
            times: place.times + 1,
            held: place.share >= 0.85 ? place.held + 1 : place.held,
          }
        : place,
    ),
    daysPlayed: [...standing.daysPlayed, day],
    lastSets: new Set(played.map(({ family, values }) => setKey(family!, values))),
  };
}

const practised = (
  before: SkillStanding | undefined,
  family: string,
  parameters: Block['values'],
  lastDay: CivilDay,
): SkillStanding =>
  before
    ? {
        ...before,
        times: before.times + 1,
        lastDay,
        held: before.troubled === 0 ? before.held + 1 : before.held,
      }
    : {
        family,
        times: 1,
        lastDay,
        troubled: 0,
        of: 1,
        fault: null,
        held: 1,
        last: { parameters, tempo: null },
      };

/** A planned block is about the seam that its reason names. */
function crosses({ why }: Block, { above }: BreakStanding): boolean {
  return 'from' in why && Math.min(why.from, why.to) < above && Math.max(why.from, why.to) >= above;
}

/** The day a week begins with, Monday. */
export const mondayOf = (day: CivilDay): CivilDay => day - weekdayOf(day);

/**
 * What is planned from today on, day by day; null: no practice day. Days of the player's own making are taken as they are.
 * @param own by date.
 */
export function planDays(
  from: Omit<PlanFor, 'day' | 'locked'>,
  days: number,
  own: Readonly<Record<string, DayPlan>> = {},
): { readonly day: CivilDay; readonly plan: DayPlan | null }[] {
  let { standing } = from;
  const first = standing.today;
  return Array.from({ length: days }, (_, i) => {
    const day = first + i;
    const kept = own[dateOf(day)];
    const plan = kept ?? (isPracticeDay(from.wishes, day) ? planDay({ ...from, standing, day }) : null);
    standing = plan ? afterPlan(standing, plan, day) : { ...standing, today: day + 1 };
    return { day, plan };
  });
}
