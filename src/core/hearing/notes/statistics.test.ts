import fc from 'fast-check';
import { detrended, rms, robustSlope } from '@/core/base';
import { pitchMotion } from './vibrato';

const HOP = 0.0054;

describe('the robust slope', () => {
  it('is the slope of a line, whatever one in five values are', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.integer({ min: 10, max: 600 }),
        fc.integer(),
        (slope, count, seed) => {
          const values = Array.from({ length: count }, (_, i) =>
            (i * 7 + seed) % 5 === 0 && i % 2 ? 1e4 : slope * i + 3,
          );
          expect(robustSlope(values)).toBeCloseTo(slope, 6);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('passes over what is unknown and says when it does not know', () => {
    expect(robustSlope([0, NaN, 2, 3, NaN, 5])).toBeCloseTo(1, 9);
    expect(robustSlope([1, NaN])).toBeNaN();
  });
});

test('detrending leaves what is not trend', () => {
  const values = Float64Array.from({ length: 200 }, (_, i) => 0.3 * i + (i % 2 ? 1 : -1));
  expect(rms(detrended(values, 0.3))).toBeCloseTo(1, 6);
  expect(rms([])).toBeNaN();
});

describe('vibrato', () => {
  const swing = (rate: number, extent: number, seconds = 3) =>
    Float64Array.from(
      { length: Math.round(seconds / HOP) },
      (_, i) => extent * Math.sin(2 * Math.PI * rate * i * HOP + 1),
    );

  const motionOf = (cents: Float64Array, damping: (rate: number) => number = () => 1) =>
    pitchMotion(cents, cents, HOP, damping);

  it('has its rate and extent at any rate that counts as vibrato', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 3.7, max: 7.8, noNaN: true }),
        fc.double({ min: 4, max: 60, noNaN: true }),
        (rate, extent) => {
          const { vibrato, wobbleCents } = motionOf(swing(rate, extent));
          expect(Math.abs((vibrato?.rateHz ?? 0) - rate)).toBeLessThan(0.1);
          expect(Math.abs((vibrato?.extentCents ?? 0) / extent - 1)).toBeLessThan(0.05);
          expect(wobbleCents / extent).toBeLessThan(0.2);
        },
      ),
      { numRuns: 25 },
    );
  });

  it.each([
    ['slower', 1.5],
    ['faster', 12],
  ])('is not a %s swing', (_, rate) => {
    expect(motionOf(swing(rate, 20)).vibrato).toBeNull();
  });

  it('is not told of what is too short or too small', () => {
    expect(motionOf(swing(5, 20, 0.4)).vibrato).toBeNull();
    expect(motionOf(swing(5, 1)).vibrato).toBeNull();
  });

  it('undoes what the window has damped', () => {
    expect(motionOf(swing(5, 20 * 0.7), () => 0.7).vibrato?.extentCents).toBeCloseTo(20, 0);
  });
});
