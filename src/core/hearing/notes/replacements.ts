import { clamp, type Decibels, median, type Midi, quantile, type Seconds, type Semitones } from '@/core/base';
import { QUICK_PARTIALS } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';
import { logOdds, type Evidence } from './evidence';
import { hopMean } from './gaps';
import { noveltyIn } from './line';
import { multipleOf } from './echoes';
import { Naming, type Look } from './naming';
import { AROUND, PitchMoves } from './pitchMoves';
import type { Scene } from './scene';
import { onePitchOf } from './plateau';
import type { Doubt, Replacement } from './replacement';

/** Frames in which a replacement may begin or end are as new as this, or the pitch leaps there. */
const NEW = 0.3;
const FEWEST_FRAMES = 5;
const SMOOTH_FRAMES = 3;
/** Periods of the note: sooner it is not known to be gone. */
const FEWEST_PERIODS = 3;
const LONGEST: Seconds = 0.21;
/** Frames before it, and after it, in which the note has to be found, and in how many of them. */
const BEFORE = 14;
const AFTER = 26;
const FOUND = 8;
/** Frames from the moment of change until nothing of what was before is in the windows. */
const CLEAR = 3;
/** Frames over which the swing of the pitch is looked at. */
const SWING_FRAMES = 40;
/** Where more than this of a held note is always new, nothing can be told from it. */
const MOST_USUAL = 0.45;

/** What is seen of two moments and what lies between them. */
interface Between {
  /** How new its first and its last moment are: what takes a note's place comes at once and goes at once. */
  readonly begins: number;
  readonly ends: number;
  /** How new the note always is before it, and after it. */
  readonly usual: number;
  readonly afterwards: number;
  /** Lowest level in it against the note's: a tongue lets the level fall. */
  readonly lowest: Decibels;
  /** Most that a strong partial of the note has lost after it: the note comes back whole, or it is another. */
  readonly lost: Decibels;
  /** Most that a strong partial of the note grows in it. */
  readonly grown: Decibels;
  /** Share of it in which another pitch is found. */
  readonly elsewhere: number;
  readonly seconds: Seconds;
  /** How far up the strongest component moves, octaves. */
  readonly leap: number;
  /** Tens of cents by which the pitch swings around it: in a room a swing is new by itself. */
  readonly swing: number;
  /** How fast the pitch moves there all the time: see PitchMoves. Where it does, echoes make moments of novelty by themselves. */
  readonly speed: number;
}

/**
 * Fitted by logistic regression to 700 breaks and squeaks and 150,000 moments that look like one (slurs, tongued and repeated notes,
 * vibrato, two hours of faultless exercises) of nine simulated instruments in living and bad rooms; half of it was held out while it
 * was chosen.
 */
const PRIOR = -2.15;
const EVIDENCE: readonly Evidence<Between>[] = [
  { weight: 2.13, of: ({ begins }) => Math.min(1, begins) },
  { weight: 2.24, of: ({ ends }) => Math.min(1, ends) },
  { weight: -26.4, of: ({ usual }) => Math.min(0.6, usual) },
  { weight: 2.22, of: ({ afterwards }) => Math.min(0.8, afterwards) },
  { weight: 0.41, of: ({ lowest }) => clamp(lowest, -12, -1) },
  { weight: -0.31, of: ({ lost }) => clamp(lost, 0, 15) },
  { weight: 4.51, of: ({ elsewhere }) => elsewhere },
  { weight: -19.9, of: ({ seconds }) => Math.abs(seconds - USUAL_LENGTH) },
  { weight: 0.13, of: ({ grown, elsewhere }) => clamp(elsewhere < 0.5 ? grown : Infinity, 0, 8) },
  { weight: 1.45, of: ({ leap }) => clamp(leap, -1, 1.5) },
  { weight: -0.54, of: ({ swing }) => Math.max(0, Math.min(6, swing) - FREE_SWING) },
  { weight: -2, of: ({ speed }) => Math.max(0, speed - FREE_SPEED) },
];
/** Amplitude against the note's below which nothing sounds between its partials. */
const NOTHING = 0.03;
const USUAL_LENGTH: Seconds = 0.06;
const FREE_SWING = 2.8;
const FREE_SPEED = 0.5;
const SPEED_SHARE = 0.3;

/** What is less likely is not worth telling. */
const LEAST_ODDS = -6;

interface Candidate extends Replacement {
  readonly odds: number;
  /** First frame in which the note is back. */
  readonly back: number;
}

/**
 * Moments in which something else took a note's place in a room that rings. The echo of the note goes on meanwhile, so that
 * neither its pitch nor its level need leave; but the sound is new twice, between stretches of the same note that carry on.
 * The line is bridged there, as the note goes on.
 * @returns what did, and all moments in which something may have, in the order in which they begin, with the odds before it is asked what.
 */
export function replacementsIn(scene: Scene): { replacements: Replacement[]; doubts: Doubt[] } {
  const seen = new Seen(scene);
  const doubts = seen.doubts();
  const candidates = doubts.flatMap((doubt) => seen.named(doubt) ?? []).sort((a, b) => b.odds - a.odds);
  const kept: Candidate[] = [];
  for (const here of candidates)
    if (!kept.some(({ from, to }) => here.from < to + CLEAR && here.to > from - CLEAR)) kept.push(here);
  for (const { from, back, note } of kept) scene.line.pitch.fill(note, from, back);
  const replacements = kept
    .map(({ from, to, pitch, note }) => ({ from, to, pitch, note }))
    .sort((a, b) => a.from - b.from);
  return { replacements, doubts };
}

/** What can be seen around two moments of novelty. */
class Seen {
  private readonly novelty: Float64Array;
  private readonly naming: Naming;
  private readonly onePitch: Semitones;

  constructor(private readonly scene: Scene) {
    this.onePitch = onePitchOf(scene.instrument);
    this.naming = new Naming(scene);
    this.novelty = noveltyIn(scene.line, 0, scene.frames.count);
  }

  doubts(): Look[] {
    const moments = this.moments();
    const longest = Math.round(LONGEST / this.scene.frames.hopSeconds);
    return moments.flatMap((from, k) => {
      const found: Look[] = [];
      for (let next = k + 1; next < moments.length && moments[next]! - from <= longest; next++) {
        const here = moments[next]! - from >= FEWEST_FRAMES ? this.between(from, moments[next]!) : null;
        if (here) found.push(here);
      }
      return found;
    });
  }

  /** Frames in which something may have begun. */
  private moments(): number[] {
    const { novelty, onePitch } = this;
    const { pitch } = this.scene.line;
    const found: number[] = [];
    for (let i = BEFORE; i < pitch.length - BEFORE; i++) {
      const leaps =
        !(Math.abs(pitch[i]! - pitch[i - 1]!) < onePitch) &&
        !(Number.isNaN(pitch[i]!) && Number.isNaN(pitch[i - 1]!));
      if ((leaps || isTop(novelty, i)) && !(found[found.length - 1]! > i - 2)) found.push(i);
    }
    return found;
  }

  private between(from: number, to: number): Look | null {
    const { novelty } = this;
    const { line, frames, a4 } = this.scene;
    const usual = median(novelty.subarray(from - BEFORE, from - CLEAR));
    if (usual > MOST_USUAL) return null;
    const note = median(line.pitch.subarray(from - BEFORE, from - 2).filter((p) => !Number.isNaN(p)));
    if ((to - from) * frames.hopSeconds < FEWEST_PERIODS / midiToHertz(note, a4)) return null;
    const isNote = (i: number) => this.isNote(i, note);
    const end = Math.min(frames.count, to + AFTER);
    if (this.count(from - BEFORE, from - 1, isNote) < FOUND || this.count(to + 1, end, isNote) < FOUND)
      return null;
    const first = Math.min(from + 2, to - 2);
    const last = Math.max(to - 1, first + 1);
    const before = this.partials(from - 12, from - 2, note);
    const during = this.partials(first, last, note);
    const after = this.partials(to + CLEAR, Math.min(frames.count, to + 23), note);
    const whole = median(this.levels(from - 12, from - 2, note));
    if (this.isUndertone(first, last, note)) return null;
    const elsewhere = 1 - this.count(first, last, isNote) / (last - first);
    const strongest = median(frames.strongestHz.subarray(first, last));
    const leap = Math.log2(strongest / median(frames.strongestHz.subarray(from - 12, from - 2)));
    const lowest = Math.min(...this.levels(first, last, note)) - whole;
    const odds = logOdds(PRIOR, EVIDENCE, {
      begins: novelty[from]!,
      ends: novelty[to]!,
      usual,
      afterwards: median(novelty.subarray(to + 4, Math.min(frames.count, to + 15))),
      lowest,
      lost: mostLost(before, after),
      grown: growth(before, during),
      elsewhere,
      seconds: (to - from) * frames.hopSeconds,
      leap,
      swing: this.swing(from, to, note),
      speed: this.speedAround(to, note),
    });
    if (!(odds > LEAST_ODDS)) return null;
    return { from, to, first, last, note, before, during, after, elsewhere, lowest, odds };
  }

  /** What took the note's place; null where that is too unlikely, or nothing can be named that did. */
  named(look: Look): Candidate | null {
    const named = this.naming.named(look);
    if (!named) return null;
    const { from, to, note } = look;
    let back = to;
    while (back < Math.min(this.scene.frames.count, to + AFTER) && !this.isNote(back, note)) back++;
    return { from, to, back, note, ...named };
  }

  private isNote(frame: number, note: Midi): boolean {
    return Math.abs(this.scene.line.pitch[frame]! - note) < this.onePitch;
  }

  /**
   * Whether a fraction of the note's pitch is found only because something sounds below the note: then there are the note's partials
   * and it, and nothing in between. What takes a note's place brings partials of its own.
   */
  private isUndertone(first: number, last: number, note: Midi): boolean {
    let alone = 0;
    for (let i = first; i < last; i++) {
      const ratio = multipleOf(note, this.scene.line.pitch[i]!) ?? 1;
      if (ratio === 1 || 2 * ratio > QUICK_PARTIALS + 1) continue;
      const partials = this.scene.frames.quickPartials.subarray(i * QUICK_PARTIALS, (i + 1) * QUICK_PARTIALS);
      const faint = NOTHING * partials[ratio - 1]!;
      const below = Math.max(...partials.subarray(0, ratio - 1));
      let between = 0;
      for (let k = ratio + 1; k <= QUICK_PARTIALS; k++)
        if (k % ratio > 0) between = Math.max(between, partials[k - 1]!);
      if (between < faint && below >= faint) alone++;
    }
    return 2 * alone > last - first;
  }

  private count(from: number, to: number, is: (i: number) => boolean): number {
    let found = 0;
    for (let i = from; i < to; i++) if (is(i)) found++;
    return found;
  }

  /** Over a period at least, or a low note's own pulses would be rises and falls. */
  private levels(from: number, to: number, note: Midi): Decibels[] {
    const period = 1 / midiToHertz(note, this.scene.a4);
    const smooth = Math.max(SMOOTH_FRAMES, Math.ceil(period / this.scene.frames.hopSeconds));
    return Array.from({ length: to - from }, (_, k) => hopMean(this.scene.frames.hopDb, from + k, smooth));
  }

  private speedAround(at: number, note: Midi): number {
    const around = this.scene.line.pitch.slice(Math.max(0, at - AROUND), at + AROUND);
    const own = around.map((pitch) => (Math.abs(pitch - note) < 1 ? pitch : NaN));
    return new PitchMoves(own, midiToHertz(note, this.scene.a4)).speed(Math.min(at, AROUND), SPEED_SHARE);
  }

  /** Tens of cents. A note that has only just begun has not yet shown before it how it swings: what comes after tells. */
  private swing(from: number, to: number, note: Midi): number {
    const { pitch } = this.scene.line;
    const near = [
      ...pitch.subarray(Math.max(0, from - SWING_FRAMES), from - 2),
      ...pitch.subarray(to + CLEAR, to + CLEAR + SWING_FRAMES),
    ].filter((p) => Math.abs(p - note) < 1);
    return near.length > 5 ? 10 * (quantile(near, 0.9) - quantile(near, 0.1)) : 0;
  }

  /** Mean power of a note's partials over some frames, also where a multiple or a fraction of it was found; NaN where none tells. */
  private partials(from: number, to: number, note: Midi): Float64Array {
    const sums = new Float64Array(QUICK_PARTIALS);
    const counts = new Uint16Array(QUICK_PARTIALS);
    for (let i = from; i < to; i++) {
      const pitch = this.scene.line.pitch[i]!;
      const above = multipleOf(pitch, note);
      const below = above === null ? multipleOf(note, pitch) : null;
      if (above === null && below === null) continue;
      for (let k = 1; k <= QUICK_PARTIALS; k++) {
        const partial = above === null ? k * below! : k / above;
        if (!Number.isInteger(partial) || partial > QUICK_PARTIALS) continue;
        sums[k - 1]! += this.scene.frames.quickPartials[i * QUICK_PARTIALS + partial - 1]! ** 2;
        counts[k - 1]!++;
      }
    }
    return sums.map((sum, k) => sum / counts[k]!);
  }
}

function isTop(values: Float64Array, i: number): boolean {
  const here = values[i]!;
  if (!(here >= NEW) || values[i - 1] === here || values[i - 2] === here) return false;
  for (let k = i - 2; k <= i + 2; k++) if (values[k]! > here) return false;
  return true;
}

/** Most that one of the partials within 10 dB of the strongest has lost, dB. */
function mostLost(before: Float64Array, after: Float64Array): Decibels {
  const strongest = Math.max(...before.map((power) => power || 0));
  let most = 0;
  before.forEach((power, k) => {
    if (power > strongest / 10) most = Math.max(most, 10 * Math.log10(power / (after[k]! + 1e-12)) || 0);
  });
  return most;
}

/** Most that one of the partials within 12 dB of the strongest has grown, dB. */
function growth(before: Float64Array, during: Float64Array): Decibels {
  const strongest = Math.max(...during.map((power) => power || 0));
  let most = 0;
  during.forEach((power, k) => {
    if (power > strongest / 16) most = Math.max(most, 10 * Math.log10(power / (before[k]! + 1e-12)));
  });
  return most;
}
