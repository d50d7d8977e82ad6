import * as z from 'zod';
import type { Entry } from '@/core/ledger';
import { readSingle, type Single } from './single';
import type { Storage, Writes } from './storage';
import type { Tab } from './tab';

/** Something unfinished, and the tab that it was played in. */
const unfinishedSchema = z.object({ id: z.string(), tab: z.string() });
type Unfinished = z.infer<typeof unfinishedSchema>;
const binnedSchema = z.object({
  id: z.string(),
  /** ISO 8601. */
  deletedAt: z.string(),
  /** Taken out of the log, not wanted when it was played, passed over for another playing, moved by an import or its undoing, or found when this record was lost. */
  why: z.enum(['deleted', 'discarded', 'again', 'import', 'found']),
  title: z.string(),
  instrumentName: z.string(),
  playedAt: z.string(),
  /** Its time is over, and what is left of it is being removed. */
  gone: z.boolean(),
  /** ISO 8601: when its time was first seen to be over; null: it is not. */
  dueSince: z.string().nullable(),
});
export type Binned = z.infer<typeof binnedSchema>;

const DESK_VERSION = 2;
const deskSchema = z.object({
  version: z.literal(DESK_VERSION),
  drafts: z.array(unfinishedSchema),
  /** Blocks that were begun and not finished, by ids of their own. */
  running: z.array(unfinishedSchema),
  bin: z.array(binnedSchema),
});
/** Takes that are not in the log: just played and neither kept nor discarded, or in the bin. */
export type Desk = z.infer<typeof deskSchema>;

export const DESK: Single<Desk> = {
  key: 'desk',
  kind: {
    name: 'desk',
    version: DESK_VERSION,
    schema: deskSchema,
    migrations: {
      1: ({ bin, ...record }) => ({
        ...record,
        bin: z
          .array(z.looseObject({}))
          .parse(bin)
          .map((each) => ({ ...each, dueSince: null })),
      }),
    },
  },
  empty: { version: DESK_VERSION, drafts: [], running: [], bin: [] },
};

export const readDesk = (storage: Storage): Promise<Desk> => readSingle(storage, DESK);
export const deskWrites = (desk: Desk): Writes => ({ [DESK.key]: JSON.stringify(desk) });

/** What was left unfinished in this tab; else the newest that was left by a tab that is no longer open. */
export async function unfinishedFor(all: readonly Unfinished[], tab: Tab): Promise<string | null> {
  const own = all.findLast((each) => each.tab === tab.id);
  if (own || all.length === 0) return own?.id ?? null;
  const open = await tab.open();
  return all.findLast((each) => !open.has(each.tab))?.id ?? null;
}

/** Title of a take that says none. */
export const UNREADABLE = 'A take that could not be read';

/** What is shown of a take in the bin. */
export const binnedRow = (
  entry: Pick<Entry, 'id' | 'title' | 'instrumentName' | 'createdAt'>,
  why: Binned['why'],
  now: Date,
): Binned => ({
  id: entry.id,
  deletedAt: now.toISOString(),
  why,
  title: entry.title,
  instrumentName: entry.instrumentName,
  playedAt: entry.createdAt,
  gone: false,
  dueSince: null,
});

export const withoutDraft = (desk: Desk, id: string): Desk => ({
  ...desk,
  drafts: desk.drafts.filter((draft) => draft.id !== id),
});
