import * as fc from 'fast-check';
import { runs } from '@/core/base/thinned.testing';
import { DAY_MS } from '@/core/base';
import { findInstrument, type Instrument } from '@/core/instruments';
import { LEVELS } from '@/core/music';
import { storedOf, takeFromStored, type Take } from '@/core/take';
import { limitsOf } from '@/core/verdict';
import { anyTake } from '@/core/verdict/anyTake.testing';
import {
  digestOf,
  entrySchema,
  noteMap,
  packedCellsSchema,
  playedOf,
  reportOf,
  seamMap,
  sinceLast,
  turnsOf,
  type Digest,
  type Played,
} from '.';

const START = Date.UTC(2026, 8, 28, 18);
const CLARINET = findInstrument('clarinet-bb')!;

/** Takes of one instrument through eight weeks, whatever was heard in them. */
const anyLog: fc.Arbitrary<Take[]> = fc
  .array(fc.record({ day: fc.double({ min: 0, max: 56, noNaN: true }), take: anyTake(CLARINET.id) }), {
    maxLength: 12,
  })
  .map((takes) =>
    takes.map(({ day, take }, i) => ({
      ...take,
      id: `take-${i}`,
      createdAt: new Date(START + Math.round(day * DAY_MS)).toISOString(),
    })),
  );

const digests = (takes: readonly Take[], level: (typeof LEVELS)[number]): Digest[] =>
  takes.map((take) => digestOf(take, limitsOf(level), 'english'));
const logOf = (from: readonly Digest[]): readonly Played[] =>
  playedOf(
    from.map(({ entry }) => entry),
    Object.fromEntries(from.map(({ entry, cells }) => [entry.id, cells])),
  );

/** Every number in something, wherever it lies. */
function* numbersIn(value: unknown): Generator<number> {
  if (typeof value === 'number') yield value;
  else if (value instanceof Map) for (const each of value.values()) yield* numbersIn(each);
  else if (Array.isArray(value)) for (const each of value) yield* numbersIn(each);
  else if (value !== null && typeof value === 'object') yield* numbersIn(Object.values(value));
}

const always = (
  check: (takes: readonly Take[], level: (typeof LEVELS)[number]) => void,
  numRuns = runs(40),
): void => fc.assert(fc.property(anyLog, fc.constantFrom(...LEVELS), check), { numRuns });

const within = (share: { readonly low: number; readonly value: number; readonly high: number }): boolean =>
  0 <= share.low && share.low <= share.value && share.value <= share.high && share.high <= 1;

describe('whatever was played', () => {
  it('its row and its cells are stored and read back as they were, and so is the take', () =>
    always((takes, level) => {
      for (const { entry, cells } of digests(takes, level)) {
        for (const [schema, row] of [
          [entrySchema, entry],
          [packedCellsSchema, cells],
        ] as const)
          expect(JSON.stringify(schema.parse(JSON.parse(JSON.stringify(row))))).toBe(JSON.stringify(row));
      }
      for (const take of takes) {
        const read = takeFromStored(storedOf(take), []);
        if (!read.ok) throw new Error(read.problem);
        expect(read.value.notes).toEqual(take.notes);
      }
    }));

  it('no number that is remembered of it is none', () =>
    always((takes, level) => {
      const played = logOf(digests(takes, level));
      const now = START / DAY_MS + 56;
      const limits = limitsOf(level);
      for (const told of [
        noteMap(played, CLARINET, now),
        seamMap(played, CLARINET, limits, now),
        seamMap(played, CLARINET, limits, now, 'hand'),
        reportOf(played, CLARINET, limits, now - 28, now),
      ])
        expect([...numbersIn(told)].filter((number) => !Number.isFinite(number))).toEqual([]);
    }));

  it('a share of clean slurs lies in its interval, and counts no slur that was not played', () =>
    always((takes, level) => {
      const played = logOf(digests(takes, level));
      const slurs = played.reduce((sum, { crossings }) => sum + crossings.length, 0);
      const breaks = seamMap(played, CLARINET, limitsOf(level), START / DAY_MS + 56);
      for (const { reliability, seams } of breaks) {
        expect(within(reliability.share)).toBe(true);
        expect(seams.every((seam) => within(seam.reliability.share))).toBe(true);
        expect(seams.reduce((sum, seam) => sum + seam.reliability.of, 0)).toBe(reliability.of);
      }
      expect(breaks.reduce((sum, { reliability }) => sum + reliability.of, 0)).toBeLessThanOrEqual(slurs);
    }));

  it('the order in which takes are filed changes nothing', () =>
    always((takes, level) => {
      const made = digests(takes, level);
      expect(told(logOf([...made].reverse()), CLARINET, level)).toEqual(told(logOf(made), CLARINET, level));
    }));

  it('two takes are told better and worse the two ways round', () =>
    always((takes, level) => {
      const [a, b] = digests(takes, level);
      if (!a || !b) return;
      const [there, back] = [sinceLast(a.entry, b.entry), sinceLast(b.entry, a.entry)];
      expect(there === null).toBe(back === null);
      const mirrored = { better: 'worse', worse: 'better' } as Record<string, string>;
      if (there && back) expect(mirrored[there.verdict] ?? there.verdict).toBe(back.verdict);
    }, 120));
});

const told = (played: readonly Played[], instrument: Instrument, level: (typeof LEVELS)[number]) => {
  const now = START / DAY_MS + 56;
  return {
    notes: noteMap(played, instrument, now),
    seams: seamMap(played, instrument, limitsOf(level), now),
    turns: turnsOf(played, instrument, limitsOf(level)),
  };
};
