import * as fc from 'fast-check';
import { runs } from '@/core/base/thinned.testing';
import {
  checkInstrument,
  copyOf,
  crossingsOf,
  instruments,
  seamsOf,
  withRange,
  writtenRange,
  type Instrument,
} from '@/core/instruments';
import { families, LEVELS, scoreSchema } from '@/core/music';
import { limitsOf } from '@/core/verdict';
import { civilDay, isRest, planDay, scoreOfBlock, standing, usualWishes } from '.';

const MONDAY = civilDay('2026-11-23');

/** A copy of any instrument with its borders, its pitch and its breath moved, as far as the editor lets a player move them. */
const anyOwn: fc.Arbitrary<Instrument> = fc
  .record({
    base: fc.constantFrom(...instruments),
    moves: fc.array(fc.integer({ min: -5, max: 5 }), { minLength: 9, maxLength: 9 }),
    transposition: fc.integer({ min: -12, max: 12 }),
    breathSeconds: fc.integer({ min: 2, max: 60 }),
    home: fc.double({ min: 0, max: 1, noNaN: true }),
  })
  .map(({ base, moves, transposition, breathSeconds, home }) => {
    const { step } = base;
    const lows = base.registers.map(({ low }, i) => low + moves[i]! * step);
    const moved = withRange(copyOf(base, 'mine'), lows, writtenRange(base).high + moves.at(-1)! * step);
    const { low, high } = writtenRange(moved);
    const middle = low + step * Math.round((home * (high - low)) / step);
    return { ...moved, transposition, breathSeconds, home: middle };
  });
const accepted = anyOwn.filter((mine) => checkInstrument(mine, 'english').ok);

/** What is wrong with the music of an exercise for an instrument, in words. */
function wrongWith(mine: Instrument, family: (typeof families)[number], level: (typeof LEVELS)[number]) {
  const made = family.make(mine, {}, level);
  if (family.unfit(mine) !== null) return made.ok ? `${family.id}: made though it does not fit` : null;
  if (!made.ok) return `${family.id}: ${made.problem}`;
  const { low, high } = writtenRange(mine);
  if (!scoreSchema.safeParse(made.value).success) return `${family.id}: no score`;
  const outside = made.value.notes.find(({ written }) => written < low || written > high);
  return outside ? `${family.id}: ${outside.written} outside ${low} to ${high}` : null;
}

describe('an instrument of the player’s own, however it was changed', () => {
  it('is accepted, or said to be wrong in one of its fields', () => {
    fc.assert(
      fc.property(anyOwn, (mine) => {
        const checked = checkInstrument(mine, 'english');
        if (!checked.ok) expect(checked.problem).toMatch(/^(registers(\.\d+)?|home|transposition)\b.*: ./);
        else expect(checked.value).toEqual(mine);
      }),
      { numRuns: runs(300) },
    );
  });

  it('has every exercise within its range, or the reason why not', () => {
    fc.assert(
      fc.property(accepted, fc.constantFrom(...LEVELS), (mine, level) => {
        expect(families.map((family) => wrongWith(mine, family, level)).filter(Boolean)).toEqual([]);
      }),
      { numRuns: runs(80) },
    );
  });

  it('is crossed where its registers meet, and has a day of practice that can be played', () => {
    fc.assert(
      fc.property(accepted, fc.constantFrom(...LEVELS), (mine, level) => {
        const { low, high } = writtenRange(mine);
        for (const { below, above } of seamsOf(mine)) {
          expect(below).toBeLessThan(above);
          expect(above).toBeLessThanOrEqual(high);
        }
        for (const { from, to } of crossingsOf(mine)) {
          expect(Math.min(from, to)).toBeGreaterThanOrEqual(low);
          expect(Math.max(from, to)).toBeLessThanOrEqual(high);
        }
        const { blocks } = planDay({
          standing: standing([], mine, limitsOf(level), MONDAY, { today: MONDAY, offsetDays: 0 }),
          wishes: usualWishes,
          instrument: mine,
          level,
          day: MONDAY,
        });
        for (const block of blocks.filter((each) => !isRest(each))) {
          const made = scoreOfBlock(block, mine, level, 'english');
          if (!made.ok) throw new Error(`${block.family}: ${made.problem}`);
        }
      }),
      { numRuns: runs(60) },
    );
  });
});
