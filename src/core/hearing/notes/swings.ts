import { clamp, median, quantile, type Seconds, type Semitones } from '@/core/base';
import { RINGS } from '@/core/hearing/room';
import { hopMean } from './gaps';
import type { Line } from './line';
import { isRegular } from './vibrato';
import type { Plateau } from './plateau';

const HALF_SWING: Seconds = 0.145;
const MOST_SWING: Semitones = 0.9;
/** Parts whose middles lie within this may be slices of one vibrato; those of a trill do not. */
const ONE_SWING: Semitones = 0.95;
/** In a room a tone swings further while it begins than when its echoes have come: a slice may lie so far beyond what it is beside. */
const BEYOND: Semitones = 0.3;
/** No player fades at this share of the rate at which the room does. */
const DIES_SHARE = 0.5;

/**
 * Joins what is no longer than half a swing to what swings as far beside it; and the echo of a tone that swung, which stays where
 * the tone was when it stopped.
 */
export function withinSwings(
  parts: readonly Plateau[],
  line: Line,
  hop: Seconds,
  decaySeconds: Seconds,
): Plateau[] {
  const longest = Math.round(HALF_SWING / hop);
  const isOf = (brief: Plateau, long: Plateau) =>
    brief.to - brief.from <= longest &&
    long.to - long.from > 2 * longest &&
    Math.abs(brief.pitch - long.pitch) < MOST_SWING &&
    reaches(line.pitch.subarray(long.from, long.to), brief.pitch);
  const diesAway = ({ from, to }: Plateau) => {
    const third = Math.floor((to - from) / 3);
    const fall =
      hopMean(line.hopDb, from + (third >> 1), third) - hopMean(line.hopDb, to - 1 - (third >> 1), third);
    return decaySeconds > RINGS && fall > (DIES_SHARE * 60 * 2 * third * hop) / decaySeconds;
  };
  const join = (all: readonly Plateau[]): Plateau[] => {
    const joined: Plateau[] = [];
    for (const part of all) {
      const before = joined[joined.length - 1];
      const isEcho = before && Math.abs(before.pitch - part.pitch) < MOST_SWING && diesAway(part);
      if (before && part.joined && (isEcho || isOf(part, before) || isOf(before, part))) {
        const { pitch } = isEcho || isOf(part, before) ? before : part;
        joined[joined.length - 1] = { ...before, to: part.to, pitch };
      } else joined.push(part);
    }
    return joined;
  };
  // What is too long beside a slice may be half a swing beside the whole.
  return join(asSwung(join(parts), line, hop));
}

/** Joins runs of slices that together are one vibrato, when each of them is too long to be half a swing. */
function asSwung(parts: readonly Plateau[], line: Line, hop: Seconds): Plateau[] {
  const whole: Plateau[] = [];
  for (let i = 0; i < parts.length;) {
    const first = parts[i]!;
    let end = i + 1;
    let [low, high] = [first.pitch, first.pitch];
    for (; end < parts.length && parts[end]!.joined; end++) {
      const { pitch } = parts[end]!;
      if (Math.max(high, pitch) - Math.min(low, pitch) > ONE_SWING) break;
      [low, high] = [Math.min(low, pitch), Math.max(high, pitch)];
    }
    const run = parts.slice(i, end);
    const { to } = parts[end - 1]!;
    const pitches = line.pitch.subarray(first.from, to);
    const middle = median(pitches);
    const swings =
      run.length > 2 &&
      isRegular(
        pitches.map((pitch) => clamp(pitch, middle - MOST_SWING, middle + MOST_SWING)),
        hop,
      );
    if (swings) whole.push({ ...first, to, pitch: middle });
    else whole.push(...run);
    i = end;
  }
  return whole;
}

function reaches(pitches: Float64Array, pitch: number): boolean {
  const known = pitches.filter((value) => !Number.isNaN(value));
  return quantile(known, 0.05) - BEYOND <= pitch && pitch <= quantile(known, 0.95) + BEYOND;
}
