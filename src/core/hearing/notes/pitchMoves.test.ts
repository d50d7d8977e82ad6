import { PitchMoves } from './pitchMoves';

const HOP = 0.0054;
const still = new Float64Array(120).fill(81);
const swinging = (cents: number) =>
  Float64Array.from({ length: 120 }, (_, i) => 81 + (cents / 100) * Math.sin(2 * Math.PI * 5 * i * HOP));
const WEIGHTS = { slow: -1, fast: -1, settling: 0, most: -1, least: 0 };

test('a still tone moves by nothing, and a wider swing says more against a new start', () => {
  const against = [still, swinging(5), swinging(20)].map((pitch) =>
    new PitchMoves(pitch, 880).weigh(WEIGHTS, 55, 62),
  );
  expect(against[0]).toBe(0);
  expect(against[1]!).toBeLessThan(-2);
  expect(against[2]!).toBeLessThan(against[1]! - 2);
});

test('the same swing moves a higher tone by more hertz', () => {
  const [low, high] = [110, 1760].map((f0) => new PitchMoves(swinging(20), f0).speed(60, 0.5));
  expect(high! - low!).toBeGreaterThan(2);
});

test('where no pitch is known, as much is assumed as could be', () => {
  const unknown = new PitchMoves(new Float64Array(120).fill(NaN), 880);
  expect(unknown.speed(60, 0.5)).toBeGreaterThan(new PitchMoves(swinging(5), 880).speed(60, 0.5));
});
