import { groups, rollup } from 'd3-array';
import type { Midi } from '@/core/base';
import { seamsOf, type Break, type Instrument } from '@/core/instruments';
import {
  isClean,
  noteMap,
  problemNotes,
  SeamFollowing,
  type Crossing,
  type Entry,
  type Played,
  type ProblemNote,
} from '@/core/ledger';
import { FAULT_KINDS, type FaultKind, type Limits } from '@/core/verdict';
import type { CivilDay } from './wishes';

/** One way over a break: the two notes, and how they hold. */
export interface SeamStanding {
  readonly from: Midi;
  readonly to: Midi;
  /** Share of clean crossings, those of late weighing more. */
  readonly share: number;
  readonly clean: number;
  readonly of: number;
  /** Within the last weeks. */
  readonly lately: { readonly clean: number; readonly of: number };
  /** Of the last day it was played. */
  readonly last: { readonly day: CivilDay; readonly clean: number; readonly of: number };
  /** Days in a row, up to the last, on which it held. */
  readonly held: number;
}

/** A break with the ways over it, the weakest first. */
export interface BreakStanding extends Break {
  readonly seams: readonly SeamStanding[];
  /** Of all that was slurred over it. */
  readonly share: number;
  readonly of: number;
  readonly lastDay: CivilDay | null;
  readonly held: number;
  /** Days that it was practised on. */
  readonly times: number;
}

/** How an exercise goes. */
export interface SkillStanding {
  readonly family: string;
  readonly times: number;
  readonly lastDay: CivilDay;
  /** Of the last takes, those in which something was found; what was found in most of them, and in how many. */
  readonly troubled: number;
  readonly of: number;
  readonly fault: { readonly kind: FaultKind; readonly takes: number } | null;
  /** Takes in a row, up to the last, in which nothing was found. */
  readonly held: number;
  readonly last: Pick<Entry, 'parameters' | 'tempo'>;
}

/** What a plan is made from: where the player stands today. */
export interface Standing {
  readonly today: CivilDay;
  readonly breaks: readonly BreakStanding[];
  readonly skills: ReadonlyMap<string, SkillStanding>;
  readonly notes: readonly ProblemNote[];
  /** Days that were practised on, oldest first. */
  readonly daysPlayed: readonly CivilDay[];
  /** What was played yesterday, or the day before that: its exercises as `setKey` tells them apart. */
  readonly lastSets: ReadonlySet<string>;
  /** Drills with a tempo of their own, by `drillKey`: how fast, and how it went. */
  readonly tempos: ReadonlyMap<
    string,
    { readonly tempo: number; readonly went: 'clean' | 'open' | 'between' }
  >;
}

/** Where the player is: the calendar day, and how far its clock is from UTC. */
export interface Calendar {
  readonly today: CivilDay;
  /** Of the clock there against UTC, in days. */
  readonly offsetDays: number;
}

/** Share of a day's crossings that counts as having held. */
const HELD = 0.85;
/** Takes of an exercise that are looked back at. */
const TAKES_BACK = 3;
/** Older takes say little of today, and would be long to read. */
const DAYS_BACK = 120;
const LATELY_DAYS = 21;
const SAME_DAYS = 2;
/** A crossing or a take of the drill is asked for so many clean ones in a row before it goes faster. */
const IN_A_ROW = 5;
const OPEN_SHARE = 1 / 3;

interface DayOfCrossings {
  readonly day: CivilDay;
  clean: number;
  of: number;
}

function standingOf(days: readonly DayOfCrossings[]): { held: number; times: number } {
  let held = 0;
  for (const { clean, of } of [...days].reverse()) {
    if (clean / of < HELD) break;
    held++;
  }
  return { held, times: days.length };
}

/** What a drill is told from others by, where each has a tempo of its own. */
export const drillKey = (family: string, values: Readonly<Record<string, unknown>>): string =>
  ['from', 'to', 'key', 'scale', 'phrase', 'form'].reduce((key, name) => {
    const value = values[name];
    // Before there were scales to choose from, all was major.
    return value === undefined || (name === 'scale' && value === 'major')
      ? key
      : `${key}/${JSON.stringify(value)}`;
  }, family);

/** What makes two playings of an exercise the same drill: its family and which notes it has. */
export const drillOf = ({ family, parameters }: Pick<Entry, 'family' | 'parameters'>): string =>
  drillKey(family, parameters);

/** What of an exercise decides which notes it has. */
const NOTE_FIELDS = [
  'from',
  'to',
  'range',
  'note',
  'anchor',
  'reference',
  'problem',
  'key',
  'scale',
  'low',
  'drone',
  'root',
];

/** Exercises with the same key have the same notes; a slur has those of the slur back. */
export function setKey(family: string, values: Readonly<Record<string, unknown>>): string {
  const { from, to } = values;
  const turned = typeof from === 'number' && typeof to === 'number' && from > to;
  const same = turned ? { ...values, from: to, to: from } : values;
  return [family, ...NOTE_FIELDS.map((name) => JSON.stringify(same[name] ?? null))].join('/');
}

/** @param played of one instrument, oldest first. @param now days since 1970, with the time of day. */
export function standing(
  played: readonly Played[],
  instrument: Instrument,
  limits: Limits,
  now: number,
  { today, offsetDays }: Calendar,
): Standing {
  const civil = (take: Played) => Math.floor(take.day + offsetDays);
  const late = played.filter(({ day }) => now - day < DAYS_BACK);
  const daysPlayed = [...new Set(late.map(civil))];
  return {
    today,
    breaks: breakStandings(late, instrument, limits, now, civil),
    skills: skillStandings(late, civil),
    notes: problemNotes(noteMap(late, instrument, now), limits.centreCents),
    daysPlayed,
    lastSets: lastSetsOf(played, daysPlayed, { today, offsetDays }),
    tempos: temposOf(late, limits),
  };
}

/** The same seen from another day, by what was heard until now. @param played that it was found in. */
export const seenFrom = (stands: Standing, played: readonly Played[], calendar: Calendar): Standing => ({
  ...stands,
  today: calendar.today,
  lastSets: lastSetsOf(played, stands.daysPlayed, calendar),
});

function lastSetsOf(
  played: readonly Played[],
  daysPlayed: readonly CivilDay[],
  { today, offsetDays }: Calendar,
): Set<string> {
  // What was played longer ago than this is nothing that one does every day.
  const lastDay = daysPlayed.findLast((day) => day < today && day >= today - SAME_DAYS);
  return new Set(
    played
      .filter(({ day }) => Math.floor(day + offsetDays) === lastDay)
      .map(({ entry: { family, parameters } }) => setKey(family, parameters)),
  );
}

function breakStandings(
  played: readonly Played[],
  instrument: Instrument,
  limits: Limits,
  now: number,
  civil: (take: Played) => CivilDay,
): BreakStanding[] {
  const places = seamsOf(instrument);
  const over = places.map(() => ({ all: new Slurs(), pairs: [] as Slurs[] }));
  // Where two notes lie is asked once, and not for each of their many slurs.
  const known = new Map<number, readonly Slurs[]>();
  const countedIn = ({ from, to }: Crossing): readonly Slurs[] => {
    const key = (from * 256 + to) * 2;
    const before = known.get(key);
    if (before) return before;
    const lies = places.flatMap(({ above }, i) =>
      Math.min(from, to) < above && Math.max(from, to) >= above ? [over[i]!] : [],
    );
    const [at] = lies.length === 1 ? lies : [];
    const pair = new Slurs({ from, to });
    at?.pairs.push(pair);
    const found = at ? [at.all, pair] : [];
    known.set(key, found);
    return found;
  };
  for (const take of played) {
    const day = civil(take);
    for (const crossing of take.crossings) {
      const slurs = countedIn(crossing);
      const clean = slurs.length === 0 ? null : isClean(crossing, limits);
      if (clean !== null) for (const each of slurs) each.add(clean, take, day);
    }
  }
  return places.map((place, i) => {
    const { all, pairs } = over[i]!;
    const seams = pairs
      .filter(({ of }) => of > 0)
      .map((pair) => pair.seam(now))
      .sort((a, b) => a.share - b.share);
    const { held, times } = standingOf(all.days);
    return {
      ...place,
      seams,
      share: all.share(now),
      of: all.of,
      lastDay: all.days.at(-1)?.day ?? null,
      held,
      times,
    };
  });
}

/** Slurs over one place as they are counted through. */
class Slurs {
  private readonly following = new SeamFollowing();
  readonly days: DayOfCrossings[] = [];
  private clean = 0;
  of = 0;

  constructor(private readonly crossing: Pick<Crossing, 'from' | 'to'> = { from: 0, to: 0 }) {}

  add(clean: boolean, { entry: { id }, day }: Played, civil: CivilDay): void {
    this.following.add({ clean, day, take: id });
    let last = this.days.at(-1);
    if (last?.day !== civil) this.days.push((last = { day: civil, clean: 0, of: 0 }));
    last.of++;
    this.of++;
    if (!clean) return;
    last.clean++;
    this.clean++;
  }

  share(now: number): number {
    return this.of === 0 ? 0 : this.following.at(now).share.value;
  }

  seam(now: number): SeamStanding {
    const { from, to } = this.crossing;
    const last = this.days[this.days.length - 1]!;
    const late = this.days.filter(({ day }) => now - day <= LATELY_DAYS);
    return {
      from,
      to,
      share: this.share(now),
      clean: this.clean,
      of: this.of,
      lately: {
        clean: late.reduce((sum, { clean }) => sum + clean, 0),
        of: late.reduce((sum, { of }) => sum + of, 0),
      },
      last: { ...last },
      held: standingOf(this.days).held,
    };
  }
}

function skillStandings(
  played: readonly Played[],
  civil: (take: Played) => CivilDay,
): Map<string, SkillStanding> {
  return rollup(
    played,
    (takes): SkillStanding => {
      const late = takes.slice(-TAKES_BACK);
      const counts = new Map<string, number>();
      for (const { entry } of late)
        for (const kind of Object.keys(entry.faults)) counts.set(kind, (counts.get(kind) ?? 0) + 1);
      const [most] = [...counts].sort(([a, n], [b, m]) => m - n || (a < b ? -1 : 1));
      const kind = FAULT_KINDS.find((each) => each === most?.[0]);
      const isTroubled = ({ entry }: Played) => Object.keys(entry.faults).length > 0;
      const last = takes[takes.length - 1]!;
      const lastTroubled = takes.findLastIndex(isTroubled);
      return {
        family: last.entry.family,
        times: takes.length,
        lastDay: civil(last),
        troubled: late.filter(isTroubled).length,
        of: late.length,
        fault: kind && most ? { kind, takes: most[1] } : null,
        held: takes.length - 1 - lastTroubled,
        last: { parameters: last.entry.parameters, tempo: last.entry.tempo },
      };
    },
    ({ entry }) => entry.family,
  );
}

/** How the last take of each drill with a tempo went: by its slurs where it has some, else by what was found. */
function temposOf(played: readonly Played[], limits: Limits): Standing['tempos'] {
  const withTempo = played.filter(({ entry }) => entry.tempo !== null && !entry.exploring);
  return new Map(
    groups(withTempo, ({ entry }) => drillKey(entry.family, entry.parameters)).map(([key, takes]) => {
      const { entry, crossings } = takes[takes.length - 1]!;
      const told = crossings.map((crossing) => isClean(crossing, limits)).filter((clean) => clean !== null);
      const open = told.filter((clean) => !clean).length;
      const went =
        told.length >= IN_A_ROW
          ? open === 0
            ? 'clean'
            : open / told.length > OPEN_SHARE
              ? 'open'
              : 'between'
          : Object.keys(entry.faults).length === 0
            ? 'clean'
            : 'between';
      return [key, { tempo: entry.tempo!, went }] as const;
    }),
  );
}
