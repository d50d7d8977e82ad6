import fc from 'fast-check';
import { Random } from '@/core/base';
import { findInstrument, listeningRange } from '@/core/instruments';
import { centsBetween, midiToHertz } from '@/core/tuning';
import { DroneRemover, droneFrequencies, isSpoilt } from './drone';
import { FractionalPeak, REACH } from './fractional';
import { Listener } from './listener';

const RATE = 48_000;

describe('the highest point between samples', () => {
  it('is found for any sum of partials, at its true height', () => {
    const peak = new FractionalPeak();
    fc.assert(
      fc.property(
        fc.double({ min: 9, max: 30, noNaN: true }),
        fc.integer({ min: 1, max: 5 }),
        fc.double({ min: 3, max: 14, noNaN: true }),
        (period, partials, slope) => {
          fc.pre(partials / period < 0.36);
          const at = Math.round(period);
          const weights = Array.from(
            { length: partials },
            (_, k) => 10 ** ((-slope * Math.log2(k + 1)) / 10),
          );
          const total = weights.reduce((a, b) => a + b, 0);
          const values = Float64Array.from(
            { length: at + REACH + 1 },
            (_, lag) =>
              weights.reduce((sum, w, k) => sum + w * Math.cos((2 * Math.PI * lag * (k + 1)) / period), 0) /
              total,
          );
          peak.find(values, at, 0);
          expect(Math.abs(at + peak.shift - period)).toBeLessThan(0.006);
          expect(Math.abs(peak.height - 1)).toBeLessThan(0.001);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('taking a drone out', () => {
  const sine = (frequency: number, seconds = 3) =>
    Float64Array.from({ length: seconds * RATE }, (_, i) => Math.sin((2 * Math.PI * frequency * i) / RATE));
  const rmsDb = (samples: Float64Array) =>
    10 * Math.log10(samples.reduce((sum, x) => sum + x * x, 0) / samples.length);

  it.each([220, 261.6, 440])(
    'leaves next to nothing of %d Hz, and nearly all of what is 4 Hz away',
    (frequency) => {
      const after = (heard: number) => {
        const remover = new DroneRemover([frequency], RATE);
        return (
          rmsDb(
            sine(heard)
              .map((x) => remover.next(x))
              .slice(2 * RATE),
          ) - rmsDb(sine(heard))
        );
      };
      expect(after(frequency)).toBeLessThan(-60);
      expect(after(frequency + 4)).toBeGreaterThan(-0.4);
      expect(after(frequency * 1.5)).toBeGreaterThan(-0.05);
    },
  );

  it('knows which partials it leaves to nobody', () => {
    const removed = droneFrequencies([220], RATE);
    expect(removed).toHaveLength(16);
    expect([1, 2, 3].map((k) => isSpoilt(k, 330, removed))).toEqual([false, true, false]);
    expect([1, 2].map((k) => isSpoilt(k, 440.5, removed))).toEqual([true, true]);
  });
});

describe('octaves', () => {
  const tone = (f0: number, partialsDb: readonly number[]) => {
    const random = new Random(2);
    return Float32Array.from({ length: 1.2 * RATE }, (_, i) =>
      partialsDb.reduce(
        (sum, dB, k) =>
          sum + 0.1 * 10 ** (dB / 20) * Math.sin((2 * Math.PI * (k + 1) * f0 * i) / RATE + k * k),
        2e-5 * random.normal(),
      ),
    );
  };
  const heard = (id: string, samples: Float32Array) => {
    const listener = new Listener(RATE, listeningRange(findInstrument(id)!));
    listener.push(samples);
    return [...listener.finish().f0.slice(70, -70)];
  };

  it.each([
    ['bassoon', 'G#3', 56, [-22, 0, -23, -18, -29, -31]],
    ['bassoon', 'low C, hardly any fundamental', 36, [-32, -20, -8, 0, -2, -6, -10, -12]],
    ['oboe', 'low B flat, weak fundamental', 58, [-24, -8, 0, -1, -3, -8]],
    ['clarinet-bb', 'odd partials only', 62, [0, -60, -8, -60, -14, -60, -20]],
    ['contrabassoon', 'its lowest note', 22, [-30, -12, -4, 0, -1, -2, -4, -6, -8, -10]],
    ['piccolo', 'its highest note', 108, [0, -12]],
  ])('are right on the %s: %s', (id, _, midi, partials) => {
    const truth = midiToHertz(midi);
    const errors = heard(id, tone(truth, partials)).map((f0) => Math.abs(centsBetween(f0, truth)));
    expect(Math.max(...errors)).toBeLessThan(5);
  });
});

describe('a long stream', () => {
  it('is the same whether or not its path has been settled on the way', () => {
    const flute = findInstrument('flute')!;
    const random = new Random(4);
    // Notes and silences for 40 s: several times as long as what is kept unsettled.
    const samples = new Float32Array(40 * RATE);
    for (let start = 0; start < 40; start += 0.5) {
      const frequency = midiToHertz(60 + Math.floor(random.between(0, 36)));
      for (let i = start * RATE; i < (start + 0.4) * RATE; i++)
        samples[i] = 0.1 * Math.sin((2 * Math.PI * frequency * i) / RATE) + 1e-4 * random.normal();
    }
    const whole = new Listener(RATE, listeningRange(flute));
    whole.push(samples);
    const frames = whole.finish();
    const end = new Listener(RATE, listeningRange(flute));
    // On the grid of every stream's lowered rate, or the filters would stand differently.
    const grid = 12 * frames.settings.hop;
    const from = Math.floor((36 * RATE) / grid) * grid;
    end.push(samples.subarray(from));
    const tail = end.finish();
    const offset = from / frames.settings.hop;
    let same = 0;
    let voiced = 0;
    for (let i = 120; i < tail.count - 1; i++) {
      const [a, b] = [frames.f0[offset + i]!, tail.f0[i]!];
      expect(Number.isNaN(a)).toBe(Number.isNaN(b));
      if (Number.isNaN(a)) continue;
      voiced++;
      if (Math.abs(centsBetween(a, b)) < 0.01) same++;
    }
    expect(same / voiced).toBeGreaterThan(0.98);
  });
});
