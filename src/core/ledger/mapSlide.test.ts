import { Random } from '@/core/base';
import { findInstrument, instruments, loweredBy, soundingLength, writtenRange } from '@/core/instruments';
import { asHeard, mapSlide, noteMap, shiftBy } from '.';
import { cellOf, rememberedOf, START_DAY } from './memory.testing';

const flute = findInstrument('flute')!;
const NOW = START_DAY + 56;

describe('what a slide would do', () => {
  it('is found within 0.3 mm of the truth on every instrument, and agrees with trying every tenth', () => {
    for (const instrument of instruments) {
      const { low, high } = writtenRange(instrument);
      const random = new Random(low);
      const scale = Array.from({ length: 12 }, (_, i) => low + Math.round(((high - low) * i) / 11));
      for (const truth of [-4, 3.4, 9]) {
        const played = rememberedOf(
          Array.from({ length: 40 }, (_, day) => ({
            day,
            row: { slideMm: 12, temperatureC: 20 },
            // So far out of place, with days of half a cent.
            notes: scale.map((written) =>
              cellOf(
                written,
                loweredBy(truth, soundingLength(instrument, written, 440, 20)) + 0.5 * random.normal(),
              ),
            ),
          })),
        );
        const map = noteMap(played, instrument, START_DAY + 40);
        const advice = mapSlide(map, instrument, 8)!;
        expect(Math.abs(advice.millimetres - truth)).toBeLessThanOrEqual(0.3);
        const cost = (mm: number) => {
          const shift = shiftBy(instrument, map.usual, { ...asHeard(map.usual), slideMm: mm });
          return map.notes.reduce(
            (sum, { written, heard, certainty }) =>
              heard ? sum + certainty * (heard.value + shift(written)) ** 2 : sum,
            0,
          );
        };
        const tenths = Array.from({ length: 371 }, (_, i) => (i - 120) / 10);
        const best = tenths.reduce((a, b) => (cost(b) < cost(a) ? b : a));
        expect(Math.abs(advice.millimetres - best)).toBeLessThanOrEqual(0.1);
      }
    }
  });

  it('is not said of a few notes that lie together', () => {
    const few = rememberedOf([{ day: 0, notes: [67, 69, 71].map((written) => cellOf(written, 20)) }]);
    expect(mapSlide(noteMap(few, flute, NOW), flute, 8)).toBeNull();
  });

  it('follows temperature as physics has it: 0.6 of 1.7 cents a degree or so, in every note', () => {
    const usual = { slideMm: null, temperatureC: 22, a4: 440 };
    const shift = shiftBy(flute, usual, { slideMm: 0, temperatureC: 12, a4: 440 });
    // c ∝ √T: 1200·log2 √(285.15/295.15), times the share of the bore that follows the room.
    expect(shift(67)).toBeCloseTo(0.6 * 600 * Math.log2(285.15 / 295.15), 6);
    expect(shift(84)).toBeCloseTo(shift(67), 9);
    expect(shiftBy(flute, usual, { ...asHeard(usual), a4: 443 })(67)).toBeCloseTo(-11.764, 3);
  });

  it('shrinks octaves when pulled', () => {
    const usual = { slideMm: null, temperatureC: 20, a4: 440 };
    const shift = shiftBy(flute, usual, { ...asHeard(usual), slideMm: 5 });
    // C6 is fingered an octave above C5, with half the tube.
    expect(shift(72)).toBeLessThan(shift(60));
  });
});
