import { QUICK_PARTIALS } from './continuity';
import { Listener } from './listener';
import { readAgain } from './readAgain';

const RATE = 48_000;
const F0 = 370;

/** Half a second of a steady tone of five partials, heard. */
function heard() {
  const listener = new Listener(RATE, { lowestHz: 230, highestHz: 1500 });
  listener.push(
    Float32Array.from({ length: RATE / 2 }, (_, i) =>
      [0.1, 0.2, 0.15, 0.05, 0.03].reduce(
        (sum, amplitude, k) => sum + amplitude * Math.sin((2 * Math.PI * (k + 1) * F0 * i) / RATE),
        0,
      ),
    ),
  );
  return listener.finish();
}

test('frames that were followed an octave up get the partials of their tone, the others stay as they are', () => {
  const whole = heard();
  const [from, to] = [40, 52];
  const frames = heard();
  frames.quickPartials.fill(0.5, from * QUICK_PARTIALS, to * QUICK_PARTIALS);
  frames.novelty.fill(1, from - 1, to + 1);
  readAgain(frames, (i) => (i >= from && i < to ? 2 * F0 : F0));
  for (let i = 0; i < frames.quickPartials.length; i++)
    expect(frames.quickPartials[i]).toBeCloseTo(whole.quickPartials[i]!, 3);
  for (let i = from - 1; i < to + 1; i++) expect(frames.novelty[i]).toBeLessThan(0.05);
  expect(frames.novelty.slice(0, from - 1)).toEqual(whole.novelty.slice(0, from - 1));
  expect(frames.novelty.slice(to + 1)).toEqual(whole.novelty.slice(to + 1));
});

test('where nothing was followed otherwise nothing is read again', () => {
  const frames = heard();
  const before = frames.quickPartials.slice();
  frames.novelty.fill(0.7);
  readAgain(frames, (i) => (i % 2 ? NaN : F0 * 1.01));
  expect(frames.quickPartials).toEqual(before);
  expect(frames.novelty.every((value) => Math.abs(value - 0.7) < 1e-6)).toBe(true);
});
