import { alteredAndJudged, BY_HAND } from '@/core/verdict/planted.testing';
import { flag } from './flags';

const SIX = ['flute', 'clarinet-bb', 'oboe', 'bassoon', 'recorder-alto', 'sax-alto'];

/**
 * `npm run bench -- planted`: faults that are put into the sound by hand, dry and in a living room: how many are told first or second,
 * and how many are praised. `--only=oboe,flute` looks at these instruments alone.
 */
export function plantedTable() {
  const chosen = flag('only')?.split(',') ?? SIX;
  return BY_HAND.map(({ name, family, alter, kinds }) => {
    const row: Record<string, string | number> = { family, 'put in': name };
    for (const room of [null, 'living'] as const) {
      const told = chosen.map((instrument) => ({
        instrument,
        ...alteredAndJudged(family, instrument, alter, kinds, room ? { room, place: 1 } : undefined),
      }));
      const where = room ?? 'dry';
      row[where] = `${told.filter(({ found }) => found).length} of ${told.length}`;
      row[`${where}, praised`] = told.filter(({ praised }) => praised !== '').length;
      for (const { instrument, found, verdict } of told)
        if (!found) console.log(`  ${where} ${instrument}, ${name}: ${verdict.headline}`);
    }
    return row;
  });
}
