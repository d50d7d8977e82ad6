import { mean, variance } from 'd3-array';
import { type Estimate, type Seconds, studentT } from '@/core/base';
import { findFamily, type FamilyId } from '@/core/music';
import type { Played } from '@/core/ledger';
import type { Instrument } from '@/core/instruments';
import { FIGURES, type FigureId } from '@/core/verdict';
import { DRILLS, SEAM_DRILLS, turnOf, type Turn } from './drills';
import { seamPriority, weakestOf } from './due';
import type { Offer } from './offers';
import type { RunningProgramme } from './planFor';
import type { Calendar, Standing } from './standing';
import { civilDay, type CivilDay, type Wishes } from './wishes';

/** Some weeks for one thing, with an end, and measured in the same way before and after. */
export interface Programme {
  readonly id: string;
  readonly title: string;
  /** What it is for, and what it asks. */
  readonly about: string;
  /** How long it lasts; `event`: until the day that the player gets ready for. */
  readonly days: number | 'event';
  readonly seconds: Seconds;
  /** What is practised, and what is measured of it at both ends. */
  readonly family: FamilyId;
  readonly figure: FigureId;
  readonly better: 'more' | 'less' | 'zero';
}

/** A row each. */
export const PROGRAMMES: readonly Programme[] = [
  {
    id: 'top',
    title: 'Two weeks of the top',
    about: 'From the last comfortable note to each one above, four minutes a day, then it stops.',
    days: 14,
    seconds: 220,
    family: 'altissimo-pairs',
    figure: 'slurs-clean',
    better: 'more',
  },
  {
    id: 'holds',
    title: 'Two months of holds',
    about:
      'The bottom notes, held as long as they stay pure. The figure moves slowly: give it its two months.',
    days: 56,
    seconds: 240,
    family: 'long-hold',
    figure: 'best-hold',
    better: 'more',
  },
  {
    id: 'break',
    title: 'A month for the break',
    about: 'The slur that holds least, alone and slowly, five minutes a day.',
    days: 28,
    seconds: 300,
    family: 'just-this-seam',
    figure: 'slurs-clean',
    better: 'more',
  },
  {
    id: 'endings',
    title: 'Soft endings',
    about: 'Notes that fade to nothing, with the pitch watched, four minutes a day for four weeks.',
    days: 28,
    seconds: 240,
    family: 'tapers',
    figure: 'pitch-per-level',
    better: 'zero',
  },
  {
    id: 'event',
    title: 'Ready for the day',
    about:
      'A tune from its first note to its last before the work of the day, as on the day itself: whatever comes is played through. Its slurs are counted.',
    days: 'event',
    seconds: 240,
    family: 'melody',
    figure: 'slurs-clean',
    better: 'more',
  },
];

/** The programme of an id; undefined where this version has none. */
export const findProgramme = (id: string): Programme | undefined => PROGRAMMES.find((each) => each.id === id);

/** Days at both ends on which it is measured, always in the same way. */
const MEASURED_DAYS = 4;

/** An event nearer than this leaves no time to measure twice and to practise in between. */
const LEAST_DAYS = 2 * MEASURED_DAYS + 2;

/** How many days a programme lasts; null: until an event that there is none of. */
export function lengthOf({ id, startedOn }: RunningProgramme, { event }: Wishes): number | null {
  const days = findProgramme(id)?.days ?? null;
  if (days !== 'event') return days;
  return event && civilDay(event.date) > startedOn ? civilDay(event.date) - startedOn : null;
}

/** Which day of a programme it is, from 1; null: it has not begun, or is over. */
export function dayOfProgramme(running: RunningProgramme, wishes: Wishes, day: CivilDay): number | null {
  const days = lengthOf(running, wishes);
  const at = day - running.startedOn + 1;
  return days !== null && at >= 1 && at <= days ? at : null;
}

/** The block of a programme on a day; null: none. */
export function programmeOffer(
  running: RunningProgramme,
  turn: Turn,
  { breaks }: Standing,
  wishes: Wishes,
  day: CivilDay,
): { pick: Offer; seconds: Seconds } | null {
  const programme = findProgramme(running.id);
  const total = lengthOf(running, wishes);
  const at = dayOfProgramme(running, wishes, day);
  if (
    !programme ||
    at === null ||
    total === null ||
    findFamily(programme.family)?.unfit(turn.instrument) !== null
  )
    return null;
  const measures = at <= MEASURED_DAYS || at > total - MEASURED_DAYS;
  // Measured with the same notes at the same loudness, or before and after could not be compared.
  const with_ = measures ? turnOf(turn.instrument, turn.level, 0, { easy: 0, hard: 3 }, null) : turn;
  const seam = SEAM_DRILLS.find(({ family }) => family === programme.family);
  const drill = DRILLS.find(({ family }) => family === programme.family);
  const place = [...breaks]
    .filter(({ above }) => above <= turn.comfort.high || programme.id === 'top')
    .sort((a, b) =>
      programme.id === 'top'
        ? b.above - a.above
        : measures
          ? a.above - b.above
          : seamPriority(b, day) - seamPriority(a, day),
    )[0];
  const weakest = place && !measures ? weakestOf(place) : null;
  const values = (size: number) =>
    seam && place
      ? seam.values(
          with_,
          { ...place, from: weakest?.from ?? place.below, to: weakest?.to ?? place.above },
          measures ? 1 : size,
        )
      : (drill?.values(with_, measures ? 1 : size) ?? null);
  return {
    pick: {
      family: programme.family,
      values,
      why: { of: 'programme', title: programme.title, day: at, total },
    },
    seconds: programme.seconds,
  };
}

/** What a programme has changed so far, by the days on which it is measured. */
export interface ProgrammeOutcome {
  readonly before: number | null;
  readonly after: number | null;
  /** After less before, with the interval that the truth lies in 19 times of 20; null: too little was measured. */
  readonly change: Estimate | null;
  readonly verdict: 'better' | 'worse' | 'no-change' | 'unknown';
  readonly unit: string;
  readonly decimals: number;
  readonly label: string;
}

const LEAST_MEASURED = 3;

/** Means at both ends against each other, without assuming that they vary alike (Welch 1947). */
export function outcomeOf(
  running: RunningProgramme,
  played: readonly Played[],
  wishes: Wishes,
  { offsetDays }: Pick<Calendar, 'offsetDays'>,
): ProgrammeOutcome | null {
  const programme = findProgramme(running.id);
  const days = lengthOf(running, wishes);
  if (!programme || days === null) return null;
  const { startedOn } = running;
  const { figure, family, better } = programme;
  const asShare = figure === 'slurs-clean';
  const readings = (from: CivilDay, until: CivilDay) =>
    played.flatMap(({ entry, day }) => {
      const at = Math.floor(day + offsetDays);
      const found = entry.family === family && at >= from && at < until ? entry.figures[figure] : undefined;
      if (!found) return [];
      const [value, , , of] = found;
      if (!asShare) return [value];
      return of ? [(100 * value) / of] : [];
    });
  const before = readings(startedOn, startedOn + MEASURED_DAYS);
  const after = readings(startedOn + days - MEASURED_DAYS, startedOn + days + 1);
  const change = welch(before, after);
  const { label, unit, decimals } = FIGURES[figure];
  const told = { label, unit: asShare ? '% clean' : unit, decimals: asShare ? 0 : decimals };
  const means = { before: mean(before) ?? null, after: mean(after) ?? null };
  if (!change) return { ...means, change, verdict: 'unknown', ...told };
  const moved = change.low > 0 || change.high < 0;
  const nearer = Math.abs(means.after!) < Math.abs(means.before!);
  const good = better === 'zero' ? nearer : change.value > 0 === (better === 'more');
  return { ...means, change, verdict: moved ? (good ? 'better' : 'worse') : 'no-change', ...told };
}

function welch(before: readonly number[], after: readonly number[]): Estimate | null {
  if (before.length < LEAST_MEASURED || after.length < LEAST_MEASURED) return null;
  const parts = [before, after].map((values) => (variance(values) ?? 0) / values.length);
  const error = Math.sqrt(parts[0]! + parts[1]!);
  const value = mean(after)! - mean(before)!;
  if (error === 0) return { value, low: value, high: value };
  const degrees =
    (parts[0]! + parts[1]!) ** 2 /
    (parts[0]! ** 2 / (before.length - 1) + parts[1]! ** 2 / (after.length - 1));
  const reach = studentT(Math.max(2, Math.floor(degrees))) * error;
  return { value, low: value - reach, high: value + reach };
}

/** Programmes that an instrument can have from today on. */
export const programmesFor = (
  instrument: Instrument,
  { event }: Wishes,
  today: CivilDay,
): readonly Programme[] =>
  PROGRAMMES.filter(
    ({ family, days }) =>
      findFamily(family)?.unfit(instrument) === null &&
      (days !== 'event' || (event !== null && civilDay(event.date) - today >= LEAST_DAYS)),
  );
