import * as z from 'zod';
import { DAY_MS, readRecord, type RecordKind } from '@/core/base';
import {
  dateSchema,
  dayPlanSchema,
  routineSchema,
  sessionSchema,
  usualWishes,
  wishesSchema,
} from '@/core/plan';
import type { Routine, Session } from '@/core/plan';
import { exclusively } from './exclusively';
import { remembered } from './remembered';
import type { Storage } from './storage';
import { unfinishedFor } from './desk';
import type { Tab } from './tab';

export const PLANS_KEY = 'plans';

const planSchema = z.object({
  wishes: wishesSchema,
  /** Days that the player has made, or changed, by date. All others follow from what was heard. */
  days: z.record(dateSchema, dayPlanSchema),
  programme: z.object({ id: z.string(), startedOn: dateSchema }).nullable(),
});
/** What the player has told of plans for one instrument. */
export type Plan = z.infer<typeof planSchema>;

/** The first knew fewer faults that a block may be about. */
const PLANS_VERSION = 2;

const plansSchema = z.object({
  version: z.literal(PLANS_VERSION),
  /** By instrument. */
  plans: z.record(z.string(), planSchema),
  routines: z.array(routineSchema),
  /** Ended sessions of late, newest first: what was played is in the log, this is the thread through it. */
  past: z.array(sessionSchema),
});
export type Plans = z.infer<typeof plansSchema>;

export const plansKind: RecordKind<Plans> = {
  name: 'plans',
  version: PLANS_VERSION,
  schema: plansSchema,
  migrations: { 1: (record) => record },
};

export const NO_PLANS: Plans = { version: PLANS_VERSION, plans: {}, routines: [], past: [] };
export const USUAL_PLAN: Plan = { wishes: usualWishes, days: {}, programme: null };

/** They are looked at when the log is opened, and again by the page: read once. */
export const plansIn = remembered((text) => readRecord(plansKind, text), 2);

/** @throws when it cannot be read; it is left as it lies. */
export async function readPlans(storage: Storage): Promise<Plans> {
  const text = await storage.getItem(PLANS_KEY);
  if (text === null) return NO_PLANS;
  const read = plansIn(PLANS_KEY, text);
  if (!read.ok) throw new Error(read.problem);
  return read.value;
}

/** Changes what is told of plans; two tabs take turns. */
export function changePlans(storage: Storage, name: string, change: (plans: Plans) => Plans): Promise<Plans> {
  return exclusively(name, async () => {
    const next = change(await readPlans(storage));
    await storage.setItem(PLANS_KEY, JSON.stringify(next));
    return next;
  });
}

/** Days that the player made are kept for so long after they are over. */
const KEPT_DAYS = 60;
const PAST_SESSIONS = 30;

/** @param date of today: days of long ago are let go. */
export function withPlan(plans: Plans, instrumentId: string, part: Partial<Plan>, date: string): Plans {
  const before = plans.plans[instrumentId] ?? USUAL_PLAN;
  const next = { ...before, ...part };
  const oldest = new Date(Date.parse(date) - KEPT_DAYS * DAY_MS).toISOString().slice(0, 10);
  const days = Object.fromEntries(Object.entries(next.days).filter(([day]) => day >= oldest));
  return { ...plans, plans: { ...plans.plans, [instrumentId]: { ...next, days } } };
}

export const withRoutine = (plans: Plans, routine: Routine): Plans => ({
  ...plans,
  routines: [...plans.routines.filter(({ id }) => id !== routine.id), routine],
});

export const withPast = (plans: Plans, session: Session): Plans => ({
  ...plans,
  past: [session, ...plans.past.filter(({ id }) => id !== session.id)].slice(0, PAST_SESSIONS),
});

/** With what others have that these do not: plans of instruments, routines, sessions. */
export const withPlansOf = (plans: Plans, others: Plans): Plans => ({
  ...plans,
  plans: { ...others.plans, ...plans.plans },
  routines: [...plans.routines, ...missing(plans.routines, others.routines)],
  past: [...plans.past, ...missing(plans.past, others.past)].slice(0, PAST_SESSIONS),
});

const missing = <T extends { readonly id: string }>(here: readonly T[], others: readonly T[]): T[] =>
  others.filter(({ id }) => !here.some((each) => each.id === id));

export const SESSIONS_KEY = 'sessions';
export const sessionsKind: RecordKind<{
  version: typeof PLANS_VERSION;
  open: { tab: string; id: string; session: Session }[];
}> = {
  name: 'sessions',
  version: PLANS_VERSION,
  schema: z.object({
    version: z.literal(PLANS_VERSION),
    open: z.array(z.object({ tab: z.string(), id: z.string(), session: sessionSchema })),
  }),
  migrations: { 1: (record) => record },
};

async function readOpen(storage: Storage) {
  const text = await storage.getItem(SESSIONS_KEY);
  const read = text === null ? null : readRecord(sessionsKind, text);
  // The takes of a session are in the log; of one that cannot be read, only the thread through them is lost.
  return read?.ok ? read.value.open : [];
}

/** The session of this tab, or one that was left by a tab that is gone. */
export async function readSession(storage: Storage, tab: Tab): Promise<Session | null> {
  const open = await readOpen(storage);
  const id = await unfinishedFor(open, tab);
  return open.find((each) => each.id === id)?.session ?? null;
}

/** Keeps a session as it stands now; null: there is none any more. */
export function writeSession(
  storage: Storage,
  name: string,
  tab: Tab,
  session: Session | null,
): Promise<void> {
  return exclusively(name, async () => {
    const open = (await readOpen(storage)).filter((each) => each.tab !== tab.id && each.id !== session?.id);
    const next = session === null ? open : [...open, { tab: tab.id, id: session.id, session }];
    await storage.setItem(SESSIONS_KEY, JSON.stringify({ version: PLANS_VERSION, open: next }));
  });
}
