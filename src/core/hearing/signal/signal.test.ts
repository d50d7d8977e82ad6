import { thinned } from '@/core/base/thinned.testing';
import {
  findInstrument,
  instruments,
  listeningRange,
  writtenRange,
  soundingOf,
  type Instrument,
} from '@/core/instruments';
import { centsBetween, midiToHertz } from '@/core/tuning';
import { Random } from '@/core/base';
import { Listener } from '.';

const RATE = 48_000;

function instrumentNamed(id: string): Instrument {
  const found = findInstrument(id);
  if (!found) throw new Error(id);
  return found;
}

/** A steady tone with falling partials in white noise. */
function tone(
  frequency: number,
  seconds: number,
  options: { snr?: number; odd?: boolean; weakFirst?: boolean; rate?: number } = {},
) {
  const rate = options.rate ?? RATE;
  const random = new Random(7);
  const out = new Float32Array(Math.round(seconds * rate));
  let power = 0;
  for (let k = 1; k <= 12 && k * frequency < 0.45 * rate; k++) {
    const amplitude =
      (0.2 / k) * (options.odd && k % 2 === 0 ? 0.05 : 1) * (options.weakFirst && k === 1 ? 0.05 : 1);
    const phase = random.between(0, 6);
    power += amplitude ** 2 / 2;
    for (let i = 0; i < out.length; i++)
      out[i]! += amplitude * Math.sin((2 * Math.PI * k * frequency * i) / rate + phase);
  }
  const noise = Math.sqrt(power * 10 ** (-(options.snr ?? 40) / 10));
  for (let i = 0; i < out.length; i++) out[i]! += noise * random.normal();
  return out;
}

function listen(samples: Float32Array, instrument: Instrument, rate = RATE) {
  const listener = new Listener(rate, listeningRange(instrument));
  listener.push(samples);
  return listener.finish();
}

const quantile = (values: number[], q: number) =>
  [...values].sort((a, b) => a - b)[Math.floor(q * (values.length - 1))] ?? NaN;

describe('f0', () => {
  it.each(thinned(instruments, 8).map((each) => [each.id, each] as const))(
    'is right to a tenth of a cent on the %s',
    (_, instrument) => {
      const { low, high } = writtenRange(instrument);
      for (const written of [low, Math.round((low + high) / 2), high]) {
        const truth = midiToHertz(soundingOf(instrument, written)) * 1.003;
        const frames = listen(
          tone(truth, 1.5, {
            odd: instrument.series === 'odd',
            weakFirst: instrument.kind === 'double-reed',
          }),
          instrument,
        );
        const errors = [...frames.f0.slice(60, -60)].map((f0) => Math.abs(centsBetween(f0, truth)));
        expect(errors.every((error) => error < 50)).toBe(true);
        expect(quantile(errors, 0.5)).toBeLessThan(0.1);
        expect(quantile(errors, 0.99)).toBeLessThan(1);
      }
    },
  );

  it.each(thinned([8000, 22_050, 44_100, 96_000, 192_000], 3))(
    'does not depend on the sample rate (%d Hz)',
    (rate) => {
      const frames = listen(tone(311.1, 1, { rate }), instrumentNamed('oboe'), rate);
      const errors = [...frames.f0.slice(50, -50)].map((f0) => Math.abs(centsBetween(f0, 311.1)));
      expect(quantile(errors, 1)).toBeLessThan(2);
      expect(frames.hopSeconds).toBeLessThanOrEqual(0.0054);
    },
  );

  it.each(thinned(['bassoon', 'contrabassoon', 'clarinet-bass'], 1))(
    'glides evenly on the %s, whose long window is read for two frames at once',
    (id) => {
      const instrument = instrumentNamed(id);
      const low = midiToHertz(soundingOf(instrument, writtenRange(instrument).low + 2));
      // 80 cents a second.
      const hertzAt = (t: number) => low * 2 ** ((80 * t) / 1200);
      const phaseAt = (t: number) => ((2 * Math.PI * 1200) / (80 * Math.LN2)) * (hertzAt(t) - low);
      const samples = Float32Array.from({ length: 2 * RATE }, (_, i) => {
        let sum = 0;
        for (let k = 1; k <= 10; k++) sum += (0.2 / k) * Math.sin(k * phaseAt(i / RATE) + k * k);
        return sum;
      });
      const { f0, hopSeconds } = listen(samples, instrument);
      const off = [...f0].map((hertz, i) => centsBetween(hertz, hertzAt(i * hopSeconds)));
      const steps = off.slice(61, -60).map((cents, i) => cents - off[60 + i]!);
      expect(Math.abs(quantile(off.slice(60, -60), 0.5))).toBeLessThan(0.2);
      expect(quantile(steps.map(Math.abs), 0.95)).toBeLessThan(0.25);
    },
  );

  it.each(thinned([1, 3, 0, 2], 2))(
    'speaks of every frame to the last, however many there are (%d more)',
    (more) => {
      const bassoon = instrumentNamed('bassoon');
      const { hop } = new Listener(RATE, listeningRange(bassoon)).settings;
      const frames = listen(tone(110, 1).subarray(0, (160 + more) * hop), bassoon);
      expect(frames.count).toBe(160 + more);
      expect([...frames.strongestHz.slice(4)].every((hertz) => hertz > 0)).toBe(true);
    },
  );

  it('does not depend on how the samples are cut into chunks', () => {
    const samples = tone(440, 0.7);
    const flute = instrumentNamed('flute');
    const listener = new Listener(RATE, listeningRange(flute));
    for (let i = 0, size = 1; i < samples.length; i += size, size = (size * 7 + 3) % 1700) {
      size = Math.max(1, size);
      listener.push(samples.subarray(i, i + size));
    }
    expect(listener.finish().f0).toEqual(listen(samples, flute).f0);
  });
});

describe('level', () => {
  it('is the RMS in dBFS', () => {
    const samples = Float32Array.from(
      { length: RATE },
      (_, i) => 0.5 * Math.sin((2 * Math.PI * 440 * i) / RATE),
    );
    const frames = listen(samples, instrumentNamed('flute'));
    expect(frames.levelDb[90]).toBeCloseTo(20 * Math.log10(0.5 / Math.SQRT2), 1);
  });

  it('reports clipping', () => {
    const samples = tone(440, 1).map((x) => Math.max(-1, Math.min(1, 9 * x)));
    expect(listen(samples, instrumentNamed('flute')).clipped.some((c) => c === 1)).toBe(true);
  });
});

describe('airiness', () => {
  it('falls and rises with the noise, dB for dB', () => {
    const middle = (snr: number) =>
      quantile([...listen(tone(500, 1.5, { snr }), instrumentNamed('flute')).airinessDb.slice(60, -60)], 0.5);
    expect(middle(10) - middle(30)).toBeCloseTo(20, 0);
  });
});

describe('what is no music', () => {
  const nothing: [string, Float32Array][] = [
    ['silence', new Float32Array(RATE)],
    ['an offset', new Float32Array(RATE).fill(0.4)],
    ['not-a-number samples', new Float32Array(RATE).fill(NaN)],
    ['0 samples', new Float32Array(0)],
    ['fewer samples than a frame', new Float32Array(40)],
  ];
  it.each(nothing)('%s has no pitch after the first moment', (_, samples) => {
    const frames = listen(samples, instrumentNamed('flute'));
    expect([...frames.f0.slice(40)].every(Number.isNaN)).toBe(true);
  });

  it('hears hardly any pitch in noise', () => {
    const random = new Random(3);
    const frames = listen(
      Float32Array.from({ length: 3 * RATE }, () => 0.1 * random.normal()),
      instrumentNamed('flute'),
    );
    const voiced = [...frames.f0].filter((f0) => f0 > 0).length;
    expect(voiced / frames.count).toBeLessThan(0.05);
  });

  it('refuses a sample rate that cannot be', () => {
    expect(() => new Listener(4000, { lowestHz: 100, highestHz: 1000 })).toThrow(/sampleRate/);
  });
});
