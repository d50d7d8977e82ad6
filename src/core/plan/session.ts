import { groups } from 'd3-array';
import * as z from 'zod';
import type { Midi } from '@/core/base';
import type { Level } from '@/core/music';
import { findFamily, tempoNotch } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import { blockSchema, isRest, scoreOfBlock, secondsOf, type Block } from './block';
import { dateSchema } from './wishes';

const doneSchema = z.object({
  blockId: z.string(),
  /** Takes that came of it, in the order they were played. */
  takes: z.array(z.string()),
  skipped: z.boolean(),
});

/** A row of blocks as it is being played, or was. */
export const sessionSchema = z.object({
  id: z.string().min(1),
  date: dateSchema,
  instrumentId: z.string(),
  title: z.string(),
  /** ISO 8601. */
  startedAt: z.string(),
  blocks: z.array(blockSchema).min(1),
  /** Block that is played or comes next; the number of blocks when it is over. */
  at: z.number().int().min(0),
  done: z.array(doneSchema),
  /** Ended before its last block. */
  ended: z.boolean(),
  remark: z.string(),
});
export type Session = z.infer<typeof sessionSchema>;

/** @param id also of what is made anew in it. @throws RangeError when nothing is to be played. */
export function sessionOf(
  id: string,
  now: Date,
  date: string,
  instrumentId: string,
  title: string,
  blocks: readonly Block[],
): Session {
  const wanted = blocks.filter(({ skipped }) => !skipped);
  const [first] = wanted.filter((block) => !isRest(block));
  if (!first) throw new RangeError('a session needs an exercise: nothing is left of this day');
  return {
    id,
    date,
    instrumentId,
    title,
    startedAt: now.toISOString(),
    blocks: wanted.slice(wanted.indexOf(first)),
    at: 0,
    done: [],
    ended: false,
    remark: '',
  };
}

/** Whether all blocks are gone through, or the player ended it. */
export const isOver = ({ at, blocks, ended }: Session): boolean => ended || at >= blocks.length;
/** The block that is next to be played; null when the session is over. */
export const blockNow = (session: Session): Block | null =>
  isOver(session) ? null : (session.blocks[session.at] ?? null);

const noted = (session: Session, blockId: string, change: { take?: string; skipped?: boolean }): Session => {
  const before = session.done.find((each) => each.blockId === blockId);
  const next = {
    blockId,
    takes: [...(before?.takes ?? []), ...(change.take === undefined ? [] : [change.take])],
    skipped: change.skipped ?? false,
  };
  return { ...session, done: [...session.done.filter((each) => each !== before), next] };
};

/** The block that is played has been, and the next one comes. @param take null: nothing of it is kept. */
export function afterBlock(session: Session, take: string | null): Session {
  const block = blockNow(session);
  if (!block) return session;
  const told = take === null ? session : noted(session, block.id, { take });
  return { ...told, at: session.at + 1 };
}

/** On to the next block; one that was to be played is noted as skipped, a rest is not. */
export function skipNow(session: Session): Session {
  const block = blockNow(session);
  if (!block) return session;
  const told = isRest(block) ? session : noted(session, block.id, { skipped: true });
  return { ...told, at: session.at + 1 };
}

/** The exercise that was played last comes once more. */
export function again(session: Session): Session {
  const at = session.blocks.findLastIndex((block, i) => i < session.at && !isRest(block));
  return at < 0 ? session : { ...session, at, ended: false };
}

/** Ended by the player, whatever is left of it. */
export const endNow = (session: Session): Session => ({ ...session, ended: true });

/** Ids of all takes that were played in it, in their order. */
export const takesOf = ({ done }: Session): string[] => done.flatMap(({ takes }) => takes);

/** Seconds of what has been gone through, and of all. */
export function progressOf({ blocks, at }: Session): { done: number; total: number } {
  const sum = (some: readonly Block[]) => some.reduce((all, { seconds }) => all + seconds, 0);
  return { done: sum(blocks.slice(0, at)), total: sum(blocks) };
}

/** Of so many crossings, a slur that came open in half of them or more is taken alone. */
const FAILED = { of: 4, share: 0.5 } as const;
const SLOWER_NOTCHES = 2;

/** A slur, and how often it was clean in the take that has just been played. */
export interface Failed {
  readonly from: Midi;
  readonly to: Midi;
  readonly clean: number;
  readonly of: number;
}

/** Slurs of a take by their two notes. */
export const crossedTold = (
  crossed: readonly { readonly from: Midi; readonly to: Midi; readonly clean: boolean }[],
): Failed[] =>
  groups(crossed, ({ from, to }) => `${from}-${to}`).map(([, same]) => ({
    from: same[0]!.from,
    to: same[0]!.to,
    clean: same.filter(({ clean }) => clean).length,
    of: same.length,
  }));

/**
 * The session with the place that failed put next, alone and slower; as it was where nothing failed, where it was alone
 * already, or where it has come back once today.
 */
export function withFailedPlace(
  session: Session,
  crossed: readonly Failed[],
  instrument: Instrument,
  level: Level,
): Session {
  const last = session.blocks[session.at - 1];
  const worst = [...crossed]
    .filter(({ clean, of }) => of >= FAILED.of && clean / of <= FAILED.share)
    .sort((a, b) => a.clean / a.of - b.clean / b.of)[0];
  const id = `${session.id}/slower`;
  const alone = findFamily('just-this-seam');
  if (
    !last ||
    !worst ||
    !alone ||
    last.family === alone.id ||
    session.blocks.some((block) => block.id === id)
  )
    return session;
  const { from, to } = worst;
  const usual = alone.defaults(instrument, level)['tempo' as never] as unknown;
  const before = typeof last.values['tempo'] === 'number' ? last.values['tempo'] : Number(usual);
  const values = { from, to, times: 4, beats: 2, tempo: tempoNotch(Math.min(60, before), -SLOWER_NOTCHES) };
  const made = scoreOfBlock({ family: alone.id, values, repeats: 1 }, instrument, level, 'english');
  if (!made.ok) return session;
  const block: Block = {
    id,
    family: alone.id,
    values,
    repeats: 1,
    seconds: Math.round(secondsOf(made.value)),
    why: { of: 'seam', from, to, clean: worst.clean, total: worst.of, daysAgo: 0 },
    tempoMoved: 'down',
    locked: false,
    skipped: false,
  };
  return { ...session, blocks: session.blocks.toSpliced(session.at, 0, block) };
}

/** A row of blocks that the player has given a name. */
export const routineSchema = z.object({
  id: z.string().min(1),
  name: z
    .string()
    .trim()
    .min(1, { error: 'must not be empty' })
    .max(60, { error: 'must be 60 letters or fewer' }),
  instrumentId: z.string(),
  blocks: z
    .array(blockSchema)
    .min(1, { error: 'must have a block at least' })
    .max(40, { error: 'must have 40 blocks or fewer' }),
});
export type Routine = z.infer<typeof routineSchema>;
