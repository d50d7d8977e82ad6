import * as fc from 'fast-check';
import { instruments, listeningRange } from '@/core/instruments';
import { listeningSettings, spectrumSeconds } from './settings';

const anyRange = fc.constantFrom(...instruments.map((each) => listeningRange(each)));
const anyRate = fc.constantFrom(16_000, 22_050, 32_000, 44_100, 48_000, 88_200, 96_000, 192_000);

describe('what an instrument is listened to with, at any sample rate', () => {
  it('holds two periods and more of its lowest note, and no lag that it looks at wraps round', () => {
    fc.assert(
      fc.property(anyRange, anyRate, (range, rate) => {
        const { pitch, brief, minHz } = listeningSettings(rate, range);
        expect(pitch.window / pitch.rate).toBeGreaterThan(2.1 / minHz);
        expect(pitch.maxLag / pitch.rate).toBeGreaterThan(1 / minHz);
        for (const search of brief ? [pitch, brief] : [pitch])
          expect(search.window + search.maxLag).toBeLessThan(search.fftSize);
      }),
    );
  });

  it('has enough samples in a period of the highest note, and three of its partials in a spectrum', () => {
    fc.assert(
      fc.property(anyRange, anyRate, (range, rate) => {
        const { pitch, spectrum, sampleRate } = listeningSettings(rate, range);
        const slow = (wanted: number) => Math.min(wanted, sampleRate);
        expect(pitch.rate).toBeGreaterThanOrEqual(slow(6.5 * range.highestHz));
        expect(sampleRate / spectrum.decimation / 2).toBeGreaterThanOrEqual(slow(6 * range.highestHz) / 2);
      }),
    );
  });

  it('leaves no sound between one spectrum and the next', () => {
    fc.assert(
      fc.property(anyRange, anyRate, (range, rate) => {
        const settings = listeningSettings(rate, range);
        expect(settings.spectrum.every * settings.hopSeconds).toBeLessThan(spectrumSeconds(settings));
        expect(settings.spectrum.fftSize).toBeGreaterThanOrEqual(settings.spectrum.window);
      }),
    );
  });
});
