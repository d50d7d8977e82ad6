import * as fc from 'fast-check';
import { runs } from '@/core/base/thinned.testing';
import { Random } from '@/core/base';
import { findInstrument, listeningRange } from '@/core/instruments';
import { perform, randomFigure, steadyPlayer } from '@/core/lab';
import { Jumps } from './jumps';

const RATE = 48_000;

function jumpsIn(samples: Float32Array, minHz: number, chunk = samples.length) {
  const jumps = new Jumps(RATE, minHz);
  for (let at = 0; at < samples.length; at += chunk) jumps.push(samples.subarray(at, at + chunk));
  return jumps.found;
}
/** A reedy tone of eight partials in some noise, without `missing` samples from `at` on. */
function toneWithout(frequency: number, at: number, missing: number, noise = 0.001) {
  const random = new Random(at);
  return Float32Array.from({ length: 24_000 }, (_, i) => {
    const t = (i < at ? i : i + missing) / RATE;
    let sum = noise * random.normal();
    for (let k = 1; k <= 8; k++) sum += (0.2 / k) * Math.cos(2 * Math.PI * k * frequency * t + k * k);
    return sum;
  });
}

/** How sharp a sound turns at a place, or anywhere. */
function turnAt(samples: Float32Array, at: number | null): number {
  const turns = samples.map((sample, i) =>
    i < 2 ? 0 : Math.abs(sample - 2 * samples[i - 1]! + samples[i - 2]!),
  );
  return Math.max(...(at === null ? turns : turns.subarray(at, at + 2)));
}

describe('sound that was left out without a gap', () => {
  it('is found where it is missing, by what is missing of a period', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 65, max: 1200, noNaN: true }),
        fc.integer({ min: 8000, max: 16_000 }),
        fc.double({ min: 0.15, max: 0.85, noNaN: true }),
        fc.integer({ min: 0, max: 5 }),
        (frequency, at, share, periods) => {
          const period = RATE / frequency;
          const missing = Math.round((periods + share) * period);
          const samples = toneWithout(frequency, at, missing);
          // Where the tone happens to go on in the same direction nothing is seen of it.
          fc.pre(turnAt(samples, at) > 1.5 * turnAt(toneWithout(frequency, 0, 0), null));
          const found = jumpsIn(samples, 60);
          expect(found).toHaveLength(1);
          expect(Math.abs(found[0]!.from - at)).toBeLessThan(4);
          const shift = ((missing % period) + period) % period;
          expect(Math.abs(found[0]!.to - found[0]!.from - shift)).toBeLessThan(0.08 * period + 2);
        },
      ),
      { numRuns: runs(60) },
    );
  });

  it('two of them close together are both found, however the samples come', () => {
    const one = toneWithout(440, 8000, 37);
    const samples = Float32Array.from([...one.subarray(0, 9000), ...one.subarray(9050)]);
    const whole = jumpsIn(samples, 200);
    expect(whole.map(({ from }) => Math.round(from / 10))).toEqual([800, 900]);
    for (const chunk of [1, 128, 4096]) expect(jumpsIn(samples, 200, chunk)).toEqual(whole);
  });

  it.each(['flute', 'recorder-alto', 'oboe', 'clarinet-bb', 'bassoon', 'sax-alto'])(
    'nothing is missing of what is played on %s',
    (id) => {
      const instrument = findInstrument(id)!;
      const { audio } = perform({
        score: randomFigure(instrument, 11, 10),
        instrument,
        player: steadyPlayer,
        seed: 11,
        sampleRate: RATE,
        a4: 440,
        leadSeconds: 0.5,
        tailSeconds: 0.5,
      });
      expect(audio.length).toBeGreaterThan(5 * RATE);
      expect(jumpsIn(audio, listeningRange(instrument).lowestHz / 1.13)).toEqual([]);
    },
  );

  it('noise, silence and a single click have no tone to lose', () => {
    const random = new Random(3);
    const noise = Float32Array.from({ length: 24_000 }, () => 0.1 * random.normal());
    const click = new Float32Array(24_000);
    click[9000] = 0.9;
    expect([noise, new Float32Array(24_000), click].flatMap((samples) => jumpsIn(samples, 60))).toEqual([]);
  });
});
