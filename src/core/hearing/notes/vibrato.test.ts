import * as fc from 'fast-check';
import { Random } from '@/core/base';
import { isRegular, vibratoIn } from './vibrato';

const HOP = 0.0054;
const SECONDS = 2;
const pitches = (at: (seconds: number, i: number) => number) =>
  Float64Array.from({ length: Math.round(SECONDS / HOP) }, (_, i) => at(i * HOP, i));

const rates = fc.integer({ min: 40, max: 70 }).map((tenths) => tenths / 10);
const extents = fc.integer({ min: 10, max: 60 }).map((cents) => cents / 100);
const phases = fc.integer({ min: 0, max: 99 }).map((share) => share / 100);

test('a swing is regular, whether it is round or a pulse in each turn', () => {
  fc.assert(
    fc.property(rates, extents, phases, fc.boolean(), (rateHz, extent, phase, isPulse) => {
      const pitch = pitches((t) => {
        const turn = (rateHz * t + phase) % 1;
        return (
          60 + extent * (isPulse ? Math.max(0, 1 - 3 * Math.abs(turn - 0.5)) : Math.sin(2 * Math.PI * turn))
        );
      });
      expect(isRegular(pitch, HOP)).toBe(true);
      if (!isPulse) expect(vibratoIn(pitch, HOP)!.rateHz).toBeCloseTo(rateHz, 1);
    }),
    { numRuns: 30 },
  );
});

test('four seconds are regular where at least half of them swing', () => {
  const swinging = (seconds: number) =>
    isRegular(
      Float64Array.from({ length: Math.round(4 / HOP) }, (_, i) =>
        i * HOP < seconds ? 60 + 0.3 * Math.sin(2 * Math.PI * 5.5 * i * HOP) : 60,
      ),
      HOP,
    );
  expect([0.5, 1, 3, 4].map(swinging)).toEqual([false, false, true, true]);
});

test('a pitch that wavers as it likes is not regular', () => {
  const regular = Array.from({ length: 20 }, (_, seed) => {
    const random = new Random(seed + 1);
    return isRegular(
      pitches(() => 60 + 0.1 * random.normal()),
      HOP,
    );
  });
  expect(regular.filter(Boolean)).toEqual([]);
  expect(
    isRegular(
      pitches(() => 60),
      HOP,
    ),
  ).toBe(false);
});
