import { altered } from './altered';

const RATE = 16_000;
const tone = () =>
  Float32Array.from({ length: 2 * RATE }, (_, i) => Math.sin((2 * Math.PI * 440 * i) / RATE));
const rms = (samples: Float32Array) =>
  Math.sqrt(samples.reduce((sum, sample) => sum + sample * sample, 0) / samples.length);
const inside = (audio: Float32Array) => audio.subarray(1.1 * RATE, 1.4 * RATE);
const crossings = (samples: Float32Array) =>
  samples.reduce((sum, sample, i) => sum + (i > 0 && samples[i - 1]! < 0 && sample >= 0 ? 1 : 0), 0);
const stretch = { from: 1, to: 1.5 } as const;

test('what is altered is that stretch, and nothing beside it', () => {
  const audio = tone();
  altered(audio, RATE, { how: 'silence', ...stretch });
  expect(rms(inside(audio))).toBeLessThan(1e-3);
  const other = tone();
  const changed = audio.findIndex((sample, i) => sample !== other[i]);
  expect(changed).toBeGreaterThanOrEqual(RATE);
  expect(audio.findLastIndex((sample, i) => sample !== other[i])).toBeLessThan(1.5 * RATE);
});

test('a pitch is moved by its cents, a level by its decibels, and a growl is as loud as it is asked to be', () => {
  const up = tone();
  altered(up, RATE, { how: 'pitch', by: 1200, ...stretch });
  expect(crossings(inside(up)) / 0.3).toBeCloseTo(880, -1);
  const weak = tone();
  altered(weak, RATE, { how: 'weaker', by: 20, ...stretch });
  expect(20 * Math.log10(rms(inside(weak)) / rms(inside(tone())))).toBeCloseTo(-20, 1);
  const growling = tone();
  altered(growling, RATE, { how: 'growl', hertz: 220, level: 0, ...stretch });
  const plain = inside(tone());
  const added = inside(growling).map((sample, i) => sample - plain[i]!);
  expect(20 * Math.log10(rms(added) / rms(plain))).toBeGreaterThan(-0.5);
});

test('a stretch that is not in the recording is refused', () => {
  expect(() => altered(tone(), RATE, { how: 'silence', from: 1.9, to: 2.5 })).toThrow(/not in the recording/);
});
