import type { Decibels, Seconds } from '@/core/base';
import { beatsToSeconds, glideOf, type HairpinSpan, type Score } from '@/core/music';
import type { Group } from '@/core/hearing/matching';
import type { Player } from './player';

export const DYNAMIC_DB = { pp: -16, p: -10, mp: -5, mf: 0, f: 5, ff: 9 } as const;
/** How far a hairpin goes. A fade goes to nothing, nearly; what is grown into begins softly. */
const HAIRPIN_DB = { grow: 14, fade: -24, swell: 14 } as const;
/** From one written level to another within a tone. */
const LEVEL_CHANGE: Seconds = 0.08;

/** What is settled before the first note sounds. */
export interface Plan {
  readonly starts: readonly Seconds[];
  readonly hairpins: readonly HairpinSpan[];
}

/** What a tone does while it lasts, from its beginning on. */
export interface Course {
  /** Against the level that it begins with. */
  readonly levelDb: (t: Seconds) => Decibels;
  /** Against its pitch. */
  readonly cents: (t: Seconds) => number;
}

/** Level and bend over a tone, through the notes that it is written as. */
export function courseOf(
  score: Score,
  player: Player,
  plan: Plan,
  { from, to }: Group,
  end: Seconds,
): Course {
  const { starts, hairpins } = plan;
  const written = score.notes.slice(from, to + 1).map((note, i) => {
    const at = starts[from + i]! - starts[from]!;
    const duration = (from + i === to ? end : starts[from + i + 1]!) - starts[from + i]!;
    const hairpin = hairpinOver(score, from + i, hairpins, duration);
    const dynamicDb = DYNAMIC_DB[note.dynamic] - DYNAMIC_DB[score.notes[from]!.dynamic];
    const glide = glideOf(note.role);
    const bent = (place: number) => place * (place < 0 ? player.bends.downCents : player.bends.upCents);
    return {
      at,
      levelDb: (t: Seconds) => dynamicDb + hairpin(t - at),
      cents: (t: Seconds) => {
        if (!glide) return 0;
        const gone = Math.min(1, Math.max(0, (t - at) / duration));
        return bent(glide.from) + gone * (bent(glide.to) - bent(glide.from));
      },
    };
  });
  const placeAt = (t: Seconds) =>
    Math.max(
      0,
      written.findLastIndex(({ at }) => t >= at),
    );
  return {
    levelDb: (t) => {
      const place = placeAt(t);
      const { at, levelDb } = written[place]!;
      const before = written[place - 1];
      const arrived = Math.min(1, (t - at) / LEVEL_CHANGE);
      return before && arrived < 1 ? before.levelDb(t) * (1 - arrived) + levelDb(t) * arrived : levelDb(t);
    },
    cents: (t) => written[placeAt(t)]!.cents(t),
  };
}

/** The level that a hairpin asks for over one of its notes. */
function hairpinOver(
  score: Score,
  index: number,
  hairpins: Plan['hairpins'],
  duration: Seconds,
): (t: Seconds) => Decibels {
  const span = hairpins.find(({ from, to }) => from <= index && index <= to);
  if (!span) return () => 0;
  const first = score.notes[span.from]!;
  const last = score.notes[span.to]!;
  const whole = beatsToSeconds(score, last.startBeat + last.beats - first.startBeat);
  const before = beatsToSeconds(score, score.notes[index]!.startBeat - first.startBeat);
  const depth = HAIRPIN_DB[span.hairpin];
  return (t) => {
    const place = Math.min(1, Math.max(0, (before + Math.min(t, duration)) / whole));
    return depth * (span.hairpin === 'swell' ? 1 - Math.abs(2 * place - 1) : place);
  };
}
