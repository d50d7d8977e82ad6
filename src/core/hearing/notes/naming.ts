import { sum } from 'd3-array';
import { clamp, type Decibels, median, type Midi, type Seconds } from '@/core/base';
import { QUICK_PARTIALS } from '@/core/hearing/signal';
import type { Instrument } from '@/core/instruments';
import { hertzToMidi, midiToHertz } from '@/core/tuning';
import { multipleOf } from './echoes';
import { multiplesOf, othersOf, soundOf } from './modes';
import { contrastOf, type Contrast } from './contrast';
import { logOdds, type Evidence } from './evidence';
import { newcomerIn, type Newcomer } from './newcomers';
import type { Scene } from './scene';

/** What is doubtful by so much, in log-odds, is believed where a newcomer stands out clearly. */
const DOUBTFUL = 1.5;
/** And so much it takes where all partials of the newcomer are the note's too. */
const SURE = 1;
/** What a newcomer weighs that stands out, in log-odds. */
const STANDS_OUT = 3;
const CLEAR_NEWCOMER: { readonly levelDb: Decibels; readonly comesDb: Decibels } = {
  levelDb: -10,
  comesDb: 12,
};
/** A level that falls by more, dB, is stopped. */
const STOPPED: Decibels = 5;
/** And what is doubtful is not believed where it falls by so much. */
const FALLEN: Decibels = 3;
/** Frames for which the spectrum still holds what has ended, and how many of them have to tell. */
const LATER = 7;
const FEWEST_LATER = 2;
const PARTIAL_SEMITONES = 0.6;
/** A partial that a newcomer brings grows by this (power), and is not fainter than this against the note. */
const GROWN = 4;
const FAINT = 0.01;
/** Where no other pitch is found it is nearly as loud as the note's strongest was: in an echo one partial grows while others cancel. */
const AS_LOUD = 0.16;
/** By how much less the partials that a mode shares with the note fall than the others. */
const HOLDS: Decibels = 3;
const MOST_ELSEWHERE = 0.5;
const NOT_ZERO = 1e-12;

/**
 * What tells a higher mode by the note's partials alone: fitted by logistic regression to 400 breaks that lay hidden in the echo of
 * their note and 6,000 moments that look like one, of all simulated instruments and two sets of recorded ones.
 */
const PRIOR = -1.6;
const EVIDENCE: readonly Evidence<{ readonly odds: number; readonly contrast: Contrast }>[] = [
  // That something took the note's place, before it is known what.
  { weight: 0.9, of: ({ odds }) => odds },
  { weight: 0.36, of: ({ contrast }) => clamp(contrast.othersFall, 0, 10) },
  { weight: 0.46, of: ({ contrast }) => clamp(contrast.ownGrow, -8, 8) },
];
/** What is told of it: how far it stands out, how long it lasts. */
const LEAST_CONTRAST: Decibels = 2;
/** What does not come back is the note before, slurred to its own mode. */
const LEAST_RETURN: Decibels = 1;
const SHORTEST_MISSED: Seconds = 0.05;
/** Where its others grow by more when a mode of a note comes, the note swells: in 1 of 211 true breaks they did. */
const MOST_SWELL: Decibels = 4;
/** What lies higher is a squeak, and is found by what it brings. */
const MOST_TIMES = 3;

interface Named {
  readonly pitch: Midi;
  readonly odds: number;
}

/** What is seen of a moment in which something may have taken a note's place. Frames are half-open. */
export interface Look {
  readonly from: number;
  readonly to: number;
  /** Of these, the frames in which nothing of what was before is left. */
  readonly first: number;
  readonly last: number;
  readonly note: Midi;
  /** Mean powers of the note's partials before it, in it and after it. */
  readonly before: Float64Array;
  readonly during: Float64Array;
  readonly after: Float64Array;
  /** Share of it in which another pitch is found. */
  readonly elsewhere: number;
  /** Lowest level in it against the note's. */
  readonly lowest: Decibels;
  /** That something took the note's place, in log-odds, before it is known what. */
  readonly odds: number;
}

/** Names what took a note's place. */
export class Naming {
  constructor(private readonly scene: Scene) {}

  /** Its pitch, and the odds with what is known of it; null where nothing did, or where it cannot be told what. */
  named(look: Look): Named | null {
    return (look.odds > -DOUBTFUL ? this.seen(look) : null) ?? this.missed(look);
  }

  /** A mode of which nothing is seen but what the note's partials do meanwhile. */
  private missed(look: Look): Named | null {
    const { from, to, note, elsewhere, lowest, odds } = look;
    const contrast = contrastIn(look, multiplesOf(note, this.scene.instrument));
    const seconds = (to - from) * this.scene.frames.hopSeconds;
    if (
      !contrast ||
      contrast.multiple > MOST_TIMES ||
      seconds < SHORTEST_MISSED ||
      elsewhere > MOST_ELSEWHERE ||
      lowest < -STOPPED
    )
      return null;
    if (
      contrast.standsOut < LEAST_CONTRAST ||
      contrast.othersFall < 0 ||
      contrast.othersReturn < LEAST_RETURN
    )
      return null;
    const withPartials = logOdds(PRIOR, EVIDENCE, { odds, contrast });
    return withPartials > 0 ? { pitch: note + 12 * Math.log2(contrast.multiple), odds: withPartials } : null;
  }

  /** What is heard of it itself. */
  private seen(look: Look): Named | null {
    const { from, to, note, odds, lowest } = look;
    const pitches = this.pitchesIn(look);
    const [pitch, other] = pitches;
    if (pitch !== undefined && isUnder(pitch, look)) return null;
    const differ = pitch !== undefined && other !== undefined && Math.abs(pitch - other) > 1;
    const isKnown = pitch !== undefined && odds > 0;
    // Where the level falls too, a tongue may have stopped the note: then what comes next begins another.
    if (lowest < -STOPPED && !differ && !isKnown) return null;
    const { line, frames, instrument, a4 } = this.scene;
    const among = [...pitches, ...othersOf(note, instrument)];
    const newcomer = newcomerIn(from, to, note, among, line, frames, a4);
    const isAgreed = isKnown && other !== undefined && !differ;
    const isDoubtful = odds < 0 && lowest < -FALLEN;
    if (newcomer && standsOut(newcomer) && !isDoubtful && !isAgreed)
      return { pitch: newcomer.pitch, odds: odds + STANDS_OUT };
    const known = isKnown && !(newcomer && differ) ? amongPartials(pitch, look, instrument) : null;
    if (known !== null) return { pitch: known, odds };
    return newcomer && odds > (newcomer.alone ? 0 : SURE) ? { pitch: newcomer.pitch, odds } : null;
  }

  /** A newcomer may be as loud as the echo of the note: it is the strongest, or what has grown from nothing. */
  private pitchesIn(look: Look): Midi[] {
    const { from, to, note, before, during } = look;
    const { instrument } = this.scene;
    const holds = (mode: Midi, strongest: Midi) => {
      const r = multipleOf(mode, note);
      return (
        r !== null && r > 1 && grownAgainstOthers(r, before, during, multipleOf(strongest, note)) > HOLDS
      );
    };
    return [this.strongestLater(from, to, note), this.grownWithin(look)]
      .map((strongest) => strongest && soundOf(strongest, note, instrument, holds))
      .filter((pitch) => pitch !== null);
  }

  /** The spectrum has a longer window than the rest: what is strongest follows for a while, and only if it is no partial of the note. */
  private strongestLater(from: number, to: number, note: Midi): Midi | null {
    const { frames, a4 } = this.scene;
    const f0 = midiToHertz(note, a4);
    const others: Midi[] = [];
    for (let i = from; i < Math.min(frames.count, to + LATER); i++) {
      const hertz = frames.strongestHz[i]!;
      const k = Math.max(1, Math.round(hertz / f0));
      if (Math.abs(12 * Math.log2(hertz / (k * f0))) > PARTIAL_SEMITONES) others.push(hertzToMidi(hertz, a4));
    }
    return others.length >= FEWEST_LATER ? median(others) : null;
  }

  /** The strongest partial of what is found in the note's place that has grown by far; null where none has for half of the time. */
  private grownWithin({ first, last, before, note }: Look): Midi | null {
    const { line, frames } = this.scene;
    const loudest = Math.max(...before.map((power) => power || 0));
    const faint = loudest * FAINT;
    const found: Midi[] = [];
    for (let i = first; i < last; i++) {
      const pitch = line.pitch[i]!;
      const powers = Array.from(
        frames.quickPartials.subarray(i * QUICK_PARTIALS, (i + 1) * QUICK_PARTIALS),
        (amplitude) => amplitude ** 2,
      );
      const least = Math.max(Math.max(...powers) / 6, Math.abs(pitch - note) < 1 ? loudest * AS_LOUD : 0);
      let best = -1;
      powers.forEach((power, k) => {
        const partial = multipleOf(pitch + 12 * Math.log2(k + 1), note);
        const was = (partial === null ? null : before[partial - 1]) ?? 0;
        if (power > GROWN * Math.max(was, faint) && power > least && !(power <= powers[best]!)) best = k;
      });
      if (best >= 0 && !Number.isNaN(pitch)) found.push(pitch + 12 * Math.log2(best + 1));
    }
    return 2 * found.length > last - first ? median(found) : null;
  }
}

const contrastIn = ({ before, during, after }: Look, multiples: readonly number[]): Contrast | null =>
  contrastOf(multiples, before, during, after);

/**
 * The mode that is heard in a note's place where its partials are all the note's too: a pitch two octaves over the note may be that of the
 * octave's second partial. Null where none stands out among the note's partials: where an echo goes on falling, or the note swells.
 */
function amongPartials(pitch: Midi, look: Look, instrument: Instrument): Midi | null {
  const times = multipleOf(pitch, look.note) ?? 1;
  const multiples = multiplesOf(look.note, instrument);
  if (!multiples.includes(times)) return pitch;
  const contrast = contrastIn(
    look,
    multiples.filter((multiple) => times % multiple === 0),
  );
  if (contrast === null) return pitch;
  const { multiple, standsOut, othersFall } = contrast;
  if (standsOut <= 0 || othersFall <= -MOST_SWELL) return null;
  return multiple === times ? pitch : look.note + 12 * Math.log2(multiple);
}

const standsOut = ({ alone, levelDb, comesDb }: Newcomer): boolean =>
  alone && levelDb > CLEAR_NEWCOMER.levelDb && comesDb > CLEAR_NEWCOMER.comesDb;

/**
 * Whether a pitch is an undertone: so far below that what lies between its partials and the note's cannot be seen, while the note's own
 * first partial goes on.
 */
function isUnder(pitch: Midi, { note, before, during }: Look): boolean {
  const ratio = multipleOf(note, pitch) ?? 1;
  return 2 * ratio > QUICK_PARTIALS + 1 && during[0]! > before[0]! / GROWN;
}

/** How far the partials of a note that are multiples of r have grown against its others, dB, one partial left out. */
function grownAgainstOthers(
  r: number,
  before: Float64Array,
  during: Float64Array,
  except: number | null,
): Decibels {
  const powerOf = (partials: Float64Array, areMultiples: boolean) =>
    sum(
      Array.from(partials).filter(
        (power, k) => power > 0 && k + 1 !== except && ((k + 1) % r === 0) === areMultiples,
      ),
    ) + NOT_ZERO;
  const grown = (areMultiples: boolean) =>
    10 * Math.log10(powerOf(during, areMultiples) / powerOf(before, areMultiples));
  return grown(true) - grown(false);
}
