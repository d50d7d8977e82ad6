import * as fc from 'fast-check';
import { Losses } from './losses';

const RATE = 48_000;
/** A tone of three partials. */
const tone = (frequency: number, seconds: number) =>
  Float32Array.from({ length: Math.round(seconds * RATE) }, (_, i) =>
    [1, 2, 3].reduce((sum, k) => sum + (0.2 / k) * Math.sin((2 * Math.PI * k * frequency * i) / RATE), 0),
  );
const silenced = (samples: Float32Array, from: number, to: number) => samples.slice().fill(0, from, to);
/** All that comes out for what went in, in chunks of these lengths by turns. */
function through(samples: Float32Array, chunks: readonly number[] = [512]) {
  const losses = new Losses(RATE);
  const out: number[] = [];
  for (let at = 0, k = 0; at < samples.length; k++) {
    const length = chunks[k % chunks.length]!;
    out.push(...losses.next(samples.subarray(at, at + length)));
    at += length;
  }
  out.push(...losses.finish());
  return { out: Float32Array.from(out), found: losses.found };
}
const furthest = (a: Float32Array, b: Float32Array) =>
  a.reduce((most, sample, i) => Math.max(most, Math.abs(sample - b[i]!)), 0);

describe('sound that a device lost', () => {
  it.each([32, 58.3, 233.1, 440, 1760])('a tone of %s Hz is carried on over it', (frequency) => {
    const whole = tone(frequency, 0.5);
    const { out, found } = through(silenced(whole, 12_000, 13_000));
    // Exact but for zeros of the tone itself beside the loss.
    expect(found).toHaveLength(1);
    expect(Math.abs(found[0]!.from - 12_000) + Math.abs(found[0]!.to - 13_000)).toBeLessThan(3);
    expect(out).toHaveLength(whole.length);
    // A period is a whole number of samples here: what that misses is little of the 0.37 that the tone reaches.
    expect(furthest(out, whole)).toBeLessThan(frequency > 1000 ? 0.15 : 0.05);
  });

  it('is the same however the samples come', () => {
    const samples = silenced(silenced(tone(233.1, 0.4), 8000, 8412), 14_000, 18_000);
    const expected = through(samples);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 5000 }), { minLength: 1, maxLength: 6 }), (chunks) => {
        const got = through(samples, chunks);
        expect(furthest(got.out, expected.out)).toBe(0);
        expect(got.found).toEqual(expected.found);
      }),
      { numRuns: 30 },
    );
  });

  it('a loss too long to be filled stays silent and is known', () => {
    const samples = silenced(tone(440, 0.5), 8000, 16_000);
    const { out, found } = through(samples);
    expect(found).toEqual([{ from: 8000, to: 16_000 }]);
    expect(furthest(out, samples)).toBe(0);
  });

  it.each([
    ['silence that a tone follows', silenced(tone(440, 0.5), 0, 12_000)],
    ['a tone that is followed by silence', silenced(tone(440, 0.5), 12_000, 24_000)],
    [
      'a tone that fades away before the silence',
      silenced(tone(440, 0.5), 14_400, 18_000).map((sample, i) =>
        i < 14_400 ? sample * 10 ** (-Math.max(0, i - 9600) / 1000) : sample,
      ),
    ],
  ])('%s lost nothing', (_, samples) => {
    const { out, found } = through(samples);
    expect(found).toEqual([]);
    expect(furthest(out, samples)).toBe(0);
  });
});
