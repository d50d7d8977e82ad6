import { max } from 'd3-array';
import { type Decibels, median, type Seconds, type Semitones } from '@/core/base';
import { RINGS } from '@/core/hearing/room';
import { multipleOf } from './echoes';
import { hopMean } from './gaps';
import type { Line } from './line';
import type { Plateau } from './plateau';

/** No player fades at this share of the rate at which the room does. */
const DIES_SHARE = 0.35;
/** What begins sounds for as long before it can die away. */
const AT_ONCE: Seconds = 0.06;
/** What only rings on may waver by this. */
const WAVERS_DB: Decibels = 1.5;
const LOOK: Seconds = 0.025;
/** What begins before a silence sounds for as long within so much of its loudest; what rings on may swell for a moment. */
const SHORTEST_LAST: Seconds = 0.09;
const SOUNDS_DB: Decibels = 10;
/** Echoes of a swinging pitch add up to pitches so near to it; and further off where they are softer by so much. */
const SWINGS: { readonly near: Semitones; readonly far: Semitones; readonly softer: Decibels } = {
  near: 0.75,
  far: 1.3,
  softer: 8,
};

/**
 * Gives what only rings on back to the note that it is the echo of: when a sound has stopped, the room keeps its own partials
 * longest, so that one of them may be found in the note's place; or the stop itself seems to begin something. Whatever begins
 * grows, or stays for a moment; this falls from its first moment on, as fast as the room lets it.
 */
export function withoutTails(
  parts: readonly Plateau[],
  line: Line,
  hop: Seconds,
  decaySeconds: Seconds,
): Plateau[] {
  if (decaySeconds <= RINGS) return [...parts];
  const kept: Plateau[] = [];
  parts.forEach((part, i) => {
    const before = kept[kept.length - 1];
    const next = parts[i + 1];
    const follows = (later: Plateau, earlier: Plateau) => (later.from - earlier.to) * hop <= line.dropout;
    const isLast = !next || !follows(next, part);
    const isTail =
      before &&
      follows(part, before) &&
      ((multipleOf(part.pitch, before.pitch) && dies(part, line, hop, decaySeconds)) ||
        (isLast && isOfSwing(part, before, line) && isBrief(part, line, hop)));
    if (isTail) kept[kept.length - 1] = { ...before, to: part.to };
    else kept.push(part);
  });
  return kept;
}

/** Whether what sounds in a stretch, before it rings out, is too brief for a note. */
function isBrief({ from, to }: Plateau, { levelDb }: Line, hop: Seconds): boolean {
  const levels = levelDb.subarray(from, to);
  const loud = max(levels)! - SOUNDS_DB;
  const first = levels.findIndex((level) => level > loud);
  return (levels.findLastIndex((level) => level > loud) + 1 - first) * hop < SHORTEST_LAST;
}

function isOfSwing(part: Plateau, before: Plateau, { levelDb }: Line): boolean {
  const away = Math.abs(part.pitch - before.pitch);
  const loudest = max(levelDb.subarray(part.from, part.to))!;
  return (
    away < SWINGS.near ||
    (away < SWINGS.far && loudest < median(levelDb.subarray(before.from, before.to)) - SWINGS.softer)
  );
}

/** Whether the level of a stretch falls from its beginning to its end, faster than anybody fades. */
function dies({ from, to }: Plateau, { hopDb }: Line, hop: Seconds, decaySeconds: Seconds): boolean {
  const look = Math.max(3, Math.round(LOOK / hop));
  const level = (i: number): Decibels => hopMean(hopDb, from + i + (look >> 1), look);
  const last = to - from - look;
  if (last < 2) return false;
  const first = level(0);
  const falls = (i: number) => first - level(i) > (DIES_SHARE * 60 * i * hop) / decaySeconds;
  // Most that is asked about is a long note, which the first two looks tell.
  if (!falls(Math.min(last, Math.round(AT_ONCE / hop))) || !falls(last)) return false;
  let least = first;
  for (let i = 1; i <= last; i++) {
    const here = level(i);
    if (here > least + WAVERS_DB) return false;
    least = Math.min(least, here);
  }
  return true;
}
