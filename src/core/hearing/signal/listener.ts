import { COLOURS, perColour } from '@/core/base';
import { centsBetween, type Hertz } from '@/core/tuning';
import { FloatColumn } from './columns';
import { Continuity, QUICK_PARTIALS } from './continuity';
import { Decimator } from './decimator';
import { DroneRemover } from './drone';
import { PARTIALS, type Frames, type LiveFrame } from './frames';
import { DcBlocker, LevelMeter, SILENCE_DB } from './level';
import { Jumps } from './jumps';
import { Losses, type Loss } from './losses';
import { Periodicity } from './periodicity';
import { PitchPath } from './pitchPath';
import { readAgain } from './readAgain';
import { listeningSettings, spectrumSeconds, type ListeningRange, type Settings } from './settings';
import { Spectrum } from './spectrum';

const FULL_SCALE = 0.999;
const MOST_SCALE = 16;
/** Frames that the path is followed back before a spectrum is read by it; by then it hardly ever changes. */
const LOOK_BACK = 8;
/** Where the pitch moves less than this within a spectrum's span, the spectrum's finer figure replaces the path's. */
const STEADY_CENTS = 10;

/** What is kept of a spectrum besides its partials: see `readSpectra`. */
const READ_BY = 0;
const REFINED = 1;
const SUB_HZ = 2;
const SUB_DB = 3;
const STRONGEST_HZ = 4;
const COLOUR = 5;
const ROW = COLOUR + COLOURS.length;
const AIRINESS = COLOUR + COLOURS.indexOf('airinessDb');
const RICHNESS = COLOUR + COLOURS.indexOf('richness');

const isHalf = (a: number, b: number) => Math.abs(centsBetween(2 * a, b)) < 50;

export interface ListenerOptions {
  /** Called in order with each new frame, a few milliseconds behind the sound. */
  readonly onFrame?: (frame: LiveFrame) => void;
  /** Steady tones that are known to sound in the room (a drone), to be taken out before anything is measured. */
  readonly removed?: readonly Hertz[];
}

/**
 * Turns a stream of samples into frames while it arrives. Owns all its buffers; a frame costs no allocation.
 *
 * @example const listener = new Listener(48_000, listeningRange(flute)); listener.push(samples); listener.finish();
 */
export class Listener {
  readonly settings: Settings;
  private readonly losses: Losses;
  private readonly jumps: Jumps;
  private readonly blocker: DcBlocker;
  private readonly drone: DroneRemover | null;
  private readonly level: LevelMeter;
  private readonly pitchStream: Decimator;
  private readonly spectrumStream: Decimator;
  private readonly periodicity: Periodicity;
  private readonly brief: Periodicity | null;
  private readonly briefBuffer: Float64Array;
  private readonly spectrum: Spectrum;
  private readonly continuity: Continuity;
  private readonly continuityBuffer: Float64Array;
  private readonly path = new PitchPath();
  private readonly hopBuffer: Float64Array;
  private readonly pitchBuffer: Float64Array;
  private readonly spectrumBuffer: Float64Array;
  private readonly levels = new FloatColumn();
  private readonly clipping = new FloatColumn();
  private readonly hopLevels = new FloatColumn();
  private readonly removedLevels = new FloatColumn();
  private readonly newness = new FloatColumn();
  private readonly growth = new FloatColumn();
  private readonly quick = new FloatColumn(QUICK_PARTIALS);
  /** The pitch that each frame's quick partials were read by. */
  private readonly quickReadBy = new FloatColumn();
  private readonly sound = new FloatColumn();
  private readonly spectra = new FloatColumn(ROW);
  private readonly partials = new FloatColumn(PARTIALS);
  private inHop = 0;
  private hops = 0;
  private clippedInHop = 0;
  private removedEnergy = 0;
  private badSamples = 0;
  private samples = 0;
  private announced = 0;

  constructor(
    sampleRate: Hertz,
    range: ListeningRange,
    private readonly options: ListenerOptions = {},
  ) {
    const settings = listeningSettings(sampleRate, range);
    this.settings = settings;
    this.losses = new Losses(sampleRate);
    this.jumps = new Jumps(sampleRate, settings.minHz);
    this.blocker = new DcBlocker(sampleRate);
    this.drone = options.removed?.length ? new DroneRemover(options.removed, sampleRate) : null;
    this.level = new LevelMeter(settings);
    const reachSeconds = spectrumSeconds(settings) + 0.2;
    const reach = (decimation: number) => Math.ceil((reachSeconds * sampleRate) / decimation);
    this.pitchStream = new Decimator(settings.pitchDecimation, reach(settings.pitchDecimation));
    this.spectrumStream =
      settings.spectrum.decimation === settings.pitchDecimation
        ? this.pitchStream
        : new Decimator(settings.spectrum.decimation, reach(settings.spectrum.decimation));
    this.periodicity = new Periodicity(settings.pitch);
    this.brief = settings.brief && new Periodicity(settings.brief);
    this.briefBuffer = new Float64Array(settings.brief?.window ?? 0);
    this.spectrum = new Spectrum(settings);
    this.continuity = new Continuity(settings.pitch.rate, settings.hopSeconds, settings.minHz);
    this.continuityBuffer = new Float64Array(this.continuity.longest);
    this.hopBuffer = new Float64Array(settings.hop);
    this.pitchBuffer = new Float64Array(settings.pitch.window);
    this.spectrumBuffer = new Float64Array(settings.spectrum.window);
  }

  /** Samples in −1 … 1, one channel, any number of them. */
  push(chunk: Float32Array): void {
    this.hear(this.losses.next(chunk));
    this.samples += chunk.length;
  }

  private hear(chunk: Float32Array): void {
    this.jumps.push(chunk);
    for (let i = 0; i < chunk.length; i++) {
      let sample = chunk[i]!;
      // Beyond all scales it is no sound either, and one such sample would drown a whole analysis.
      if (!(Math.abs(sample) <= MOST_SCALE)) {
        this.badSamples++;
        sample = 0;
      }
      if (sample >= FULL_SCALE || sample <= -FULL_SCALE) this.clippedInHop++;
      const steady = this.blocker.next(sample);
      this.take(this.drone ? this.withoutDrone(this.drone, steady) : steady);
    }
  }

  private withoutDrone(drone: DroneRemover, sample: number): number {
    const rest = drone.next(sample);
    this.removedEnergy += (sample - rest) ** 2;
    return rest;
  }

  /** Ends the stream and returns all its frames. */
  finish(): Frames {
    this.hear(this.losses.finish());
    const wanted = Math.floor(this.samples / this.settings.hop);
    while (
      this.path.frames < wanted ||
      this.levels.length < wanted ||
      this.spectra.length / ROW < wanted / 2 ||
      this.newness.length < wanted
    ) {
      this.take(0);
    }
    return this.assemble(wanted);
  }

  private take(sample: number): void {
    this.hopBuffer[this.inHop++] = sample;
    if (this.inHop === this.settings.hop) this.closeHop();
  }

  private closeHop(): void {
    this.inHop = 0;
    this.hops++;
    this.clipping.push(this.clippedInHop >= 3 ? 1 : 0);
    this.clippedInHop = 0;
    this.hopLevels.push(this.level.add(this.hopBuffer));
    if (this.hops >= this.settings.levelHops) this.levels.push(this.level.read());
    if (this.drone) {
      const level = 10 * Math.log10(this.removedEnergy / this.settings.hop + 1e-14);
      this.removedLevels.push(Math.max(SILENCE_DB, level));
      this.removedEnergy = 0;
    }
    this.pitchStream.push(this.hopBuffer, this.settings.hop);
    const { output } = this.pitchStream;
    for (let i = this.sound.length; i < output.end; i++) this.sound.push(output.at(i));
    if (this.spectrumStream !== this.pitchStream) this.spectrumStream.push(this.hopBuffer, this.settings.hop);
    this.readPitch();
    this.readSpectra();
    this.readContinuity();
    this.announce();
  }

  private readPitch(): void {
    const { pitch, brief, pitchDecimation, hop } = this.settings;
    const { output } = this.pitchStream;
    for (;;) {
      const centre = (this.path.frames * hop) / pitchDecimation;
      const start = Math.round(centre - pitch.window / 2);
      if (start + pitch.window > output.end) return;
      output.read(start, pitch.window, this.pitchBuffer);
      this.periodicity.analyse(this.pitchBuffer);
      if (brief && this.brief) {
        output.read(Math.round(centre - brief.window / 2), brief.window, this.briefBuffer);
        this.brief.analyse(this.briefBuffer);
      }
      this.path.push(this.periodicity, this.brief);
    }
  }

  private readSpectra(): void {
    const { window, decimation, every } = this.settings.spectrum;
    for (;;) {
      const frame = (this.spectra.length / ROW) * every;
      const start = Math.round((frame * this.settings.hop) / decimation - window / 2);
      const behind = this.path.frames - 1 - frame;
      if (behind < LOOK_BACK || start + window > this.spectrumStream.output.end) return;
      const f0 = this.path.lookBack(behind);
      this.spectrumStream.output.read(start, window, this.spectrumBuffer);
      this.spectrum.analyse(this.spectrumBuffer, start, f0);
      const row = this.spectra.grow(NaN);
      this.spectra.set(row + READ_BY, this.spectrum.readBy);
      this.spectra.set(row + REFINED, this.spectrum.refinedF0);
      this.spectra.set(row + SUB_HZ, this.spectrum.subHz);
      this.spectra.set(row + SUB_DB, this.spectrum.subDb);
      this.spectra.set(row + STRONGEST_HZ, this.spectrum.strongestHz);
      for (let k = 0; k < COLOURS.length; k++) this.spectra.set(row + COLOUR + k, this.spectrum[COLOURS[k]!]);
      const partials = this.partials.grow(NaN);
      for (let k = 0; k < PARTIALS; k++) this.partials.set(partials + k, this.spectrum.partialsDb[k]!);
    }
  }

  private readContinuity(): void {
    const { hop, pitchDecimation } = this.settings;
    const { continuity, continuityBuffer } = this;
    for (;;) {
      const frame = this.newness.length;
      const behind = this.path.frames - 1 - frame;
      if (behind < LOOK_BACK) return;
      const f0 = this.path.lookBack(behind);
      const length = continuity.lengthFor(f0);
      const centre = (frame * hop) / pitchDecimation;
      const start = Math.round(centre - length / 2);
      if (start + length > this.pitchStream.output.end) return;
      this.pitchStream.output.read(start, length, continuityBuffer);
      continuity.analyse(continuityBuffer, centre - start, f0);
      const row = this.quick.grow(0);
      for (let k = 0; k < QUICK_PARTIALS; k++) this.quick.set(row + k, continuity.amplitudes[k]!);
      this.quickReadBy.push(f0);
      // What the latest frame tells belongs to the one before it.
      this.newness.push(NaN);
      this.growth.push(NaN);
      if (frame === 0) continue;
      this.newness.set(frame - 1, continuity.newness);
      this.growth.set(frame - 1, continuity.growthDb);
    }
  }

  private announce(): void {
    const { onFrame } = this.options;
    if (!onFrame) return;
    const ready = Math.min(this.path.frames, this.levels.length);
    const latest = this.spectra.length - ROW;
    for (; this.announced < ready; this.announced++) {
      onFrame({
        index: this.announced,
        f0: this.octaveSettled(this.path.lookBack(this.path.frames - 1 - this.announced), latest),
        levelDb: this.levels.get(this.announced),
        airinessDb: latest < 0 ? NaN : this.spectra.get(latest + AIRINESS),
        richness: latest < 0 ? NaN : this.spectra.get(latest + RICHNESS),
      });
    }
  }

  /** Half of a pitch that the spectrum in this row was found to be the octave of; otherwise the pitch. */
  private octaveSettled(f0: Hertz, row: number): Hertz {
    return row >= 0 && isHalf(this.spectra.get(row + READ_BY), f0) ? f0 / 2 : f0;
  }

  private assemble(count: number): Frames {
    const { settings } = this;
    const { f0, briefF0, clarity } = this.path.solve();
    const column = () => new Float32Array(count).fill(NaN);
    const frames = {
      count,
      hopSeconds: settings.hopSeconds,
      startSeconds: 0,
      settings,
      f0: f0.slice(0, count),
      quickF0: column(),
      briefF0: briefF0.slice(0, count),
      clarity: clarity.slice(0, count),
      levelDb: this.levels.toArray().slice(0, count),
      ...perColour(column),
      subHz: column(),
      subDb: column(),
      strongestHz: column(),
      hopDb: this.hopLevels.toArray().slice(0, count),
      newness: this.newness.toArray().slice(0, count),
      quickPartials: this.quick.toArray(),
      growthDb: this.growth.toArray().slice(0, count),
      partialsDb: this.partials.toArray(),
      sound: this.sound.toArray(),
      clipped: Uint8Array.from(this.clipping.toArray().slice(0, count)),
      masked: this.lostFrames(count),
      lost: this.lost().map(({ from, to }) => ({
        startSeconds: from / settings.sampleRate,
        endSeconds: to / settings.sampleRate,
      })),
      badSamples: this.badSamples,
      removedHz: this.options.removed ?? [],
      removedDb: this.removedLevels.toArray().slice(0, count),
    };
    this.halveOctaves(frames.f0);
    frames.quickF0.set(frames.f0);
    this.spreadSpectra(frames);
    this.refine(frames.f0);
    readAgain(frames, (frame) => this.quickReadBy.get(frame));
    return frames;
  }

  /** In order: what came as nothing, and what was left out without a gap. */
  private lost(): Loss[] {
    return [...this.losses.found, ...this.jumps.found].sort((a, b) => a.from - b.from);
  }

  /** 1 where a frame is measured over sound that was lost. */
  private lostFrames(count: number): Uint8Array<ArrayBuffer> {
    const { pitch, hop, sampleRate } = this.settings;
    const reach = (pitch.window / pitch.rate / 2) * sampleRate;
    const lost = new Uint8Array(count);
    for (const { from, to } of this.lost())
      lost.fill(1, Math.max(0, Math.floor((from - reach) / hop)), Math.ceil((to + reach) / hop));
    return lost;
  }

  /**
   * Where most spectra of a stretch on one pitch showed it to be the octave of a tone with weak odd partials. A stretch
   * that is shorter than a spectrum's window shares its spectra with what is beside it and is left alone.
   */
  private halveOctaves(f0: Float32Array): void {
    const { every, window, decimation } = this.settings.spectrum;
    const shortest = (window * decimation) / this.settings.hop;
    for (let from = 0; from < f0.length;) {
      let to = from + 1;
      while (to < f0.length && Math.abs(centsBetween(f0[to]!, f0[to - 1]!)) < 50) to++;
      let rows = 0;
      let halves = 0;
      for (let i = from - (from % every) + every; i < to; i += every) {
        rows++;
        if (isHalf(this.spectra.get(ROW * (i / every) + READ_BY), f0[i]!)) halves++;
      }
      if (to - from >= shortest && 2 * halves > rows) for (let i = from; i < to; i++) f0[i]! /= 2;
      from = to;
    }
  }

  /** Each spectrum speaks for its own frame and the next, where it was read by the pitch that was settled on. */
  private spreadSpectra(frames: Frames): void {
    const { every } = this.settings.spectrum;
    for (let i = 0; i < frames.count; i++) {
      const row = ROW * Math.floor(i / every);
      frames.strongestHz[i] = this.spectra.get(row + STRONGEST_HZ);
      if (!(Math.abs(centsBetween(this.spectra.get(row + READ_BY), frames.f0[i]!)) < 50)) continue;
      for (let k = 0; k < COLOURS.length; k++) frames[COLOURS[k]!][i] = this.spectra.get(row + COLOUR + k);
      frames.subHz[i] = this.spectra.get(row + SUB_HZ);
      frames.subDb[i] = this.spectra.get(row + SUB_DB);
    }
  }

  private refine(f0: Float32Array): void {
    const { window, decimation, every } = this.settings.spectrum;
    const reach = Math.ceil((window * decimation) / this.settings.sampleRate / this.settings.hopSeconds / 2);
    const coarse = f0.slice();
    const count = f0.length;
    for (let i = 0; i < count; i++) {
      if (Number.isNaN(coarse[i]!) || !steadyAround(coarse, i, reach)) continue;
      // Row r refines the frame half-way to the row before: with two frames a spectrum, frame 2r − 1.
      const upper = Math.floor((i + 1) / every);
      const a = this.spectra.get(ROW * upper + REFINED);
      const next = ROW * (upper + 1) + REFINED;
      const b = (i + 1) % every === 0 || next >= this.spectra.length ? a : this.spectra.get(next);
      const fine = (a + b) / 2;
      if (Math.abs(centsBetween(fine, coarse[i]!)) < STEADY_CENTS) f0[i] = fine;
    }
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
