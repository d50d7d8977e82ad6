import * as z from 'zod';
import { findFamily, scoreBeats, beatsToSeconds, type Level, type Score } from '@/core/music';
import { failure, type Outcome, type Seconds, success } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import type { Naming } from '@/core/tuning';
import { FAULT_KINDS, type FaultKind } from '@/core/verdict';
import { dateSchema, purposeSchema } from './wishes';

const written = z.number().min(0).max(127);
const seam = { from: written, to: written };
const days = z.number().int().min(0);

/** Why something is in a plan: numbers and names, put into words by `sayWhy`. */
export const whySchema = z.discriminatedUnion('of', [
  z.object({ of: z.literal('start') }),
  z.object({
    of: z.literal('seam'),
    ...seam,
    clean: z.number().int(),
    total: z.number().int(),
    daysAgo: days,
  }),
  z.object({ of: z.literal('seam-unheard'), ...seam }),
  z.object({ of: z.literal('seam-lately'), ...seam, clean: z.number().int(), total: z.number().int() }),
  z.object({
    of: z.literal('seam-opened'),
    ...seam,
    clean: z.number().int(),
    total: z.number().int(),
    daysAgo: days,
  }),
  z.object({
    of: z.literal('seam-holds'),
    ...seam,
    clean: z.number().int(),
    total: z.number().int(),
    daysAgo: days,
  }),
  z.object({
    of: z.literal('fault'),
    fault: z.enum(FAULT_KINDS as [FaultKind, ...FaultKind[]]),
    takes: z.number().int(),
    total: z.number().int(),
  }),
  z.object({ of: z.literal('note'), written, cents: z.number(), takes: z.number().int() }),
  z.object({ of: z.literal('not-yet') }),
  z.object({ of: z.literal('due'), daysAgo: days }),
  z.object({ of: z.literal('purpose'), purpose: purposeSchema }),
  z.object({ of: z.literal('music') }),
  z.object({ of: z.literal('exploring') }),
  z.object({ of: z.literal('programme'), title: z.string(), day: z.number().int(), total: z.number().int() }),
  z.object({ of: z.literal('event'), name: z.string() }),
  z.object({ of: z.literal('rest') }),
  z.object({ of: z.literal('own') }),
]);
export type Why = z.infer<typeof whySchema>;

/** One block of a plan, a routine or a session: an exercise as it is to be set, or a rest. */
export const blockSchema = z.object({
  id: z.string().min(1),
  /** Null: a rest. */
  family: z.string().nullable(),
  /** Set of its parameters; the rest are its defaults. */
  values: z.record(z.string(), z.unknown()),
  /** Times that the whole is played. */
  repeats: z.number().int().min(1).max(20),
  /** How long it takes, about. */
  seconds: z.number().min(0).max(3600),
  why: whySchema,
  /** Of a drill with a tempo that moves: how it stands to the tempo of the time before. */
  tempoMoved: z.enum(['up', 'down', 'same']).nullable(),
  /** Stays where it is when the day is planned anew. */
  locked: z.boolean(),
  skipped: z.boolean(),
});
export type Block = z.infer<typeof blockSchema>;

/** What is planned of one day. */
export const dayPlanSchema = z.object({
  date: dateSchema,
  instrumentId: z.string(),
  minutes: z.number().int().min(0).max(240),
  blocks: z.array(blockSchema),
});
export type DayPlan = z.infer<typeof dayPlanSchema>;

/** Between two blocks. */
export const BETWEEN: Seconds = 20;

/** Whether nothing is played in a block. */
export const isRest = ({ family }: Block): boolean => family === null;

/** Length of a score when it is played once, with its count-in. */
export const secondsOf = (score: Score): Seconds =>
  score.free ? (score.longestSeconds ?? 300) : beatsToSeconds(score, scoreBeats(score) + score.countInBeats);

/** The music of a block. A problem says what of it does not fit this instrument, or this version. */
export function scoreOfBlock(
  { family: id, values, repeats }: Pick<Block, 'family' | 'values' | 'repeats'>,
  instrument: Instrument,
  level: Level,
  naming: Naming,
): Outcome<Score> {
  const family = id === null ? undefined : findFamily(id);
  if (!family)
    return failure(`family: there is no exercise "${id ?? 'rest'}" here; a newer Gold Reed may have it`);
  const made = family.make(instrument, values, level, naming);
  return made.ok ? success({ ...made.value, repeats: Math.max(made.value.repeats, repeats) }) : made;
}

/** An exercise that the player puts into a day or sends to somebody, as it is set. A problem says why it cannot be played. */
export function blockOf(
  family: string,
  values: Readonly<Record<string, unknown>>,
  instrument: Instrument,
  level: Level,
): Outcome<Block> {
  const made = scoreOfBlock({ family, values: { ...values }, repeats: 1 }, instrument, level, 'english');
  if (!made.ok) return made;
  return success({
    id: `own/${family}`,
    family,
    values: { ...values },
    repeats: 1,
    seconds: Math.round(secondsOf(made.value)),
    why: { of: 'own' },
    tempoMoved: null,
    locked: false,
    skipped: false,
  });
}
