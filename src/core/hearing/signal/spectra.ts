import { type ColourId, COLOURS, type Hertz } from '@/core/base';
import { centsBetween } from '@/core/tuning';
import { FloatColumn } from './columns';
import { PARTIALS, type Frames } from './frames';
import type { PitchPath } from './pitchPath';
import type { SampleWindow } from './sampleWindow';
import { spectrumSeconds, type Settings } from './settings';
import { Spectrum } from './spectrum';

/** Frames that the path is followed back before a spectrum is read by it; by then it hardly ever changes. */
export const LOOK_BACK = 8;
/** Where the pitch moves less than this within a spectrum's span, the spectrum's finer figure replaces the path's. */
const STEADY_CENTS = 10;

/** What is kept of a spectrum besides its partials. */
const READ_BY = 0;
const REFINED = 1;
const SUB_HZ = 2;
const SUB_DB = 3;
const STRONGEST_HZ = 4;
const COLOUR = 5;
const ROW = COLOUR + COLOURS.length;

const isHalf = (a: number, b: number) => Math.abs(centsBetween(2 * a, b)) < 50;

/** The spectra of a take, each of which speaks for a few frames, and what they say of the pitch that they were read by. */
export class Spectra {
  private readonly spectrum: Spectrum;
  private readonly samples: Float64Array;
  private readonly rows = new FloatColumn(ROW);
  private readonly partials = new FloatColumn(PARTIALS);

  constructor(private readonly settings: Settings) {
    this.spectrum = new Spectrum(settings);
    this.samples = new Float64Array(settings.spectrum.window);
  }

  /** Frames that a spectrum speaks for so far. */
  get frames(): number {
    return (this.rows.length / ROW) * this.settings.spectrum.every;
  }

  /** Of the latest spectrum; NaN before the first. */
  latest(id: ColourId): number {
    const row = this.rows.length - ROW;
    return row < 0 ? NaN : this.rows.get(row + COLOUR + COLOURS.indexOf(id));
  }

  /** Reads all spectra whose samples have come and whose pitch is settled on. */
  read(stream: SampleWindow, path: PitchPath): void {
    const { hop, spectrum: of } = this.settings;
    const { spectrum, samples, rows, partials } = this;
    for (;;) {
      const frame = this.frameOf(rows.length / ROW);
      const start = Math.round((frame * hop) / of.decimation - of.window / 2);
      const behind = path.frames - 1 - frame;
      if (behind < LOOK_BACK || start + of.window > stream.end) return;
      stream.read(start, of.window, samples);
      spectrum.analyse(samples, start, path.lookBack(behind));
      const row = rows.grow(NaN);
      rows.set(row + READ_BY, spectrum.readBy);
      rows.set(row + REFINED, spectrum.refinedF0);
      rows.set(row + SUB_HZ, spectrum.subHz);
      rows.set(row + SUB_DB, spectrum.subDb);
      rows.set(row + STRONGEST_HZ, spectrum.strongestHz);
      for (let k = 0; k < COLOURS.length; k++) rows.set(row + COLOUR + k, spectrum[COLOURS[k]!]);
      const first = partials.grow(NaN);
      for (let k = 0; k < PARTIALS; k++) partials.set(first + k, spectrum.partialsDb[k]!);
    }
  }

  /** A row of partials for every spectrum, dBFS. */
  partialsDb(): Float32Array {
    return this.partials.toArray();
  }

  /** Half of a pitch that the latest spectrum was found to be the octave of; otherwise the pitch. */
  octaveSettled(f0: Hertz): Hertz {
    const row = this.rows.length - ROW;
    return row >= 0 && isHalf(this.rows.get(row + READ_BY), f0) ? f0 / 2 : f0;
  }

  /**
   * Where most spectra of a stretch on one pitch showed it to be the octave of a tone with weak odd partials. A stretch
   * that is shorter than a spectrum's window shares its spectra with what is beside it and is left alone. Changes `f0`.
   */
  halveOctaves(f0: Float32Array): void {
    const shortest = spectrumSeconds(this.settings) / this.settings.hopSeconds;
    for (let from = 0; from < f0.length;) {
      let to = from + 1;
      while (to < f0.length && Math.abs(centsBetween(f0[to]!, f0[to - 1]!)) < 50) to++;
      let rows = 0;
      let halves = 0;
      for (let row = Math.ceil(from / this.settings.spectrum.every); this.frameOf(row) < to; row++) {
        rows++;
        if (isHalf(this.rows.get(ROW * row + READ_BY), f0[this.frameOf(row)]!)) halves++;
      }
      if (to - from >= shortest && 2 * halves > rows) for (let i = from; i < to; i++) f0[i]! /= 2;
      from = to;
    }
  }

  /** Each spectrum speaks for its own frame and those around it, where it was read by the pitch that was settled on. */
  spreadOver(frames: Frames): void {
    const { rows, settings } = this;
    for (let i = 0; i < frames.count; i++) {
      const row = ROW * Math.floor(i / settings.spectrum.every);
      frames.strongestHz[i] = rows.get(row + STRONGEST_HZ);
      if (!(Math.abs(centsBetween(rows.get(row + READ_BY), frames.f0[i]!)) < 50)) continue;
      for (let k = 0; k < COLOURS.length; k++) frames[COLOURS[k]!][i] = rows.get(row + COLOUR + k);
      frames.subHz[i] = rows.get(row + SUB_HZ);
      frames.subDb[i] = rows.get(row + SUB_DB);
    }
  }

  /** Replaces the path's pitch by the finer one of the phases, where it is nearly still. Changes `f0`. */
  refine(f0: Float32Array): void {
    const { hopSeconds, spectrum } = this.settings;
    const reach = Math.ceil(spectrumSeconds(this.settings) / hopSeconds / 2);
    const coarse = f0.slice();
    for (let i = 0; i < f0.length; i++) {
      if (Number.isNaN(coarse[i]!) || !steadyAround(coarse, i, reach)) continue;
      // A row refines the moment half-way to the row before.
      const at = (i - this.frameOf(0)) / spectrum.every + 0.5;
      const row = Math.floor(at);
      const here = this.rows.get(ROW * row + REFINED);
      const next = ROW * (row + 1) + REFINED;
      const after = row === at || next >= this.rows.length ? here : this.rows.get(next);
      const fine = here + (at - row) * (after - here);
      if (Math.abs(centsBetween(fine, coarse[i]!)) < STEADY_CENTS) f0[i] = fine;
    }
  }

  /** The frame at the middle of those that a spectrum speaks for. */
  private frameOf(row: number): number {
    const { every } = this.settings.spectrum;
    return row * every + ((every - 1) >> 1);
  }
}

/** Whether the pitch is known and nearly still for `reach` frames on both sides. */
function steadyAround(f0: Float32Array, at: number, reach: number): boolean {
  if (at < reach || at + reach >= f0.length) return false;
  const here = f0[at]!;
  for (let i = at - reach; i <= at + reach; i++)
    if (!(Math.abs(centsBetween(f0[i]!, here)) < STEADY_CENTS)) return false;
  return true;
}
