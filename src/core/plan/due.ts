import type { BreakStanding, SeamStanding, SkillStanding } from './standing';
import type { CivilDay } from './wishes';

/** Days until something is due again: spaced by how it holds (docs/planning.md). */
const LONGEST_DAYS = 28;
const SEAM_DAYS = [
  { below: 0.6, days: 1 },
  { below: 0.85, days: 1.2 },
  { below: 0.9, days: 2.5 },
  { below: Infinity, days: 3 },
] as const;
const SEAM_GROWS = 1.25;
const SKILL_DAYS = 3;
const SKILL_GROWS = 1.5;
/** Fewer crossings tell nothing of a break. */
export const FEW_CROSSINGS = 5;
const FEW_OF_PAIR = 4;
/** A last day under this has opened what held. */
const OPENED = 0.8;
/** Nothing gets more pressing by waiting longer than this many of its intervals. */
const MOST_OVERDUE = 3;
/** What is not due yet can still be taken where nothing else is. */
const NOT_DUE = 0.3;
const NOT_YET = 1.4;

/** The weakest way over a break that has been heard enough; null: none has. */
export const weakestOf = ({ seams }: BreakStanding): SeamStanding | null =>
  seams.find(({ of }) => of >= FEW_OF_PAIR) ?? null;

/** How well a break holds, its weakest way counting as much as all of it; null: too little was heard. */
export function holdOf(place: BreakStanding): number | null {
  if (place.of < FEW_CROSSINGS) return null;
  return (place.share + (weakestOf(place)?.share ?? place.share)) / 2;
}

/** Whether what held before came open on the last day. */
export function hasOpened({ share, last, of }: SeamStanding): boolean {
  return of > last.of && share >= 0.7 && last.of >= FEW_OF_PAIR && last.clean / last.of < OPENED;
}

/** Days until a seam is asked for again: more the better it holds and the more often it has held. */
export function seamInterval(place: BreakStanding): number {
  const hold = holdOf(place);
  if (hold === null) return 1;
  const weakest = weakestOf(place);
  if (weakest && hasOpened(weakest)) return 1;
  const { days } = SEAM_DAYS.find(({ below }) => hold < below)!;
  return Math.min(LONGEST_DAYS, days * SEAM_GROWS ** Math.max(0, place.held - 1));
}

const pressing = (waited: number): number =>
  waited < 0.9 ? NOT_DUE * waited : Math.min(MOST_OVERDUE, waited);

/** How much a break asks for its place in a day. */
export function seamPriority(place: BreakStanding, day: CivilDay): number {
  const hold = holdOf(place) ?? 0.5;
  const waited = place.lastDay === null ? NOT_YET : (day - place.lastDay) / seamInterval(place);
  return pressing(waited) * (0.2 + (1 - hold));
}

/** The same for an exercise: longer each time it is kept in order. */
export const skillInterval = ({ held }: SkillStanding): number =>
  Math.min(LONGEST_DAYS, held === 0 ? SKILL_DAYS : (SKILL_DAYS + 1) * SKILL_GROWS ** (held - 1));

/** How much an exercise asks for its place. @param skill undefined: it has not been played yet. */
export function skillPriority(skill: SkillStanding | undefined, day: CivilDay): number {
  if (!skill) return NOT_YET * 0.9;
  const need = 0.4 + skill.troubled / skill.of;
  return pressing((day - skill.lastDay) / skillInterval(skill)) * need;
}
