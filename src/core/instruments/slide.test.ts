import * as fc from 'fast-check';
import {
  findInstrument,
  instruments,
  loweredBy,
  slideAdvice,
  soundingLength,
  soundSpeed,
  warmedBy,
  writtenRange,
} from '.';

const flute = findInstrument('flute')!;
const clarinet = findInstrument('clarinet-bb')!;

describe('the slide', () => {
  it('knows the speed of sound and the lengths of open and closed tubes', () => {
    expect(soundSpeed(20) / 1000).toBeCloseTo(343.2, 0);
    // C4 of a flute: half a wave of 261.6 Hz. E3 written of a Bb clarinet sounds D3: a quarter of 146.8 Hz.
    expect(soundingLength(flute, 60)).toBeCloseTo(343_200 / (2 * 261.63), -1);
    expect(soundingLength(clarinet, 52)).toBeCloseTo(343_200 / (4 * 146.83), -1);
  });

  it('moves notes of one fingering alike, and parts octaves of different ones', () => {
    // E4 and E5 of a flute are one fingering in two modes; C4 and C5 are not.
    expect(soundingLength(flute, 76)).toBeCloseTo(soundingLength(flute, 64), 6);
    expect(loweredBy(5, soundingLength(flute, 72))).toBeGreaterThan(
      1.5 * loweredBy(5, soundingLength(flute, 60)),
    );
  });

  it('finds the pull that would put everything right', () => {
    fc.assert(
      fc.property(fc.double({ min: -8, max: 12, noNaN: true }), (missing) => {
        const readings = [60, 67, 72, 76, 81].map((written) => ({
          written,
          cents: loweredBy(missing, soundingLength(flute, written)),
          weight: 1,
        }));
        const advice = slideAdvice(flute, readings)!;
        expect(Math.abs(advice.millimetres - missing)).toBeLessThan(0.11);
        expect(advice.worstThen).toBeLessThan(1);
      }),
    );
  });

  it('makes nothing worse, on any instrument', () => {
    for (const instrument of instruments) {
      const { low, high } = writtenRange(instrument);
      const readings = [low, Math.round((low + high) / 2), high].map((written, i) => ({
        written,
        cents: [12, -9, 4][i]!,
        weight: 1,
      }));
      const advice = slideAdvice(instrument, readings)!;
      const squares = (cents: number[]) => cents.reduce((sum, each) => sum + each * each, 0);
      expect(squares(advice.left.map((each) => each.cents))).toBeLessThanOrEqual(squares([12, -9, 4]) + 1e-9);
    }
    expect(slideAdvice(flute, [])).toBeNull();
  });

  it('knows what warmth does', () => {
    // From 15 to 25 degrees: about 30 cents for the whole of the bore.
    expect(warmedBy(15, 25, 1)).toBeCloseTo(29.5, 0);
    expect(warmedBy(20, 20)).toBe(0);
  });
});
