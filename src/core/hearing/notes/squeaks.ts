import { type Hertz, median, type Midi, type Seconds } from '@/core/base';
import { soundingOf, writtenRange } from '@/core/instruments';
import { centsBetween, hertzToMidi, midiToHertz } from '@/core/tuning';
import { multipleOf } from './echoes';
import { isInPlace } from './isInPlace';
import { ownSeconds } from './line';
import { otherModes } from './modes';
import type { Scene } from './scene';
import { hadStopped } from './stopped';
import type { Replacement } from './replacement';

const ABOVE_TOP = 1.04;
/** Higher than this so many times what was strongest before it. */
const LEAP = 1.35;
const PARTIAL_CENTS = 40;
/** What comes and goes is blurred; the first two partials stand alone enough to allow for it. */
const LOW_PARTIAL_CENTS = 80;
/** The strongest of another mode may be this partial of it or a higher one, and is as near to it. */
const UPPER_PARTIAL = 3;
const UPPER_CENTS = 20;
/** From this partial on, all frequencies are near to one; that it should be the strongest is as strange. */
const HIGH_PARTIAL = 4;
const LONGEST: Seconds = 0.16;
const FEWEST_FRAMES = 3;
/** Echoes that add up badly may lay a high partial bare for a moment. */
const FEWEST_IN_ECHO = 5;
/** The note before and after it, one pitch, is looked for within so many frames. */
const REACH = 14;
/** Nearer to the floor it is a noise of the house. */
const OVER_FLOOR_DB = 14;
const SAME = 0.6;

/**
 * Squeaks within a note, found by what is strongest whatever the pitch and however it swings. The line is bridged there, as the note
 * goes on. Over the echo of the note most are found by `replacementsIn`, which goes before.
 */
export function bridgeSqueaks(scene: Scene): Replacement[] {
  const { frames, instrument, a4, rings } = scene;
  const top = ABOVE_TOP * midiToHertz(soundingOf(instrument, writtenRange(instrument).high), a4);
  const { strongestHz, count, hopSeconds } = frames;
  // While a window holds both notes of a slur, the strongest that sounds may be of neither.
  // Echoes lay bare more of what is not there.
  const fewest = Math.max(rings ? FEWEST_IN_ECHO : FEWEST_FRAMES, ownSeconds(frames) / hopSeconds);
  const found: Replacement[] = [];
  for (let from = REACH; from < count; from++) {
    if (!(strongestHz[from]! > top)) continue;
    let to = from;
    while (to < count && strongestHz[to]! > top) to++;
    const squeak = (to - from) * hopSeconds <= LONGEST ? squeakBetween(scene, from, to) : null;
    // Bridged all the same, what is too short is neither a squeak nor a note.
    if (squeak && to - from >= fewest) found.push(squeak);
    from = to;
  }
  return found;
}

function squeakBetween(scene: Scene, from: number, to: number): Replacement | null {
  const { line, frames, instrument, a4, rings } = scene;
  const { strongestHz } = frames;
  const before = median(line.pitch.subarray(from - REACH, from - 3).filter((pitch) => !Number.isNaN(pitch)));
  const after = firstNear(line.pitch, before, to);
  if (after === null) return null;
  const hertz = median(strongestHz.subarray(from, to));
  const usual = median(strongestHz.subarray(from - REACH, from - 3));
  const f0 = midiToHertz(before, a4);
  const k = Math.round(hertz / f0);
  const around = line.pitch
    .subarray(from - REACH, to + REACH)
    .filter((pitch) => Math.abs(pitch - before) < 1);
  const swing = 100 * Math.max(...around.map((pitch) => Math.abs(pitch - before)));
  const near = (k <= 2 ? LOW_PARTIAL_CENTS : PARTIAL_CENTS) + (rings ? swing : 0);
  // A high partial may be the strongest of another mode too: then the pitch tells.
  const found = median(line.pitch.subarray(from, to).filter((pitch) => !Number.isNaN(pitch)));
  const isMode =
    (found > before + SAME && multipleOf(hertzToMidi(hertz, a4), found) !== null) ||
    otherModes(before, instrument).some(
      (mode) => mode > before && isUpperPartial(hertz, midiToHertz(mode, a4)),
    );
  const isPartial = (rings || k < HIGH_PARTIAL) && Math.abs(1200 * Math.log2(hertz / (k * f0))) < near;
  if (isMode || isPartial || !(hertz > LEAP * usual)) return null;
  if (median(frames.hopDb.subarray(from, to)) < line.floorDb + OVER_FLOOR_DB || !isInPlace(frames, from, to))
    return null;
  // The tongue had stopped the note: this begins the next one.
  if (hadStopped(from, true, scene)) return null;
  for (let i = from - 2; i < after; i++) line.pitch[i] = before;
  return { from, to, pitch: hertzToMidi(hertz, a4), note: before };
}

function isUpperPartial(hertz: Hertz, f0: Hertz): boolean {
  const partial = Math.round(hertz / f0);
  return partial >= UPPER_PARTIAL && Math.abs(centsBetween(hertz, partial * f0)) < UPPER_CENTS;
}

/** First frame from which the note is back. */
function firstNear(pitch: Float64Array, note: Midi, from: number): number | null {
  for (let i = from; i < Math.min(pitch.length, from + 2 * REACH); i++)
    if (Math.abs(pitch[i]! - note) < SAME / 2 && Math.abs(pitch[i + 2]! - note) < SAME / 2) return i;
  return null;
}
