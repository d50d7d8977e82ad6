import type { Decibels } from '@/core/base';
import type { Settings } from './settings';

/** Removes what lies below hearing (DC, rumble): a one-pole, one-zero high pass at about 8 Hz. */
export class DcBlocker {
  private readonly keep: number;
  private lastIn = 0;
  private lastOut = 0;

  constructor(sampleRate: number) {
    this.keep = Math.exp((-2 * Math.PI * 8) / sampleRate);
  }

  /** Changes the samples in place, those from `from` to before `to`; the stream goes on with the next call. */
  filter(samples: Float64Array, from: number, to: number): void {
    const { keep } = this;
    let { lastIn, lastOut } = this;
    for (let i = from; i < to; i++) {
      const sample = samples[i]!;
      lastOut = sample - lastIn + keep * lastOut;
      lastIn = sample;
      samples[i] = lastOut;
    }
    this.lastIn = lastIn;
    this.lastOut = lastOut;
  }
}

export const SILENCE_DB: Decibels = -120;

/**
 * RMS level around each frame: energies of single hops under a triangle that is wider than one period of the lowest
 * note. Frame i is centred on sample i·hop.
 */
export class LevelMeter {
  private readonly energies: Float64Array;
  private readonly weights: Float64Array;
  private hops = 0;

  constructor(private readonly settings: Settings) {
    const span = 2 * settings.levelHops;
    this.energies = new Float64Array(span);
    const raw = Float64Array.from(
      { length: span },
      (_, i) => settings.levelHops + 0.5 - Math.abs(i - settings.levelHops + 0.5),
    );
    const total = raw.reduce((a, b) => a + b, 0);
    this.weights = raw.map((w) => w / total);
  }

  /** @param hop the samples of one hop. @returns level of the hop alone. */
  add(hop: Float64Array): Decibels {
    let sum = 0;
    for (let i = 0; i < hop.length; i++) sum += hop[i]! * hop[i]!;
    const mean = sum / hop.length;
    this.energies[this.hops++ % this.energies.length] = mean;
    return Math.max(SILENCE_DB, 10 * Math.log10(mean + 1e-14));
  }

  /** Level of the frame whose last hop has just been added: frame number (hops − levelHops). */
  read(): Decibels {
    const span = this.energies.length;
    let mean = 0;
    for (let i = 0; i < span; i++) mean += this.weights[i]! * this.energies[(this.hops + i) % span]!;
    return Math.max(SILENCE_DB, 10 * Math.log10(mean + 1e-14));
  }
}
