import { median, type Seconds } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import type { Rings } from './echoes';
import type { Line } from './line';
import type { Plateau } from './plateau';

type Span = Pick<Plateau, 'from' | 'to'>;

const SCOOP: Seconds = 0.15;
/** Quieter than this against the note is what is left of the one before. */
const FAINT_DB = 35;
/** When a tone speaks at last, it is louder than the breath before it by this, within so long. */
const SPEAKS_DB = 8;
const SPEAKS_WITHIN: Seconds = 0.1;

/**
 * How a note begins: its rise (seconds; NaN where that is not the player's to tell), its pitch then, and how long after the first sound.
 * @param body of the note, without attack and release.
 */
export function attackOf(frames: Frames, line: Line, segment: Span, body: Span, rings: Rings) {
  const hop = frames.hopSeconds;
  const { levelDb, pitch, floorDb } = line;
  const settled = median(levelDb.subarray(body.from, Math.min(body.to, body.from + Math.round(0.25 / hop))));
  const first = firstEnergy(line, segment, hop, Math.max(floorDb + 10, settled - FAINT_DB));
  const crossing = (dB: number): number => {
    for (let i = first; i < body.to; i++) {
      const above = levelDb[i]!;
      if (above < settled + dB) continue;
      const below = i > 0 ? levelDb[i - 1]! : -Infinity;
      // What is louder from the first has not risen: it goes on from what sounded before.
      return below < settled + dB ? i - Math.min(1, (above - settled - dB) / (above - below)) : NaN;
    }
    return NaN;
  };
  // 10 % and 90 % of the amplitude are −20 dB and −0.92 dB; the meter's own width is taken off.
  const measured = (crossing(-0.92) - crossing(-20)) * hop;
  const own = 1.1 * frames.settings.levelHops * hop;
  const rise = settled - 20 > floorDb + 3 ? Math.sqrt(Math.max(0, measured ** 2 - own ** 2)) : NaN;
  const early = pitch.subarray(segment.from, Math.min(segment.to, segment.from + Math.round(SCOOP / hop)));
  // A tone that grows out of nothing has no breath before it that waits for it: it was always on its way.
  const soon = Math.min(body.to, segment.from + Math.round(SPEAKS_WITHIN / hop));
  const speaks =
    Math.max(...levelDb.subarray(segment.from, soon)) - median(levelDb.subarray(first, segment.from + 1));
  return {
    rise: isBlurred(rise, rings) ? NaN : rise,
    scoopPitch: median(early),
    speech: speaks >= SPEAKS_DB ? (segment.from - first) * hop : 0,
  };
}

/** A room builds up for nearly as long as it rings: over what still rings, and where it is quicker than that, a rise is not the player's. */
const isBlurred = (rise: Seconds, { room, before, after }: Rings): boolean =>
  room !== null && (before > 0 || rise < after);

/** Frame at which the sound that becomes this note is first heard above the room. */
function firstEnergy({ levelDb, pitch }: Line, segment: Span, hop: Seconds, audible: number): number {
  const earliest = Math.max(0, segment.from - Math.round(0.5 / hop));
  let first = segment.from;
  while (first > earliest && levelDb[first - 1]! > audible && Number.isNaN(pitch[first - 1]!)) first--;
  return first;
}
