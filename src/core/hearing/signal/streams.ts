import type { Seconds } from '@/core/base';
import { Decimator } from './decimator';
import type { SampleWindow } from './sampleWindow';
import { spectrumSeconds, type Settings } from './settings';
import { chainOf } from './work';

/** Beyond a spectrum's window: what has come while a frame waits to be read. */
const WAIT: Seconds = 0.2;

/**
 * The sound at the rates that pitch and spectra are read at. Where one rate is a whole part of the other, the slower stream is
 * made from the faster one.
 */
export class Streams {
  private readonly forSpectra: Decimator;
  private readonly forPitch: Decimator;
  private readonly isChained: boolean;
  private readonly fresh: Float64Array;

  constructor(settings: Settings) {
    const { pitchDecimation, spectrum, sampleRate, hop } = settings;
    const reach = (decimation: number) =>
      Math.ceil(((spectrumSeconds(settings) + WAIT) * sampleRate) / decimation);
    const chain = chainOf(pitchDecimation, spectrum.decimation);
    this.isChained = chain !== null;
    this.forSpectra = new Decimator(spectrum.decimation, reach(spectrum.decimation));
    this.forPitch =
      chain === 1 ? this.forSpectra : new Decimator(chain ?? pitchDecimation, reach(pitchDecimation));
    this.fresh = new Float64Array(hop + 1);
  }

  get pitch(): SampleWindow {
    return this.forPitch.output;
  }

  get spectrum(): SampleWindow {
    return this.forSpectra.output;
  }

  /** @param hop one hop of the input. */
  push(hop: Float64Array): void {
    const { output } = this.forSpectra;
    const from = output.end;
    this.forSpectra.push(hop, hop.length);
    if (this.forPitch === this.forSpectra) return;
    if (!this.isChained) {
      this.forPitch.push(hop, hop.length);
      return;
    }
    const count = output.end - from;
    output.read(from, count, this.fresh);
    this.forPitch.push(this.fresh, count);
  }
}
