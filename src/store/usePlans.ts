import type { Routine, Session } from '@/core/plan';
import { changed, data, home, useStored, type Stored } from './opened';
import {
  changePlans,
  NO_PLANS,
  readPlans,
  readSession,
  USUAL_PLAN,
  withPast,
  withPlan,
  withRoutine,
  writeSession,
  type Plan,
  type Plans,
} from './planStore';

async function change(by: (plans: Plans) => Plans): Promise<void> {
  const { storage, name } = await home();
  try {
    await changePlans(storage, name, by);
  } finally {
    await changed('plans');
  }
}

export const storedPlans: Stored<Plans> = {
  key: data('plans'),
  read: async () => readPlans((await home()).storage),
};
const usePlans = () => useStored(storedPlans);

/** What is told of plans for an instrument; undefined while it is read. `problem`: it cannot be read, and is left as it lies. */
export function usePlan(instrumentId: string): { plan: Plan | undefined; problem: string | null } {
  const { data: plans, error } = usePlans();
  if (error) return { plan: USUAL_PLAN, problem: error.message };
  return { plan: plans && (plans.plans[instrumentId] ?? USUAL_PLAN), problem: null };
}

/** Instruments that the player has told a week of, each with its wishes. */
export function usePlannedInstruments(): readonly { instrumentId: string; wishes: Plan['wishes'] }[] {
  const { data: plans } = usePlans();
  return Object.entries(plans?.plans ?? {}).map(([instrumentId, { wishes }]) => ({ instrumentId, wishes }));
}

/** @param date of today. */
export const changePlan = (instrumentId: string, part: (plan: Plan) => Partial<Plan>, date: string) =>
  change((plans) => withPlan(plans, instrumentId, part(plans.plans[instrumentId] ?? USUAL_PLAN), date));

export function useRoutines(): readonly Routine[] {
  return usePlans().data?.routines ?? NO_PLANS.routines;
}

export const keepRoutine = (routine: Routine) => change((plans) => withRoutine(plans, routine));
export const removeRoutine = (id: string) =>
  change((plans) => ({ ...plans, routines: plans.routines.filter((each) => each.id !== id) }));

/** Ended sessions of late, newest first. */
export function usePastSessions(): readonly Session[] {
  return usePlans().data?.past ?? NO_PLANS.past;
}

export const storedSession: Stored<Session | null> = {
  key: data('session'),
  read: async () => {
    const { storage, tab } = await home();
    return readSession(storage, tab);
  },
};

/** The session that goes on, or was interrupted; null: there is none. */
export const useSession = () => useStored(storedSession);

/** Keeps the session as it stands. */
export async function keepSession(session: Session): Promise<void> {
  const { storage, name, tab } = await home();
  await writeSession(storage, name, tab, session);
  await changed('session');
}

/** The session is over: it stands among those of the past. */
export async function closeSession(session: Session): Promise<void> {
  await change((plans) => withPast(plans, session));
  const { storage, name, tab } = await home();
  await writeSession(storage, name, tab, null);
  await changed('session');
}
