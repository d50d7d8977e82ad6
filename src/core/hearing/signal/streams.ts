import { Decimator } from './decimator';
import type { SampleWindow } from './sampleWindow';
import { spectrumSeconds, type Settings } from './settings';

/** Beyond a spectrum's window: what has come while a frame waits to be read. */
const WAIT = 0.2;

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
    const ratio = pitchDecimation / spectrum.decimation;
    const reach = (decimation: number) =>
      Math.ceil(((spectrumSeconds(settings) + WAIT) * sampleRate) / decimation);
    this.isChained = Number.isInteger(ratio);
    this.forSpectra = new Decimator(spectrum.decimation, reach(spectrum.decimation));
    this.forPitch =
      ratio === 1
        ? this.forSpectra
        : new Decimator(this.isChained ? ratio : pitchDecimation, reach(pitchDecimation));
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
