import { PitchMoves } from './pitchMoves';

const HOP = 0.0054;
const still = new Float64Array(120).fill(81);
const swinging = (cents: number) =>
  Float64Array.from({ length: 120 }, (_, i) => 81 + (cents / 100) * Math.sin(2 * Math.PI * 5 * i * HOP));

test('a still tone moves by nothing, and a wider swing moves more', () => {
  const moves = [still, swinging(5), swinging(20)].map((pitch) => new PitchMoves(pitch, 880).around(55, 62));
  expect(moves[0]).toEqual({ speed: 0, settling: 0, widest: 0, narrowest: 0 });
  for (const what of ['speed', 'widest'] as const) {
    expect(moves[1]![what]).toBeGreaterThan(1);
    expect(moves[2]![what]).toBeGreaterThan(moves[1]![what] + 1);
  }
});

test('the same swing moves a higher tone by more hertz', () => {
  const [low, high] = [110, 1760].map((f0) => new PitchMoves(swinging(20), f0).speed(60, 0.5));
  expect(high! - low!).toBeGreaterThan(2);
});

test('where no pitch is known, as much is assumed as could be', () => {
  const unknown = new PitchMoves(new Float64Array(120).fill(NaN), 880);
  expect(unknown.speed(60, 0.5)).toBeGreaterThan(new PitchMoves(swinging(5), 880).speed(60, 0.5));
});
