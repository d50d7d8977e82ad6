import fc from 'fast-check';
import { instruments, writtenRange } from '@/core/instruments';
import { beatsToSeconds, defaultLongTone, longTone, scoreBeats, scoreSchema } from '.';

const anyInstrument = fc.constantFrom(...instruments);

describe('the long tone', () => {
  it('is a playable score for any valid parameters', () => {
    fc.assert(
      fc.property(
        anyInstrument,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.integer({ min: 2, max: 64 }),
        fc.option(fc.integer({ min: 30, max: 208 })),
        fc.integer({ min: 0, max: 8 }),
        (instrument, place, beats, tempo, countInBeats) => {
          const { low, high } = writtenRange(instrument);
          const written = Math.round(low + place * (high - low));
          const made = longTone({ ...defaultLongTone(instrument.id), written, beats, tempo, countInBeats });
          if (!made.ok) throw new Error(made.problem);
          expect(scoreSchema.parse(made.value)).toEqual(made.value);
          expect(scoreBeats(made.value)).toBe(beats);
          expect(beatsToSeconds(made.value, beats)).toBeCloseTo((beats * 60) / (tempo ?? 60), 9);
          expect(made.value.countInBeats).toBe(tempo === null ? 0 : countInBeats);
        },
      ),
    );
  });

  it('names the field that is wrong', () => {
    fc.assert(
      fc.property(
        anyInstrument,
        fc.constantFrom(
          ['beats', 1],
          ['beats', 2.5],
          ['tempo', 10],
          ['countInBeats', 20],
          ['written', 3],
        ) as fc.Arbitrary<[string, number]>,
        (instrument, [field, value]) => {
          const made = longTone({ ...defaultLongTone(instrument.id), [field]: value });
          expect(made.ok ? '' : made.problem).toMatch(new RegExp(`^${field}: `));
        },
      ),
    );
  });

  it('starts from a default that every instrument can play', () => {
    for (const instrument of instruments) expect(longTone(defaultLongTone(instrument.id)).ok).toBe(true);
  });
});
