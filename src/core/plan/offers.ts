import type { Random } from '@/core/base';
import { ascending, descending, greatest } from 'd3-array';
import { findFamily, LEVELS, type Level } from '@/core/music';
import type { Why } from './block';
import { DRILLS, HEAVY, loadOf, SEAM_DRILLS, type Part, type Target, type Turn } from './drills';
import { hasOpened, holdOf, seamPriority, skillPriority, weakestOf } from './due';
import type { PlanFor } from './planFor';
import { setKey, type BreakStanding, type Standing } from './standing';
import { civilDay, type CivilDay, type Wishes } from './wishes';

/** Something that a day could have, and why. */
export interface Offer {
  readonly family: string;
  readonly values: (size: number) => Readonly<Record<string, unknown>> | null;
  readonly why: Why;
}

/** So many days before an event nothing new is begun. */
const NOTHING_NEW_DAYS = 2;
/** By then everything of the player's purposes has come. */
const PURPOSE_DAYS = 8;
const PURPOSE_WEIGHT = 1.6;
const PURPOSE_LATE = 4;

const isAtLeast = (level: Level, from: Level | undefined): boolean =>
  from === undefined || LEVELS.indexOf(level) >= LEVELS.indexOf(from);

function fits(
  { instrument, level }: PlanFor,
  family: string,
  from: Level | undefined,
  light: boolean,
): boolean {
  const found = findFamily(family);
  if (!found || found.unfit(instrument) !== null || !isAtLeast(level, from)) return false;
  return light ? loadOf(family) < HEAVY : true;
}

/** The event that is so near that nothing new is begun; null: none is. */
export function eventNear({ event }: Wishes, day: CivilDay): Wishes['event'] {
  const inDays = event ? civilDay(event.date) - day : -1;
  return inDays >= 0 && inDays <= NOTHING_NEW_DAYS ? event : null;
}

const nothingNew = ({ wishes, day }: PlanFor): boolean => eventNear(wishes, day) !== null;

/** One that asks so much more than the next is practised twice before that has its turn. */
const TWICE = 1.6;
/** In one day. */
const MOST_TIMES = 3;

/**
 * What is practised over breaks, that which asks most first: for each the ways to do it today. A break comes again, in another
 * way, where it asks much more than the others.
 */
export function seamOffers(planFor: PlanFor, turn: Turn, heavyToo: boolean): Offer[][] {
  const { standing, day } = planFor;
  const isWithin = ({ above, of }: BreakStanding) => above <= turn.comfort.high || of >= 5;
  const within = standing.breaks.filter(isWithin);
  const known = nothingNew(planFor) ? within.filter(({ of }) => of >= 5) : within;
  const asking = known
    .map((place) => ({ place, priority: seamPriority(place, day) }))
    .filter(({ place }) => waysOver(place, planFor, turn, heavyToo).length > 0);
  const order: BreakStanding[] = [];
  for (let i = 0; i < MOST_TIMES * known.length; i++) {
    const most = greatest(
      asking,
      (a, b) => ascending(a.priority, b.priority) || descending(a.place.below, b.place.below),
    );
    if (!most || most.priority <= 0) break;
    order.push(most.place);
    // Once it is in the day, it asks less.
    const times = order.filter((place) => place === most.place).length;
    most.priority = times < MOST_TIMES ? most.priority / TWICE : 0;
  }
  return order.map((place) => waysOver(place, planFor, turn, heavyToo));
}

function waysOver(place: BreakStanding, planFor: PlanFor, turn: Turn, heavyToo: boolean): Offer[] {
  const { standing, day } = planFor;
  const hold = holdOf(place) ?? 0.4;
  const weakest = weakestOf(place);
  const up = turn.round % 2 === 0;
  const target: Target = {
    below: place.below,
    above: place.above,
    from: weakest?.from ?? (up ? place.below : place.above),
    to: weakest?.to ?? (up ? place.above : place.below),
  };
  const why = whySeam(place, target, day);
  const right = SEAM_DRILLS.filter(
    ({ family, from, right: [low, high] }) =>
      hold >= low && hold <= high && fits(planFor, family, from, !heavyToo),
  );
  // Round by round another way, so that no day has the notes of the day before.
  const ways = right.map((_, i) => right[(i + place.times) % right.length]!);
  return ways
    .filter(({ family, values }) => isFresh(standing, family, values(turn, target, 0)))
    .map(({ family, values }) => ({ family, values: (size) => values(turn, target, size), why }));
}

const isFresh = ({ lastSets }: Standing, family: string, values: Readonly<Record<string, unknown>> | null) =>
  values !== null && !lastSets.has(setKey(family, values));

function whySeam(place: BreakStanding, { from, to }: Target, day: CivilDay): Why {
  const weakest = weakestOf(place);
  if (!weakest) return { of: 'seam-unheard', from, to };
  const { last, lately } = weakest;
  const told = { from, to, clean: last.clean, total: last.of, daysAgo: Math.max(0, day - last.day) };
  if (hasOpened(weakest)) return { of: 'seam-opened', ...told };
  if (weakest.share >= 0.85) return { of: 'seam-holds', ...told };
  // A good last day is no reason: then it is the weeks before that are.
  const wasGood = last.clean / last.of > weakest.share;
  return wasGood && lately.of > last.of
    ? { of: 'seam-lately', from, to, clean: lately.clean, total: lately.of }
    : { of: 'seam', ...told };
}

/** Other exercises, those that ask most first, no two in a row of one part of the work. */
export function skillOffers(planFor: PlanFor, turn: Turn, heavyToo: boolean, random: Random): Offer[][] {
  const { standing, wishes, day } = planFor;
  const ranked = DRILLS.map((row) => {
    const chance = random.between(0.93, 1.07);
    const skill = standing.skills.get(row.family);
    const serves = findFamily(row.family)?.purposes.find((purpose) => wishes.purposes.includes(purpose));
    const waited = skill ? day - skill.lastDay : Infinity;
    const weight = !serves ? 1 : waited >= PURPOSE_DAYS ? PURPOSE_LATE : PURPOSE_WEIGHT;
    return { row, skill, serves, priority: skillPriority(skill, day) * weight * chance };
  })
    .filter(({ row: { family, part, from, values }, skill }) => {
      if (part === 'music' || part === 'exploring') return false;
      if (nothingNew(planFor) && !skill) return false;
      return fits(planFor, family, from, !heavyToo) && isFresh(standing, family, values(turn, 0));
    })
    .sort((a, b) => descending(a.priority, b.priority));
  const picks: Offer[][] = [];
  const taken = new Set<Part>();
  const rest = [...ranked];
  while (rest.length > 0) {
    // Of each part of the work one, before any has two.
    const at = Math.max(
      0,
      rest.findIndex(({ row }) => !taken.has(row.part)),
    );
    const [{ row, skill, serves }] = rest.splice(at, 1) as [(typeof rest)[number]];
    if (taken.has(row.part)) taken.clear();
    taken.add(row.part);
    picks.push([
      {
        family: row.family,
        values: (size) => row.values(turn, size),
        why: whySkill(row.ofProblem === true, skill, serves ?? null, turn, day),
      },
    ]);
  }
  return picks;
}

function whySkill(
  ofProblem: boolean,
  skill: ReturnType<Standing['skills']['get']>,
  serves: Extract<Why, { of: 'purpose' }>['purpose'] | null,
  { problem }: Turn,
  day: CivilDay,
): Why {
  if (ofProblem && problem)
    return {
      of: 'note',
      written: problem.note.written,
      cents: Math.round(problem.note.centre),
      takes: problem.note.takes,
    };
  if (!skill) return serves ? { of: 'purpose', purpose: serves } : { of: 'not-yet' };
  if (skill.fault) return { of: 'fault', fault: skill.fault.kind, takes: skill.fault.takes, total: skill.of };
  return { of: 'due', daysAgo: Math.max(0, day - skill.lastDay) };
}

/** Something to end on: music on one day, exploring on the next; what was longest not played. */
export function closingOf(planFor: PlanFor, turn: Turn): Offer[] {
  const { standing } = planFor;
  const part: Part = turn.round % 2 === 0 ? 'music' : 'exploring';
  const lastOf = (family: string) => standing.skills.get(family)?.lastDay ?? -Infinity;
  return DRILLS.filter(
    (row) =>
      row.part === part &&
      fits(planFor, row.family, row.from, part === 'exploring') &&
      !(nothingNew(planFor) && !standing.skills.has(row.family)) &&
      isFresh(standing, row.family, row.values(turn, 0)),
  )
    .sort((a, b) => ascending(lastOf(a.family), lastOf(b.family)))
    .map(({ family, values }) => ({
      family,
      values: (size) => values(turn, size),
      why: { of: part === 'music' ? 'music' : 'exploring' },
    }));
}
