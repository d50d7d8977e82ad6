import type { Seconds } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import type { Limits } from '@/core/verdict';
import { followedTrends, type FollowedTrend } from './followed';
import { noteMap, problemNotes, type MappedNote, type ProblemNote } from './noteMap';
import type { Played } from './played';
import {
  crossedIn,
  seamMap,
  turnsOf,
  type Crossed,
  type MappedBreak,
  type MappedSeam,
  type Turn,
} from './seamMap';

/** A place in a take that is worth listening to. */
export interface ReportPlace {
  readonly takeId: string;
  readonly fromSeconds: Seconds;
  readonly toSeconds: Seconds;
  readonly why: { readonly kind: 'opened' | 'held' | 'remark'; readonly crossed: Crossed | null };
}

/** A time of practice on one instrument, for someone who was not there. */
export interface Report {
  readonly takes: number;
  readonly sittings: number;
  readonly minutes: number;
  /** Minutes by exercise, the most first. */
  readonly exercises: readonly { readonly title: string; readonly takes: number; readonly minutes: number }[];
  readonly turns: readonly Turn[];
  /** Seams that were crossed, the weakest first. */
  readonly seams: readonly MappedSeam[];
  readonly problems: readonly ProblemNote[];
  /** Where each note lies, and how the breaks hold. */
  readonly notes: readonly MappedNote[];
  readonly breaks: readonly MappedBreak[];
  /** What moved. */
  readonly moved: readonly FollowedTrend[];
  readonly remarks: readonly { readonly day: number; readonly title: string; readonly text: string }[];
  readonly places: readonly ReportPlace[];
}

const MOST_PLACES = 3;
const BEFORE: Seconds = 1.5;
const AFTER: Seconds = 2.5;
const BEGINNING: Seconds = 8;

/**
 * @param ever all that was played: what is known of notes and seams is not younger than the time that is told of.
 * @param since first day of the time that is told of.
 */
export function reportOf(
  ever: readonly Played[],
  instrument: Instrument,
  limits: Limits,
  since: number,
  now: number,
): Report {
  const played = ever.filter(({ day }) => day >= since);
  const titles = new Map<string, { title: string; takes: number; minutes: number }>();
  for (const { entry } of played) {
    const before = titles.get(entry.title) ?? { title: entry.title, takes: 0, minutes: 0 };
    const minutes = before.minutes + entry.durationSeconds / 60;
    titles.set(entry.title, { title: entry.title, takes: before.takes + 1, minutes });
  }
  const map = noteMap(ever, instrument, now);
  const breaks = seamMap(ever, instrument, limits, now);
  const exercises = [...titles.values()].sort((a, b) => b.minutes - a.minutes);
  return {
    takes: played.length,
    sittings: new Set(played.map(({ sitting }) => sitting)).size,
    minutes: exercises.reduce((sum, { minutes }) => sum + minutes, 0),
    exercises,
    turns: turnsOf(ever, instrument, limits).filter(({ day }) => day >= since),
    seams: breaks
      .flatMap(({ seams }) => seams)
      .filter(({ state }) => state !== 'few')
      .sort((a, b) => a.reliability.share.value - b.reliability.share.value),
    problems: problemNotes(map, limits.centreCents),
    notes: map.notes,
    breaks,
    moved: followedTrends(played).filter(({ verdict }) => verdict === 'better' || verdict === 'worse'),
    remarks: played.flatMap(({ entry, day }) =>
      entry.remark ? [{ day, title: entry.title, text: entry.remark }] : [],
    ),
    places: placesIn(played, limits),
  };
}

/** The latest slur that opened, the latest that held, and what was remarked upon: of takes whose sound is there. */
export function placesIn(played: readonly Played[], limits: Limits): ReportPlace[] {
  const sounding = played.filter(({ entry }) => entry.audioBytes > 0);
  const crossed = crossedIn(sounding, limits);
  const around = (found: Crossed | undefined, kind: 'opened' | 'held'): ReportPlace[] => {
    if (!found) return [];
    const { atSeconds } = found.crossing;
    return [
      {
        takeId: found.take.entry.id,
        fromSeconds: Math.max(0, atSeconds - BEFORE),
        toSeconds: atSeconds + AFTER,
        why: { kind, crossed: found },
      },
    ];
  };
  const remarked = sounding.filter(({ entry }) => entry.remark !== '').reverse();
  const others = [...remarked, ...[...sounding].reverse()].map(({ entry }): ReportPlace => ({
    takeId: entry.id,
    fromSeconds: 0,
    toSeconds: Math.min(BEGINNING, entry.durationSeconds),
    why: { kind: 'remark', crossed: null },
  }));
  const all = [
    ...around(
      crossed.findLast(({ clean }) => !clean),
      'opened',
    ),
    ...around(
      crossed.findLast(({ clean }) => clean),
      'held',
    ),
    ...others,
  ];
  const once = all.filter(
    (place, i) => place.why.kind !== 'remark' || all.findIndex(({ takeId }) => takeId === place.takeId) === i,
  );
  return once.slice(0, MOST_PLACES);
}
