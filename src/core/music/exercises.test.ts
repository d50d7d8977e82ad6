import fc from 'fast-check';
import { findInstrument, instruments, writtenRange } from '@/core/instruments';
import { beatsToSeconds, findFamily, scoreBeats, scoreSchema } from '.';

const anyInstrument = fc.constantFrom(...instruments);
const longTone = findFamily('long-tone')!;

describe('a long tone', () => {
  it('lasts as it was asked, after a bar of count-in where there is a beat', () => {
    fc.assert(
      fc.property(
        anyInstrument,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.integer({ min: 2, max: 64 }),
        fc.option(fc.integer({ min: 30, max: 208 })),
        (instrument, place, beats, tempo) => {
          const { low, high } = writtenRange(instrument);
          const { step } = instrument;
          const note = low + step * Math.round((place * (high - low)) / step);
          const made = longTone.make(instrument, { note, beats, tempo });
          if (!made.ok) throw new Error(made.problem);
          expect(scoreSchema.parse(made.value)).toEqual(made.value);
          expect(scoreBeats(made.value)).toBe(beats);
          expect(beatsToSeconds(made.value, beats)).toBeCloseTo((beats * 60) / (tempo ?? 60), 9);
          expect(made.value.countInBeats).toBe(tempo === null ? 0 : 4);
        },
      ),
    );
  });

  it('names the field that is wrong, and the remedy', () => {
    fc.assert(
      fc.property(
        anyInstrument,
        fc.constantFrom(['beats', 1], ['beats', 2.5], ['tempo', 10], ['note', 3]) as fc.Arbitrary<
          [string, number]
        >,
        (instrument, [field, value]) => {
          const made = longTone.make(instrument, { [field]: value });
          expect(made.ok ? '' : made.problem).toMatch(new RegExp(`^${field}: `));
        },
      ),
    );
    expect(longTone.make(findInstrument('flute')!, { note: 40 })).toEqual({
      ok: false,
      problem: 'note: must lie between B3 and D7 on the Flute',
    });
  });
});
