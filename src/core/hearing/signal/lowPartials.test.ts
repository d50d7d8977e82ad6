import { Random } from '@/core/base';
import { findInstrument, listeningRange } from '@/core/instruments';
import { centsBetween } from '@/core/tuning';
import { Listener } from './listener';

const RATE = 48_000;
const SECONDS = 1.6;
const BESIDE = 0.2;
const ECHOES = [0.031, 0.053, 0.089, 0.127];
const contrabassoon = listeningRange(findInstrument('contrabassoon')!);

function heard(sound: Float32Array) {
  const listener = new Listener(RATE, contrabassoon);
  listener.push(sound);
  const { f0, hopSeconds, count } = listener.finish();
  return Array.from({ length: count }, (_, i) => ({ seconds: i * hopSeconds, hertz: f0[i]! })).filter(
    ({ seconds }) => seconds > BESIDE && seconds < SECONDS - BESIDE,
  );
}

/** A low tone of many partials whose pitch swings, with its echoes. */
function swinging(f0: number, rateHz: number, extentCents: number, echo: number) {
  const width = (f0 * Math.LN2 * extentCents) / 1200;
  const phaseAt = (t: number) =>
    2 * Math.PI * (f0 * t - (width / (2 * Math.PI * rateHz)) * Math.cos(2 * Math.PI * rateHz * t));
  const at = (t: number) => {
    let sum = 0;
    for (let k = 1; k <= 45; k++) sum += Math.sin(k * phaseAt(t) + k * k) / Math.sqrt(k);
    return 0.02 * sum;
  };
  const dry = Float32Array.from({ length: RATE * SECONDS }, (_, i) => at(i / RATE));
  return dry.map((x, i) =>
    ECHOES.reduce((sum, delay) => sum + echo * (dry[i - Math.round(delay * RATE)] ?? 0), x),
  );
}

test.each([
  [27.5, 5.8, 0.5],
  [41, 6.5, 0.6],
])(
  'a tone of %d Hz that swings %d times a second by half a semitone keeps its pitch over its echoes',
  (f0, rateHz, echo) => {
    const frames = heard(swinging(f0, rateHz, 50, echo));
    const near = frames.filter(({ hertz }) => Math.abs(centsBetween(hertz, f0)) < 75);
    expect(near.length / frames.length).toBeGreaterThan(0.97);
  },
);

test('noise has no pitch in its lower partials either', () => {
  const random = new Random(3);
  const frames = heard(Float32Array.from({ length: RATE * SECONDS }, () => 0.1 * random.normal()));
  expect(frames.filter(({ hertz }) => hertz > 0)).toEqual([]);
});
