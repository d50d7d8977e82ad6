import type { Hertz, Midi } from '@/core/base';
import { modeOf, type Instrument } from '@/core/instruments';

/** How a kind of instrument spreads its power over the partials; shaped after published average spectra. */
interface Colour {
  /** Fall of the partials in dB an octave. */
  readonly slope: number;
  /** A broad resonance that lifts partials near it. */
  readonly formant: { readonly hz: Hertz; readonly liftDb: number; readonly octaves: number } | null;
  /** How far the even partials lie below their neighbours in the lowest mode. */
  readonly evenDb: number;
  /** Breath noise against the tone. */
  readonly noiseDb: number;
}

const COLOURS: Readonly<Record<string, Colour>> = {
  edge: { slope: -11, formant: null, evenDb: 0, noiseDb: -38 },
  ducted: { slope: -15, formant: null, evenDb: -5, noiseDb: -36 },
  'single-reed': { slope: -7, formant: { hz: 1300, liftDb: 6, octaves: 1 }, evenDb: 0, noiseDb: -46 },
  'double-reed': { slope: -6, formant: { hz: 1050, liftDb: 15, octaves: 0.9 }, evenDb: 0, noiseDb: -44 },
  clarinet: { slope: -7, formant: { hz: 1500, liftDb: 5, octaves: 1 }, evenDb: -22, noiseDb: -48 },
  bassoon: { slope: -6, formant: { hz: 480, liftDb: 18, octaves: 0.9 }, evenDb: 0, noiseDb: -44 },
};

function colourOf(instrument: Instrument): Colour {
  const name =
    instrument.series === 'odd'
      ? 'clarinet'
      : instrument.clef === 'bass' && instrument.kind === 'double-reed'
        ? 'bassoon'
        : instrument.kind;
  const colour = COLOURS[name];
  if (!colour) throw new Error(`no colour for ${name}`);
  return colour;
}

export interface Timbre {
  /** Amplitudes of partials 1 …, of unit power together. */
  readonly partials: Float64Array;
  readonly noiseDb: number;
}

const MOST_PARTIALS = 20;

/** Partials of one written note at a frequency. @param ceiling no partial above this frequency is sounded. */
export function timbreOf(instrument: Instrument, written: Midi, frequency: Hertz, ceiling: Hertz): Timbre {
  const colour = colourOf(instrument);
  const mode = modeOf(instrument, written);
  const count = Math.max(1, Math.min(MOST_PARTIALS, Math.floor(ceiling / frequency)));
  const partials = Float64Array.from({ length: count }, (_, i) => {
    const k = i + 1;
    let dB = colour.slope * Math.log2(k);
    if (k % 2 === 0) dB += colour.evenDb / mode;
    if (colour.formant) {
      const away = Math.log2((k * frequency) / colour.formant.hz) / colour.formant.octaves;
      dB += colour.formant.liftDb * Math.exp(-0.5 * away * away);
    }
    return 10 ** (dB / 20);
  });
  const power = partials.reduce((sum, a) => sum + (a * a) / 2, 0);
  return { partials: partials.map((a) => a / Math.sqrt(power)), noiseDb: colour.noiseDb };
}
