import * as z from 'zod';
import { findInstrument, type Instrument } from '@/core/instruments';
import { storedScoreSchema } from '@/core/music';
import type { RecordKind } from '@/core/base';
import { TAKE_VERSION, takeSchema, type Take } from './take';

/** How a take is read, old ones included. @param own instruments that the player has or had: old takes only named theirs. */
export const takeKindFor = (own: readonly Instrument[]): RecordKind<Take> => ({
  name: 'take',
  version: TAKE_VERSION,
  schema: takeSchema,
  migrations: {
    1: (record) => withInstrument(record, own),
    2: (record) => ({ ...record, conditions: { ...Object(record['conditions']), offsets: null } }),
  },
});

const namedSchema = z.looseObject({ instrumentId: z.string() });

/** Version 1 named its instrument only. */
function withInstrument(
  record: Record<string, unknown>,
  own: readonly Instrument[],
): Record<string, unknown> {
  const named = namedSchema.safeParse(record['score']);
  if (!named.success) return record;
  const score = storedScoreSchema(own).safeParse(record['score']);
  return {
    ...record,
    instrument: findInstrument(named.data.instrumentId, own) ?? null,
    ...(score.success && { score: score.data }),
  };
}
