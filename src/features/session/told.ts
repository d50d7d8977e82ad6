import { crossedTold, drillOf, type Failed } from '@/core/plan';
import { isClean, sinceLast, unpacked, type Entry, type SinceLast } from '@/core/ledger';
import type { Take } from '@/core/take';
import { FAULTS, limitsOf } from '@/core/verdict';
import { judgeTake } from '@/features/take';
import { findEntry, type Settings } from '@/store';
import { daysAgo } from '@/ui';

/** What is told of a block that has just been played. */
export interface Told {
  readonly takeId: string;
  readonly title: string;
  readonly headline: string;
  readonly summary: string;
  /** Each slur, clean or open, in the order of the music. */
  readonly slurs: readonly boolean[];
  readonly failed: readonly Failed[];
  readonly since: SinceLast | null;
  readonly daysAgo: number;
  /** What to attend to after this. */
  readonly cue: string | null;
  /** Nothing was heard of what was asked. */
  readonly silent: boolean;
}

/** @param inSession takes of this session: what is compared with is older. */
export async function toldOf(take: Take, settings: Settings, inSession: readonly string[]): Promise<Told> {
  const limits = limitsOf(settings.level, settings.ownLimits);
  const { verdict, worst, digest } = await judgeTake(take, settings);
  const { entry, cells } = digest;
  const { crossings } = unpacked(cells);
  const told = crossings.flatMap((crossing) => {
    const clean = isClean(crossing, limits);
    return clean === null ? [] : [{ from: crossing.from, to: crossing.to, clean }];
  });
  const drill = drillOf(entry);
  const isEarlier = (each: Entry) =>
    each.id !== take.id && !inSession.includes(each.id) && each.family === entry.family;
  // The same notes, or else the same exercise.
  const earlier =
    (await findEntry(entry.instrumentId, (each) => isEarlier(each) && drillOf(each) === drill)) ??
    (await findEntry(entry.instrumentId, isEarlier));
  const since = earlier ? sinceLast(entry, earlier) : null;
  return {
    takeId: take.id,
    title: take.score.title,
    headline: verdict.headline,
    summary: verdict.summary,
    slurs: told.map(({ clean }) => clean),
    failed: crossedTold(told),
    since,
    daysAgo: earlier ? daysAgo(new Date(earlier.createdAt), new Date(entry.createdAt)) : 0,
    cue: worst ? FAULTS[worst].cue : null,
    silent: take.score.notes.length > 0 && take.notes.length === 0,
  };
}
