import type { Block, DayPlan } from './block';
import { planDay } from './day';
import type { PlanFor } from './planFor';

/** Changes that a player makes to a day. Each gives a new day and leaves the old one as it was. */
const changed = (plan: DayPlan, id: string, part: Partial<Block>): DayPlan => ({
  ...plan,
  blocks: plan.blocks.map((block) => (block.id === id ? { ...block, ...part } : block)),
});

/** Left out of the day, or back in it. */
export const skipBlock = (plan: DayPlan, id: string, skipped: boolean): DayPlan =>
  changed(plan, id, { skipped });
/** Held where it is when the day is planned anew, or let go. */
export const lockBlock = (plan: DayPlan, id: string, locked: boolean): DayPlan =>
  changed(plan, id, { locked });

/** Played once less often; a block that is played once stays as it is. */
export function shortenBlock(plan: DayPlan, id: string): DayPlan {
  const block = plan.blocks.find((each) => each.id === id);
  if (!block || block.repeats <= 1) return plan;
  const repeats = block.repeats - 1;
  return changed(plan, id, { repeats, seconds: Math.round((block.seconds / block.repeats) * repeats) });
}

/** To another place of the day. @param by places later, or earlier where negative; the ends are the ends. */
export function moveBlock(plan: DayPlan, id: string, by: number): DayPlan {
  const at = plan.blocks.findIndex((block) => block.id === id);
  const to = Math.min(plan.blocks.length - 1, Math.max(0, at + by));
  if (at < 0 || to === at) return plan;
  const blocks = plan.blocks.filter((block) => block.id !== id);
  blocks.splice(to, 0, plan.blocks[at]!);
  return { ...plan, blocks };
}

/** A block more, at the end of the day, under an id that is free. */
export const addBlock = (plan: DayPlan, block: Block): DayPlan => ({
  ...plan,
  blocks: [...plan.blocks, { ...block, id: freeId(plan, block.id) }],
});

/** To another day, where it stays. @returns the two days, in the order they were given. */
export function moveToDay(from: DayPlan, to: DayPlan, id: string): readonly [DayPlan, DayPlan] {
  const block = from.blocks.find((each) => each.id === id);
  if (!block) return [from, to];
  return [
    { ...from, blocks: from.blocks.filter((each) => each !== block) },
    addBlock(to, { ...block, locked: true, skipped: false }),
  ];
}

function freeId({ blocks }: DayPlan, id: string): string {
  let free = id;
  while (blocks.some((block) => block.id === free)) free += '+';
  return free;
}

/** Another exercise in the place of one: what asks most of what the day does not have yet. The day as it was, where nothing else fits. */
export function swapBlock(plan: DayPlan, id: string, planFor: Omit<PlanFor, 'locked' | 'minutes'>): DayPlan {
  const at = plan.blocks.findIndex((block) => block.id === id);
  const old = plan.blocks[at];
  if (!old || old.family === null) return plan;
  // A longer day has more to choose from.
  const { blocks } = planDay({ ...planFor, minutes: 60 });
  const taken = new Set(plan.blocks.map(({ family }) => family));
  const offered = blocks.filter(({ family }) => family !== null && !taken.has(family));
  const other = offered.sort(
    (a, b) => Math.abs(a.seconds - old.seconds) - Math.abs(b.seconds - old.seconds),
  )[0];
  if (!other) return plan;
  const shorter = Math.max(
    1,
    Math.min(other.repeats, Math.round((old.seconds / other.seconds) * other.repeats)),
  );
  const next: Block = {
    ...other,
    id: freeId(plan, other.id),
    repeats: shorter,
    seconds: Math.round((other.seconds / other.repeats) * shorter),
  };
  return { ...plan, blocks: plan.blocks.map((block) => (block.id === id ? next : block)) };
}

/** The day again in other minutes; what is locked stays. */
export const replanned = (plan: DayPlan, planFor: Omit<PlanFor, 'locked'>): DayPlan =>
  planDay({
    ...planFor,
    locked: plan.blocks.flatMap((block, at) => (block.locked ? [{ at, block }] : [])),
  });
