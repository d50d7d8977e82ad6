import { RINGS } from '@/core/hearing/room';
import type { Decibels, Seconds } from '@/core/tuning';
import { multipleOf } from './echoes';
import { hopMean } from './gaps';
import type { Line } from './line';
import type { Plateau } from './plateaus';

/** No player fades at this share of the rate at which the room does. */
const DIES_SHARE = 0.35;
/** What begins sounds for as long before it can die away. */
const AT_ONCE: Seconds = 0.06;
/** What only rings on may waver by this. */
const WAVERS_DB: Decibels = 1.5;
const LOOK: Seconds = 0.025;

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
  for (const part of parts) {
    const before = kept[kept.length - 1];
    const follows = before && (part.from - before.to) * hop <= line.dropout;
    if (before && follows && multipleOf(part.pitch, before.pitch) && dies(part, line, hop, decaySeconds))
      kept[kept.length - 1] = { ...before, to: part.to };
    else kept.push(part);
  }
  return kept;
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
