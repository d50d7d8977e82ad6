import { type Hertz, perColour } from '@/core/base';
import { centsBetween } from '@/core/tuning';
import { FloatColumn } from './columns';
import { Continuity, QUICK_PARTIALS } from './continuity';
import { DroneRemover } from './drone';
import type { Frames, LiveFrame } from './frames';
import { DcBlocker, LevelMeter, SILENCE_DB } from './level';
import { Jumps } from './jumps';
import { Losses, type Loss } from './losses';
import { foundInLowPartials } from './lowPartials';
import { Periodicity } from './periodicity';
import { PitchPath } from './pitchPath';
import { readAgain } from './readAgain';
import { listeningSettings, type ListeningRange, type Settings } from './settings';
import { LOOK_BACK, Spectra } from './spectra';
import { Streams } from './streams';

const FULL_SCALE = 0.999;
const MOST_SCALE = 16;
const SAME_PITCH_CENTS = 60;
/** A tone moves by less from one search to the next, a swing of ±60 cents included. */
const GOES_ON_CENTS = 40;

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
  private readonly streams: Streams;
  private readonly periodicity: Periodicity;
  private readonly brief: Periodicity | null;
  private readonly briefBuffer: Float64Array;
  private readonly spectra: Spectra;
  private readonly continuity: Continuity;
  private readonly continuityBuffer: Float64Array;
  private readonly path = new PitchPath();
  private readonly hopBuffer: Float64Array;
  private readonly pitchBuffer: Float64Array;
  private readonly levels = new FloatColumn();
  private readonly clipping = new FloatColumn();
  private readonly hopLevels = new FloatColumn();
  private readonly removedLevels = new FloatColumn();
  private readonly novelty = new FloatColumn();
  private readonly growth = new FloatColumn();
  private readonly quick = new FloatColumn(QUICK_PARTIALS);
  /** The pitch that each frame's quick partials were read by. */
  private readonly quickReadBy = new FloatColumn();
  private readonly sound = new FloatColumn();
  private inHop = 0;
  private hops = 0;
  private clippedInHop = 0;
  private removedEnergy = 0;
  private badSamples = 0;
  private samples = 0;
  private announced = 0;
  /** The long window has been searched for all frames before this. */
  private searchedTo = 0;
  /** Whether its latest two searches found the same tone. */
  private goesOn = false;

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
    this.streams = new Streams(settings);
    this.periodicity = new Periodicity(settings.pitch);
    this.brief = settings.brief && new Periodicity(settings.brief);
    this.briefBuffer = new Float64Array(settings.brief?.window ?? 0);
    this.spectra = new Spectra(settings);
    this.continuity = new Continuity(settings.pitch.rate, settings.hopSeconds, settings.minHz);
    this.continuityBuffer = new Float64Array(this.continuity.longest);
    this.hopBuffer = new Float64Array(settings.hop);
    this.pitchBuffer = new Float64Array(settings.pitch.window);
  }

  /** Samples in −1 … 1, one channel, any number of them. */
  push(chunk: Float32Array): void {
    this.hear(this.losses.next(chunk));
    this.samples += chunk.length;
  }

  private hear(chunk: Float32Array): void {
    this.jumps.push(chunk);
    const { hop } = this.settings;
    for (let from = 0; from < chunk.length;) {
      const to = Math.min(chunk.length, from + hop - this.inHop);
      this.take(chunk, from, to);
      from = to;
      if (this.inHop === hop) this.closeHop();
    }
  }

  /** Samples of a chunk for the hop that is not yet full, with room for them. */
  private take(chunk: Float32Array, from: number, to: number): void {
    const { hopBuffer, inHop, drone } = this;
    const end = inHop + to - from;
    for (let i = from; i < to; i++) {
      const sample = chunk[i]!;
      hopBuffer[inHop + i - from] = Math.abs(sample) < FULL_SCALE ? sample : this.unusual(sample);
    }
    this.blocker.filter(hopBuffer, inHop, end);
    if (drone) for (let i = inHop; i < end; i++) hopBuffer[i] = this.withoutDrone(drone, hopBuffer[i]!);
    this.inHop = end;
  }

  /** What is taken for a sample that is at full scale, beyond it, or no number. */
  private unusual(sample: number): number {
    if (Math.abs(sample) <= MOST_SCALE) {
      this.clippedInHop++;
      return sample;
    }
    // Beyond all scales it is no sound either, and one such sample would drown a whole analysis.
    this.badSamples++;
    return 0;
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
      this.spectra.frames < wanted ||
      this.novelty.length < wanted
    ) {
      this.hopBuffer.fill(0, this.inHop);
      this.closeHop();
    }
    return this.assemble(wanted);
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
    this.streams.push(this.hopBuffer);
    const { pitch } = this.streams;
    for (let i = this.sound.length; i < pitch.end; i++) this.sound.push(pitch.at(i));
    this.readPitch();
    this.spectra.read(this.streams.spectrum, this.path);
    this.readContinuity();
    this.announce();
  }

  private readPitch(): void {
    const { brief, hop, pitchDecimation } = this.settings;
    const { pitch: stream } = this.streams;
    for (;;) {
      const { frames } = this.path;
      if (frames >= this.searchedTo && !this.search(frames)) return;
      if (brief && this.brief) {
        const start = Math.round((frames * hop) / pitchDecimation - brief.window / 2);
        if (start + brief.window > stream.end) return;
        stream.read(start, brief.window, this.briefBuffer);
        this.brief.analyse(this.briefBuffer);
      }
      this.path.push(this.periodicity, this.brief);
    }
  }

  /**
   * Searches the long window, around a frame or, beside a brief one and while a tone goes on, around two of them.
   * @returns whether its samples have come.
   */
  private search(frame: number): boolean {
    const { pitch, pitchDecimation, hop } = this.settings;
    const { pitch: stream } = this.streams;
    const count = this.brief && this.goesOn ? 2 : 1;
    const centre = frame + (count - 1) / 2;
    const start = Math.round((centre * hop) / pitchDecimation - pitch.window / 2);
    if (start + pitch.window > stream.end) return false;
    const { best: before } = this.periodicity;
    stream.read(start, pitch.window, this.pitchBuffer);
    this.periodicity.analyse(this.pitchBuffer);
    this.goesOn = Math.abs(centsBetween(this.periodicity.best, before)) < GOES_ON_CENTS;
    this.searchedTo = frame + count;
    return true;
  }

  private readContinuity(): void {
    const { hop, pitchDecimation } = this.settings;
    const { continuity, continuityBuffer } = this;
    const { pitch: stream } = this.streams;
    for (;;) {
      const frame = this.novelty.length;
      const behind = this.path.frames - 1 - frame;
      if (behind < LOOK_BACK) return;
      const f0 = this.path.lookBack(behind);
      const length = continuity.lengthFor(f0);
      const centre = (frame * hop) / pitchDecimation;
      const start = Math.round(centre - length / 2);
      if (start + length > stream.end) return;
      stream.read(start, length, continuityBuffer);
      continuity.analyse(continuityBuffer, centre - start, f0);
      const row = this.quick.grow(0);
      for (let k = 0; k < QUICK_PARTIALS; k++) this.quick.set(row + k, continuity.amplitudes[k]!);
      this.quickReadBy.push(f0);
      // What the latest frame tells belongs to the one before it.
      this.novelty.push(NaN);
      this.growth.push(NaN);
      if (frame === 0) continue;
      this.novelty.set(frame - 1, continuity.novelty);
      this.growth.set(frame - 1, continuity.growthDb);
    }
  }

  private announce(): void {
    const { onFrame } = this.options;
    if (!onFrame) return;
    const ready = Math.min(this.path.frames, this.levels.length);
    for (; this.announced < ready; this.announced++) {
      onFrame({
        index: this.announced,
        f0: this.spectra.octaveSettled(this.path.lookBack(this.path.frames - 1 - this.announced)),
        levelDb: this.levels.get(this.announced),
        airinessDb: this.spectra.latest('airinessDb'),
        richness: this.spectra.latest('richness'),
      });
    }
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
      novelty: this.novelty.toArray().slice(0, count),
      quickPartials: this.quick.toArray(),
      growthDb: this.growth.toArray().slice(0, count),
      partialsDb: this.spectra.partialsDb(),
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
    if (settings.brief) betweenPairs(frames.f0);
    const inLowPartials = foundInLowPartials(frames);
    this.spectra.halveOctaves(frames.f0);
    frames.quickF0.set(frames.f0);
    this.spectra.spreadOver(frames);
    this.spectra.refine(frames.f0);
    readAgain(frames, (frame) => (inLowPartials[frame] ? 0 : this.quickReadBy.get(frame)));
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
}

/**
 * Two frames that the long window told the same of, half-way between them, each take a quarter of the way to their neighbours where
 * these are of the same pitch. Changes `f0`.
 */
function betweenPairs(f0: Float32Array): void {
  const told = f0.slice();
  const towards = (from: Hertz, to: Hertz | undefined) =>
    to !== undefined && Math.abs(centsBetween(to, from)) < SAME_PITCH_CENTS ? from + (to - from) / 4 : from;
  for (let i = 0; i + 1 < told.length; i++) {
    if (told[i] !== told[i + 1]) continue;
    f0[i] = towards(told[i]!, told[i - 1]);
    f0[i + 1] = towards(told[i + 1]!, told[i + 2]);
    i++;
  }
}
