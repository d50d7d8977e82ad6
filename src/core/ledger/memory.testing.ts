import { DAY_MS, Random } from '@/core/base';
import type { Dynamic } from '@/core/music';
import type { NoteCell } from './cells';
import type { Crossing } from './crossing';
import type { Entry } from './entry';
import { playedOf, type Played } from './played';

const START = Date.UTC(2026, 0, 5, 18);

/** A row of a take of some day; what is not told is as usual. */
export function rowOf(day: number, part: Partial<Entry> = {}): Entry {
  return {
    id: `take-${day.toFixed(4)}`,
    createdAt: new Date(START + day * DAY_MS).toISOString(),
    durationSeconds: 60,
    family: 'octave-slurs',
    title: 'Octave slurs',
    parameters: {},
    tempo: 60,
    instrumentId: 'flute',
    instrumentName: 'flute',
    headline: '',
    figures: {},
    faults: {},
    spark: null,
    heard: [],
    exploring: false,
    cue: null,
    school: null,
    reed: '',
    room: '',
    a4: 440,
    slideMm: null,
    temperatureC: null,
    warmth: null,
    source: 'simulated',
    remark: '',
    audioBytes: 0,
    measuredBy: 1,
    ...part,
  };
}

/** The day that rows count from. */
export const START_DAY = START / DAY_MS;

export function cellOf(written: number, cents: number, part: Partial<NoteCell> = {}): NoteCell {
  const dynamic: Dynamic = 'mf';
  return {
    written,
    dynamic,
    from: 0,
    slurred: false,
    n: 1,
    seconds: 2,
    cents,
    wobbleCents: 2,
    levelDb: -20,
    ...part,
  };
}

export function slurOf(from: number, to: number, clean: boolean, part: Partial<Crossing> = {}): Crossing {
  return {
    from,
    to,
    dynamic: 'mf',
    atSeconds: 1,
    heard: true,
    cracked: !clean,
    crackedBy: clean ? null : 'break-down',
    spreadDb: 0,
    dipDb: 1,
    bumpDb: 0,
    slurMs: 60,
    overshootCents: 5,
    stepDb: 1,
    intervalCents: 2,
    ...part,
  };
}

export interface SimulatedTake {
  readonly day: number;
  readonly row?: Partial<Entry>;
  readonly notes?: readonly NoteCell[];
  readonly crossings?: readonly Crossing[];
}

/** Takes as the ledger would bring them together. */
export function rememberedOf(takes: readonly SimulatedTake[]): Played[] {
  const rows = takes.map(({ day, row }, i) => rowOf(day, { id: `take-${i}`, ...row }));
  return playedOf(rows, {}).map((played) => {
    const { notes = [], crossings = [] } = takes[rows.indexOf(played.entry)]!;
    return { ...played, notes, crossings };
  });
}

/** Eight weeks, three sittings each, of a player whose notes and seams are known. */
export function eightWeeks(random: Random, take: (day: number) => Omit<SimulatedTake, 'day'>): Played[] {
  return rememberedOf(
    Array.from({ length: 24 }, (_, i) => {
      const day = (i * 7) / 3 + 0.02 * random.next();
      return { day, ...take(day) };
    }),
  );
}

/** For tests: the share of runs in which something was so. */
export function share(runs: number, of: (random: Random) => boolean): number {
  let count = 0;
  for (let seed = 0; seed < runs; seed++) if (of(new Random(seed))) count++;
  return count / runs;
}
