import * as z from 'zod';
import { findInstrument, type Instrument } from '@/core/instruments';
import { findFamily } from './families';
import { EVERYTHING_COUNTS, SCORE_VERSION, scoreSchema, type Score } from './score';

/** The first version said nothing of itself, and what its notes were for by the words over them. */
const firstSchema = z.looseObject({
  version: z.never().optional(),
  family: z.string(),
  instrumentId: z.string(),
  notes: z.array(z.looseObject({ written: z.number(), role: z.never().optional() })).min(1),
  parameters: z.record(z.string(), z.unknown()).default({}),
  counts: z
    .looseObject({ feeds: z.looseObject({}).optional(), exploring: z.boolean().default(false) })
    .optional(),
});

/**
 * A score as any version stored it: in music, takes, blocks, archives. Everything that reads one goes through this.
 * @param own instruments that the player has or had, for the oldest scores, which are made again from their parameters.
 */
export const storedScoreSchema = (own: readonly Instrument[] = []) =>
  z.preprocess((stored, context) => {
    const { version } = z.looseObject({ version: z.unknown() }).safeParse(stored).data ?? {};
    if (typeof version === 'number' && version > SCORE_VERSION)
      context.addIssue('was written by a newer Gold Reed; reload the page to update');
    const first = firstSchema.safeParse(stored);
    return first.success ? withRoles(first.data, own) : stored;
  }, scoreSchema);

/** The exercise is made again from its parameters, and lends its roles where it has the same notes. */
function withRoles(old: z.infer<typeof firstSchema>, own: readonly Instrument[]): unknown {
  const { family, instrumentId, notes, parameters, counts } = old;
  const instrument = findInstrument(instrumentId, own);
  const made = instrument && findFamily(family)?.make(instrument, parameters);
  const again = made?.ok ? made.value : null;
  const same =
    again?.notes.length === notes.length &&
    notes.every(({ written }, i) => again.notes[i]!.written === written);
  const lent = (i: number): Partial<Score['notes'][number]> => {
    const note = same ? again?.notes[i] : undefined;
    return { role: note?.role ?? null, open: note?.open ?? false, company: note?.company ?? false };
  };
  return {
    ...old,
    version: SCORE_VERSION,
    notes: notes.map((note, i) => ({ ...note, ...lent(i) })),
    sides: again?.sides ?? null,
    droneLeavesOut: again?.droneLeavesOut ?? false,
    counts: again?.counts ?? {
      ...EVERYTHING_COUNTS,
      feeds: { ...EVERYTHING_COUNTS.feeds, ...counts?.feeds },
      exploring: counts?.exploring ?? false,
    },
  };
}
