import fc from 'fast-check';
import { Random } from '@/core/base';
import { clickMask, clickSamples, CLICK_SECONDS, listeningSettings, locateClicks, type Click } from '.';
import { Decimator } from './decimator';
import { Periodicity } from './periodicity';
import { CosineTransform } from './cosineTransform';
import { RealFft } from './realFft';
import { SampleWindow } from './sampleWindow';
import { Spectrum } from './spectrum';

const RATE = 48_000;

describe('the real FFT', () => {
  const size = 64;
  const input = Float64Array.from(
    { length: size },
    (_, i) => Math.sin(i * 1.3) + 0.4 * Math.cos(i * 0.2) + (i % 5) / 7,
  );

  it('is the discrete Fourier transform', () => {
    const out = new Float64Array(size + 2);
    new RealFft(size).forward(input, out);
    for (let k = 0; k <= size / 2; k++) {
      let re = 0;
      let im = 0;
      input.forEach((x, n) => {
        re += x * Math.cos((2 * Math.PI * k * n) / size);
        im -= x * Math.sin((2 * Math.PI * k * n) / size);
      });
      expect(out[2 * k]).toBeCloseTo(re, 9);
      expect(out[2 * k + 1]).toBeCloseTo(im, 9);
    }
  });

  it('turns a power spectrum into the autocorrelation', () => {
    const fft = new RealFft(size);
    const padded = input.map((x, i) => (i < size / 2 ? x : 0));
    const out = new Float64Array(size + 2);
    fft.forward(padded, out);
    const power = Float64Array.from(
      { length: size / 2 + 1 },
      (_, k) => out[2 * k]! ** 2 + out[2 * k + 1]! ** 2,
    );
    const correlation = new Float64Array(size / 2);
    new CosineTransform(size / 2).transform(power, correlation, size / 2 - 1);
    for (let lag = 0; lag < size / 2; lag++) {
      let sum = 0;
      for (let i = 0; i + lag < size / 2; i++) sum += padded[i]! * padded[i + lag]!;
      expect(correlation[lag]! / size).toBeCloseTo(sum, 9);
    }
  });

  it('refuses sizes that it cannot do', () => {
    expect(() => new RealFft(100)).toThrow(/power of two/);
  });
});

describe('the sample window', () => {
  it('reads what is recent, silence before the beginning, and says what is gone or not yet there', () => {
    const window = new SampleWindow(10, 6);
    for (let i = 0; i < 100; i++) window.push(i);
    const out = new Float64Array(4);
    window.read(95, 4, out);
    expect([...out]).toEqual([95, 96, 97, 98]);
    expect(() => window.read(98, 4, out)).toThrow(/not arrived/);
    expect(() => window.read(2, 4, out)).toThrow(/are gone/);
    const fresh = new SampleWindow(10, 6);
    fresh.push(7);
    fresh.push(8);
    fresh.read(-2, 4, out);
    expect([...out]).toEqual([0, 0, 7, 8]);
  });
});

describe('the decimator', () => {
  /** RMS of a sine after decimation by 4. */
  const through = (hertz: number) => {
    const decimator = new Decimator(4, 4000);
    const input = Float64Array.from({ length: 12_000 }, (_, i) => Math.sin((2 * Math.PI * hertz * i) / RATE));
    for (let i = 0; i < 12_000; i += 1000) decimator.push(input.subarray(i, i + 1000), 1000);
    const out = new Float64Array(1000);
    decimator.output.read(1500, 1000, out);
    return { rms: Math.sqrt(out.reduce((s, x) => s + x * x, 0) / 1000), out, input };
  };

  it('keeps what is below and removes what would fold over', () => {
    expect(through(1000).rms).toBeCloseTo(Math.SQRT1_2, 3);
    expect(20 * Math.log10(through(7500).rms)).toBeLessThan(-60);
    expect(20 * Math.log10(through(11_000).rms)).toBeLessThan(-60);
  });

  it('stands in its place: output m is input 4m', () => {
    const { out, input } = through(500);
    for (let m = 0; m < 1000; m += 100) expect(out[m]).toBeCloseTo(input[4 * (1500 + m)]!, 3);
  });
});

describe('periodicity', () => {
  const { pitch } = listeningSettings(RATE, { lowestHz: 200, highestHz: 2000 });
  const best = (sound: (t: number) => number) => {
    const periodicity = new Periodicity(pitch);
    periodicity.analyse(Float64Array.from({ length: pitch.window }, (_, i) => sound(i / pitch.rate)));
    const order = Array.from({ length: periodicity.count }, (_, i) => i).sort(
      (a, b) => periodicity.cost[a]! - periodicity.cost[b]!,
    );
    return order[0] === undefined ? NaN : periodicity.frequency[order[0]]!;
  };

  it('prefers the period itself to its multiples, at every pitch', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 210, max: 2400, noNaN: true }),
        fc.double({ min: 0, max: 6, noNaN: true }),
        (hertz, phase) => {
          const found = best(
            (t) => Math.sin(2 * Math.PI * hertz * t + phase) + 0.5 * Math.sin(4 * Math.PI * hertz * t),
          );
          expect(Math.abs(1200 * Math.log2(found / hertz))).toBeLessThan(35);
        },
      ),
      { numRuns: 150 },
    );
  });

  it('finds a fundamental that is not there', () => {
    const found = best((t) => Math.sin(2 * Math.PI * 600 * t) + Math.sin(2 * Math.PI * 900 * t + 1));
    expect(Math.abs(1200 * Math.log2(found / 300))).toBeLessThan(20);
  });

  it('takes no partial beyond its range for the tone, where hardly anything else is left of it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: pitch.aboveAll / 1.9, max: 2000, noNaN: true }),
        fc.double({ min: 0.1, max: 0.4, noNaN: true }),
        (hertz, share) => {
          const found = best(
            (t) => Math.sin(4 * Math.PI * hertz * t) + share * Math.sin(2 * Math.PI * hertz * t + 1),
          );
          expect(Math.abs(1200 * Math.log2(found / hertz))).toBeLessThan(35);
        },
      ),
      { numRuns: 100 },
    );
  });

  it('finds nothing in silence', () => {
    expect(best(() => 0)).toBeNaN();
  });
});

describe('the spectrum', () => {
  const settings = listeningSettings(RATE, { lowestHz: 200, highestHz: 2000 });
  const rate = RATE / settings.spectrum.decimation;
  const levels = [-20, -26, -40, -33];
  const read = (f0: number, extra: (t: number) => number = () => 0) => {
    const spectrum = new Spectrum(settings);
    const sample = (i: number) => {
      const t = i / rate;
      return (
        extra(t) +
        levels.reduce(
          (sum, dB, k) => sum + Math.SQRT2 * 10 ** (dB / 20) * Math.sin(2 * Math.PI * (k + 1) * f0 * t + k),
          0,
        )
      );
    };
    for (const start of [0, 500]) {
      spectrum.analyse(
        Float64Array.from({ length: settings.spectrum.window }, (_, i) => sample(start + i)),
        start,
        f0 * 1.002,
      );
    }
    return spectrum;
  };

  it('reads partials to a fraction of a decibel and nothing where there are none', () => {
    const { partialsDb, richness, oddEvenDb } = read(441.3);
    levels.forEach((dB, k) => expect(Math.abs(partialsDb[k]! - dB)).toBeLessThan(0.3));
    expect(partialsDb[5]).toBeLessThan(-85);
    expect(richness).toBe(4);
    expect(oddEvenDb).toBeCloseTo(10 * Math.log10((1e-2 + 1e-4) / (10 ** -2.6 + 10 ** -3.3)), 0);
  });

  it('refines f0 by the phases', () => {
    expect(read(441.3).refinedF0).toBeCloseTo(441.3, 2);
  });

  it('sees what sounds below the note', () => {
    const { subHz, subDb } = read(
      900,
      (t) => Math.SQRT2 * 10 ** (-32 / 20) * Math.sin(2 * Math.PI * 300 * t),
    );
    expect(subHz).toBeCloseTo(300, -1);
    expect(subDb).toBeCloseTo(-12, 0);
    expect(read(900).subHz).toBeNaN();
  });
});

describe('clicks', () => {
  const clicks: Click[] = [0, 1, 2, 3].map((beat) => ({ seconds: 0.3 + 0.5 * beat, accent: beat === 0 }));
  const room = (lag: number | null, gain: number) => {
    const random = new Random(5);
    const out = Float32Array.from({ length: 3 * RATE }, () => 0.002 * random.normal());
    if (lag !== null) {
      for (const { seconds, accent } of clicks) {
        const at = Math.round((seconds + lag) * RATE);
        clickSamples(RATE, accent).forEach((x, i) => (out[at + i]! += gain * x));
      }
    }
    return out;
  };

  it.each([0, 0.021, 0.147, 0.31])('are found %d s late, to the sample', (lag) => {
    expect(locateClicks(room(lag, 0.05), RATE, clicks)).toBeCloseTo(lag, 4);
  });

  it('are not found where there are none, or too few', () => {
    expect(locateClicks(room(null, 0), RATE, clicks)).toBeNull();
    expect(locateClicks(room(0.05, 0.2).subarray(0, RATE / 2), RATE, clicks)).toBeNull();
  });

  it('cover their frames and no others', () => {
    const mask = clickMask(400, 0.005, clicks, 0.02, 0.01);
    const covered = [...mask.keys()].filter((i) => mask[i]).map((i) => i * 0.005);
    expect(covered.length).toBe(4 * Math.floor((CLICK_SECONDS + 0.02) / 0.005 + 1));
    for (const at of covered)
      expect(clicks.some(({ seconds }) => at >= seconds + 0.0099 && at <= seconds + 0.0501)).toBe(true);
  });
});
