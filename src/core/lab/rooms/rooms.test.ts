import { Random } from '@/core/base';
import { heardIn, impulseResponse, rooms, ROOM_NAMES } from '.';

const RATE = 32_000;
const dB = (power: number) => 10 * Math.log10(power);
const powerOf = (samples: Float32Array) => samples.reduce((sum, x) => sum + x * x, 0) / samples.length;

/** Time for 60 dB from the slope of the energy that is still to come, between −5 and −25 dB (Schroeder 1965). */
function decayOf(response: Float32Array): number {
  const left = new Float64Array(response.length + 1);
  for (let i = response.length - 1; i > 0; i--) left[i] = left[i + 1]! + response[i]! ** 2;
  const at = (down: number) => left.findIndex((energy, i) => i > 0 && dB(energy / left[1]!) < -down);
  return (3 * (at(25) - at(5))) / RATE;
}

describe.each(ROOM_NAMES)('a room that is %s', (name) => {
  const room = rooms[name];

  it.each([1, 2, 3])(
    'answers with the decay and the share of echoes that it is said to have (place %i)',
    (place) => {
      const response = impulseResponse(room, RATE, place);
      const echoes = response.subarray(1).reduce((sum, x) => sum + x * x, 0);
      expect(response[0]).toBe(1);
      expect(dB(1 / echoes)).toBeCloseTo(room.directDb, 1);
      expect(Math.abs(decayOf(response) / room.decaySeconds - 1)).toBeLessThan(0.3);
    },
  );

  it('is the same again in the same place, and another in another', () => {
    const click = new Float32Array(RATE);
    click.fill(0.2, 800, 20_000);
    const [first, again, elsewhere] = [1, 1, 2].map((place) => heardIn(room, click, RATE, place));
    expect(again).toEqual(first);
    expect(elsewhere).not.toEqual(first);
    expect(first).toHaveLength(click.length);
  });
});

it('adds its noise as far under the playing as it is said to', () => {
  const random = new Random(3);
  const half = RATE;
  const dry = Float32Array.from({ length: 2 * half }, (_, i) => (i < half ? 0.1 * random.normal() : 0));
  const { noises, decaySeconds } = rooms.living;
  const quiet = heardIn({ ...rooms.living, phone: 'none' }, dry, RATE, 1).subarray(
    half + Math.ceil(1.3 * decaySeconds * RATE),
  );
  expect(dB(powerOf(quiet) / powerOf(dry.subarray(0, half)))).toBeCloseTo(-noises[0].underDb, -0.5);
});
