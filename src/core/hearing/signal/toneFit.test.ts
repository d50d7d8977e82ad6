import { Random } from '@/core/base';
import { ToneFit, WindowedSound } from '.';

const RATE = 8000;

const play = (tones: readonly { hertz: number; amplitude: number; phase: number }[], seconds = 0.2) =>
  Float32Array.from({ length: RATE * seconds }, (_, i) =>
    tones.reduce(
      (sum, { hertz, amplitude, phase }) =>
        sum + amplitude * Math.cos((2 * Math.PI * hertz * i) / RATE + phase),
      0,
    ),
  );

test('tones that a window of 28 ms could not tell apart are told by their known frequencies', () => {
  const random = new Random(5);
  for (let trial = 0; trial < 40; trial++) {
    const low = random.between(150, 900);
    const tones = [low, low + random.between(26, 60), 2 * low + 40, 3 * low + 90].map((hertz) => ({
      hertz,
      amplitude: random.between(0.02, 0.4),
      phase: random.between(0, 6.2),
    }));
    const fit = new ToneFit(
      new WindowedSound(play(tones), RATE, 0.028),
      tones.map(({ hertz }) => hertz),
    );
    const found = fit.at(0.1);
    tones.forEach(({ amplitude }, k) => expect(Math.abs(found[k]! - amplitude)).toBeLessThan(0.02));
  }
});

test('what was not asked for leaves the others as they are, and outside the sound there is silence', () => {
  const tones = [
    { hertz: 300, amplitude: 0.3, phase: 1 },
    { hertz: 1100, amplitude: 0.2, phase: 2 },
  ];
  const windowed = new WindowedSound(play(tones), RATE, 0.028);
  const fit = new ToneFit(windowed, [300, 700]);
  const found = fit.at(0.1);
  expect(found[0]).toBeCloseTo(0.3, 1);
  expect(found[1]).toBeLessThan(0.02);
  expect(Array.from(fit.at(3))).toEqual([0, 0]);
  // What another fit has looked at there already changes nothing.
  new ToneFit(windowed, [1100, 300]).at(0.11);
  const both = new ToneFit(windowed, [1100, 300]).at(0.1);
  expect(both[0]).toBeCloseTo(0.2, 2);
  expect(both[1]).toBeCloseTo(0.3, 2);
});

test('more tones than samples can tell are refused', () => {
  const frequencies = Array.from({ length: 30 }, (_, k) => 100 * (k + 1));
  expect(() => new ToneFit(new WindowedSound(new Float32Array(0), RATE, 0.005), frequencies)).toThrow(
    RangeError,
  );
});
