import * as z from 'zod';
import { findInstrument, type Instrument } from '@/core/instruments';
import { EVERYTHING_COUNTS, findFamily, type Score } from '@/core/music';
import type { RecordKind } from '@/core/base';
import { TAKE_VERSION, takeSchema, type Take } from './take';

/** How a take is read, old ones included. @param own instruments that the player has or had: old takes only named theirs. */
export const takeKindFor = (own: readonly Instrument[]): RecordKind<Take> => ({
  name: 'take',
  version: TAKE_VERSION,
  schema: takeSchema,
  migrations: {
    1: (record) => withRolesAndInstrument(record, own),
    2: (record) => ({ ...record, conditions: { ...Object(record['conditions']), offsets: null } }),
  },
});

const oldScoreSchema = z.looseObject({
  family: z.string(),
  instrumentId: z.string(),
  notes: z.array(z.looseObject({ written: z.number() })),
  parameters: z.record(z.string(), z.unknown()).default({}),
  counts: z
    .looseObject({ feeds: z.looseObject({}).optional(), exploring: z.boolean().default(false) })
    .optional(),
});

/**
 * Version 1 said what a note was for by the word over it, and named its instrument only. The exercise is made again from its
 * parameters, and lends its roles where it has the same notes.
 */
function withRolesAndInstrument(
  record: Record<string, unknown>,
  own: readonly Instrument[],
): Record<string, unknown> {
  const read = oldScoreSchema.safeParse(record['score']);
  if (!read.success) return record;
  const { family, instrumentId, notes, parameters, counts } = read.data;
  const instrument = findInstrument(instrumentId, own) ?? null;
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
    ...record,
    instrument,
    score: {
      ...read.data,
      notes: notes.map((note, i) => ({ ...note, ...lent(i) })),
      sides: again?.sides ?? null,
      droneLeavesOut: again?.droneLeavesOut ?? false,
      counts: again?.counts ?? {
        ...EVERYTHING_COUNTS,
        feeds: { ...EVERYTHING_COUNTS.feeds, ...counts?.feeds },
        exploring: counts?.exploring ?? false,
      },
    },
  };
}
