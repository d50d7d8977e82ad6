import { type Decibels, median, type Midi, quantile, type Seconds, type Semitones } from '@/core/base';
import { partialsAt, PARTIALS, type Frames } from '@/core/hearing/signal';
import { blurOf, type RoomSound } from '@/core/hearing/room';
import { noveltyIn, type Line } from './line';
import type { Plateau } from './plateau';

/** How long a room keeps sounding: the note before into the beginning of a note, a note itself after its end; 0 where nothing does. */
export interface Rings {
  readonly before: Seconds;
  readonly after: Seconds;
  /** Where its echoes are heard: they swing late, and so take from a swing of the pitch, or add to it. */
  readonly room: RoomSound | null;
}
export const SILENT_ROOM: Rings = { before: 0, after: 0, room: null };

/** Of two notes this near to each other what rings and what sounds blend into a pitch between them … */
const BLENDS_SEMITONES = 4;
/** … in which nothing carries on: so new are all its frames but a few. */
const ALWAYS_NEW = 0.6;
const FEW = 0.25;

/** Near enough to a multiple for both sounds to repeat with the common period. */
const COMMON_SEMITONES = 0.5;
const MOST_MULTIPLE = 8;
/** Partials that neither note explains have to be this near to the strongest to make a sound of its own. */
const OWN_DB: Decibels = -14;
/** A partial this near to one of a note that rings, as a share of its frequency, may be that. */
const NEAR_PARTIAL = 0.06;
/** A component below a sound, this near to it, is a note that still rings: the sound is that note's partial. */
const BELOW_DB: Decibels = -8;
/** Two sounds that have no period in common are never as periodic as this. */
const CLEAR = 0.94;
/** Windows alone let two notes overlap for as long. */
const OVERLAP: Seconds = 0.022;
/** … and the common period of both may be found for as long, with no partial of its own. */
const LONGEST_OVERLAP: Seconds = 0.03;

/** Notes before one that may still be heard under it. */
export const ECHOING_NOTES = 3;

/** Two notes nearer than this are one that is tongued again. */
const SAME_PITCH: Semitones = 0.5;

/** Whether a note is tongued again: so that all partials of it sound when it begins. @param earlier pitches, in the order in which they sounded. */
export function isOverItsEcho(note: Midi, earlier: readonly Midi[]): boolean {
  const before = earlier[earlier.length - 1];
  return before !== undefined && Math.abs(before - note) < SAME_PITCH;
}

/** How long a note is still heard under the next one. */
export const ringingSeconds = (decaySeconds: Seconds): Seconds => OVERLAP + blurOf(decaySeconds);

/** Number n ≥ 1 for which `high` is the n-th partial of `low`; null when it is none. */
export function multipleOf(high: number, low: number): number | null {
  const n = Math.round(2 ** ((high - low) / 12));
  return n >= 1 && n <= MOST_MULTIPLE && Math.abs(high - low - 12 * Math.log2(n)) < COMMON_SEMITONES
    ? n
    : null;
}

/**
 * Whether a brief pitch between two notes is only what they make together while the first rings on: their common period below
 * them, a common partial above them, or the echo of the first. A sound of its own has partials that neither explains.
 * @param ringing how long the first is heard under the second.
 * @param isMode whether the fingering of the second can sound it.
 */
export function isOfBoth(
  brief: Plateau,
  before: Plateau,
  after: Plateau,
  frames: Frames,
  ringing: Seconds,
  isMode = false,
): boolean {
  const [under, over] = [multipleOf(before.pitch, brief.pitch), multipleOf(after.pitch, brief.pitch)];
  const since = (brief.to - before.to) * frames.hopSeconds;
  if (since > ringing)
    return (
      since <= LONGEST_OVERLAP &&
      under !== null &&
      over !== null &&
      Math.min(under, over) > 1 &&
      !hasOwnPartials(brief, under, over, frames)
    );
  const rings = ringing > OVERLAP;
  if (under === 1) return rings;
  if (under !== null && over !== null && (rings || (under > 1 && over > 1)))
    return !rings || !hasOwnPartials(brief, under, over, frames);
  const [partialOfFirst, partialOfSecond] = [
    multipleOf(brief.pitch, before.pitch),
    multipleOf(brief.pitch, after.pitch),
  ];
  if (partialOfFirst !== null || partialOfSecond !== null)
    return rings && ringsBelow(brief, before, after, frames);
  if (brief.pitch > Math.min(before.pitch, after.pitch) - 1) return false;
  if (median(frames.clarity.subarray(brief.from, brief.to)) >= CLEAR) return false;
  // What rings on makes a mode less clear too; it still has partials of its own.
  return !(rings && isMode && over !== null) || isPeriodOfBoth(brief, before, after, frames);
}

/** Whether a brief pitch between two notes is no tone, but the beating of the first, which rings on, with the second. */
export function isBlend(brief: Plateau, before: Plateau, after: Plateau, line: Line): boolean {
  const [low, high] = before.pitch < after.pitch ? [before.pitch, after.pitch] : [after.pitch, before.pitch];
  if (high - low > BLENDS_SEMITONES || !(brief.pitch > low && brief.pitch < high)) return false;
  return quantile(noveltyIn(line, brief.from, brief.to), FEW) > ALWAYS_NEW;
}

/**
 * Whether a brief pitch under a note, a fraction of its own, is only how the note and one that rings on repeat together: nothing
 * sounds in it but the partials of the two.
 */
export function isPeriodOfBoth(brief: Plateau, earlier: Plateau, note: Plateau, frames: Frames): boolean {
  const over = multipleOf(note.pitch, brief.pitch);
  if (over === null || over < 2) return false;
  const ratio = 2 ** ((brief.pitch - earlier.pitch) / 12);
  const isEarlier = (k: number) => {
    const multiple = k * ratio;
    return Math.round(multiple) >= 1 && Math.abs(multiple - Math.round(multiple)) < NEAR_PARTIAL * multiple;
  };
  return !soundsAlone(brief, frames, (k) => k % over === 0 || isEarlier(k));
}

/** Whether partials sound that are neither multiples of one number nor of the other. */
const hasOwnPartials = (brief: Plateau, a: number, b: number, frames: Frames): boolean =>
  soundsAlone(brief, frames, (k) => k % a === 0 || k % b === 0);

/** Whether, most of the time, a partial of a brief pitch is strong that nothing else explains. */
function soundsAlone(brief: Plateau, frames: Frames, isExplained: (k: number) => boolean): boolean {
  let own = 0;
  let rows = 0;
  for (let i = brief.from; i < brief.to; i += frames.settings.spectrum.every) {
    if (Number.isNaN(frames.airinessDb[i]!)) continue;
    rows++;
    const partials = partialsAt(frames, i);
    let strongest = -Infinity;
    let alone = -Infinity;
    for (let k = 1; k <= PARTIALS; k++) {
      const level = partials[k - 1]!;
      if (Number.isNaN(level)) continue;
      strongest = Math.max(strongest, level);
      if (!isExplained(k)) alone = Math.max(alone, level);
    }
    if (alone > strongest + OWN_DB) own++;
  }
  return rows > 0 && 2 * own > rows;
}

/** Whether one of the notes, or something as deep, is still heard under a brief pitch. */
export function ringsBelow(brief: Plateau, before: Plateau, after: Plateau, frames: Frames): boolean {
  let below = 0;
  let rows = 0;
  for (let i = brief.from; i < brief.to; i++) {
    rows++;
    if (frames.subDb[i]! > BELOW_DB) below++;
  }
  return brief.pitch > Math.min(before.pitch, after.pitch) + 1 && 2 * below >= rows;
}
