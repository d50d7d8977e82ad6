import { greatest, sum } from 'd3-array';
import { median } from '@/core/base';
import { QUICK_PARTIALS } from '@/core/hearing/signal';
import { hertzToMidi, midiToHertz, type Decibels, type Midi, type Seconds } from '@/core/tuning';
import { multipleOf } from './echoes';
import { othersOf, soundOf } from './modes';
import { newcomerIn, type Newcomer } from './newcomers';
import type { Scene } from './scene';

/** What is doubtful by so much, in log-odds, is believed where a newcomer stands out clearly. */
export const DOUBTFUL = 1.5;
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
/** By how much less the partials that a mode shares with the note fall than the others, and by how much where nothing else tells. */
const HOLDS: Decibels = 3;
const HIDDEN: Decibels = 7;
const MOST_ELSEWHERE = 0.5;
const LONGEST_HIDDEN: Seconds = 0.13;
const NOT_ZERO = 1e-12;

/** What is seen of a moment in which something may have taken a note's place. Frames are half-open. */
export interface Look {
  readonly from: number;
  readonly to: number;
  /** Of these, the frames in which nothing of what was before is left. */
  readonly first: number;
  readonly last: number;
  readonly note: Midi;
  /** Mean powers of the note's partials before it and in it. */
  readonly before: Float64Array;
  readonly during: Float64Array;
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
  named(look: Look): { readonly pitch: Midi; readonly odds: number } | null {
    const { from, to, note, odds, lowest } = look;
    const { pitches, isHidden } = this.seenIn(look);
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
    const isOther = newcomer !== null && (differ || (isHidden && newcomer.alone));
    if (isKnown && !isOther) return { pitch, odds };
    return newcomer && odds > (newcomer.alone ? 0 : SURE) ? { pitch: newcomer.pitch, odds } : null;
  }

  /** A newcomer may be as loud as the echo of the note: it is the strongest, or what has grown from nothing, or hidden. */
  private seenIn(look: Look): { pitches: Midi[]; isHidden: boolean } {
    const { from, to, note, before, during } = look;
    const { frames, instrument } = this.scene;
    const contrastOf = (mode: Midi, except: Midi | null) => {
      const r = multipleOf(mode, note);
      const left = except === null ? null : multipleOf(except, note);
      return r !== null && r > 1 ? contrast(r, before, during, left) : -Infinity;
    };
    const holds = (mode: Midi, strongest: Midi) => contrastOf(mode, strongest) > HOLDS;
    const seen = [this.strongestLater(from, to, note), this.grownWithin(look)].filter((is) => is !== null);
    // What falls may be stopped and begin again.
    const mayHide =
      look.odds > SURE &&
      look.elsewhere < MOST_ELSEWHERE &&
      look.lowest > -FALLEN &&
      (to - from) * frames.hopSeconds < LONGEST_HIDDEN;
    if (seen.length > 0 || !mayHide) {
      const pitches = seen.map((strongest) => soundOf(strongest, note, instrument, holds));
      return { pitches: pitches.filter((pitch) => pitch !== null), isHidden: false };
    }
    const modes = othersOf(note, instrument).filter(
      (mode) => (multipleOf(mode, note) ?? 1) <= QUICK_PARTIALS / 2,
    );
    const hidden = greatest(modes, (mode) => contrastOf(mode, null));
    const isHidden = hidden !== undefined && contrastOf(hidden, null) > HIDDEN;
    return { pitches: isHidden ? [hidden] : [], isHidden };
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
    const faint = Math.max(...before.map((power) => power || 0)) * FAINT;
    const found: Midi[] = [];
    for (let i = first; i < last; i++) {
      const pitch = line.pitch[i]!;
      const powers = Array.from(
        frames.quickPartials.subarray(i * QUICK_PARTIALS, (i + 1) * QUICK_PARTIALS),
        (amplitude) => amplitude ** 2,
      );
      const strongest = Math.max(...powers);
      let best = -1;
      powers.forEach((power, k) => {
        const partial = multipleOf(pitch + 12 * Math.log2(k + 1), note);
        const was = (partial === null ? null : before[partial - 1]) ?? 0;
        if (power > GROWN * Math.max(was, faint) && power > strongest / 6 && !(power <= powers[best]!))
          best = k;
      });
      if (best >= 0 && !Number.isNaN(pitch)) found.push(pitch + 12 * Math.log2(best + 1));
    }
    return 2 * found.length > last - first ? median(found) : null;
  }
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
function contrast(r: number, before: Float64Array, during: Float64Array, except: number | null): Decibels {
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
