import { ascending } from 'd3-array';
import { DAY_MS, DAY_SECONDS } from '@/core/base';
import type { Dynamic } from '@/core/music';
import { unpacked, type NoteCell, type PackedCells } from './cells';
import type { Crossing } from './crossing';
import type { Entry } from './entry';

/** One take as it is remembered: its row, and what it told of notes and slurs. */
export interface Played {
  readonly entry: Entry;
  /** When, in days since 1970: a number to count with. */
  readonly day: number;
  /** Takes without a long pause between them have one number: what was so on one day is so for all of them. */
  readonly sitting: number;
  /** Since the first take of its sitting. */
  readonly minutesIn: number;
  readonly notes: readonly NoteCell[];
  readonly crossings: readonly Crossing[];
}

const MINUTES_A_DAY = 1440;
/** A longer pause begins a new sitting; calendar days would cut an evening in two somewhere on earth. */
const PAUSE_MINUTES = 180;

/** Time of an ISO date in days since 1970, with their fraction. */
export const dayOf = (createdAt: string): number => Date.parse(createdAt) / DAY_MS;

/** Days by which clocks of devices may differ. */
const AHEAD_DAYS = 1;

/**
 * Rows and cells of an instrument brought together, oldest first. Takes without cells are there too: they have figures.
 * @param until today, in days since 1970: what a clock that was wrong dated later was played by today, and makes nothing else old.
 */
export function playedOf(
  entries: readonly Entry[],
  cells: Readonly<Record<string, PackedCells>>,
  until = Infinity,
): readonly Played[] {
  let [sitting, began, ended] = [-1, 0, -Infinity];
  return [...entries]
    .sort((a, b) => ascending(a.createdAt, b.createdAt) || ascending(a.id, b.id))
    .map((entry) => {
      const told = dayOf(entry.createdAt);
      const day = told > until + AHEAD_DAYS ? Math.max(until, ended) : told;
      if ((day - ended) * MINUTES_A_DAY > PAUSE_MINUTES) {
        sitting++;
        began = day;
      }
      ended = day + entry.durationSeconds / DAY_SECONDS;
      const packed = cells[entry.id];
      const { notes, crossings } = packed ? unpacked(packed) : { notes: [], crossings: [] };
      return { entry, day, sitting, minutesIn: (day - began) * MINUTES_A_DAY, notes, crossings };
    });
}

/** The three loudnesses that the map tells apart. */
export const LOUDNESSES = ['soft', 'medium', 'loud'] as const;
export type Loudness = (typeof LOUDNESSES)[number];

/** Which of the three a written dynamic counts as. */
export const loudnessOf = (dynamic: Dynamic): Loudness =>
  dynamic === 'pp' || dynamic === 'p' ? 'soft' : dynamic === 'f' || dynamic === 'ff' ? 'loud' : 'medium';

/** What of all that was played is looked at. Null: whatever it was. */
export interface Lens {
  /** Not before this day. */
  readonly since: number | null;
  readonly until: number | null;
  readonly loudness: Loudness | null;
  readonly come: 'tongued' | 'slurred' | null;
  readonly direction: 'up' | 'down' | null;
  readonly reed: string | null;
  readonly cue: string | null;
  readonly room: string | null;
  readonly warmth: Entry['warmth'];
}

export const EVERYTHING: Lens = {
  since: null,
  until: null,
  loudness: null,
  come: null,
  direction: null,
  reed: null,
  cue: null,
  room: null,
  warmth: null,
};

const asked = <T>(wanted: T | null, is: T | null): boolean => wanted === null || wanted === is;

/** What is left through a lens; takes that are left without anything stay, for their place in their sittings. */
export function through(played: readonly Played[], lens: Lens): readonly Played[] {
  const kept = played.filter(
    ({ entry, day }) =>
      (lens.since === null || day >= lens.since) &&
      (lens.until === null || day < lens.until) &&
      asked(lens.reed, entry.reed) &&
      asked(lens.cue, entry.cue) &&
      asked(lens.room, entry.room) &&
      asked(lens.warmth, entry.warmth),
  );
  const { loudness, come, direction } = lens;
  if (loudness === null && come === null && direction === null) return kept;
  const ways = { up: 1, down: -1 } as const;
  const way = direction === null ? null : ways[direction];
  return kept.map((take) => ({
    ...take,
    notes: take.notes.filter(
      ({ dynamic, slurred, from }) =>
        asked(loudness, loudnessOf(dynamic)) &&
        asked(come, slurred ? 'slurred' : 'tongued') &&
        asked(way, from as 1 | -1),
    ),
    crossings: take.crossings.filter(
      ({ dynamic, from, to }) =>
        asked(loudness, loudnessOf(dynamic)) && asked(way, Math.sign(to - from) as 1 | -1),
    ),
  }));
}

/** What can be chosen for a lens: whatever was told of the takes, most often told first. */
export function toldOf(played: readonly Played[], of: 'reed' | 'cue' | 'room'): string[] {
  const counts = new Map<string, number>();
  for (const { entry } of played) {
    const told = entry[of];
    if (told) counts.set(told, (counts.get(told) ?? 0) + 1);
  }
  return [...counts].sort(([, a], [, b]) => b - a).map(([told]) => told);
}
