import { type Cents, type Estimate, type Midi, type Seconds, studentT, weighted } from '@/core/base';
import { tendenciesOf, writtenRange, type Instrument } from '@/core/instruments';
import type { NoteCell } from './cells';
import { lengthsOf, shiftOf, usualOf, type Usual } from './normal';
import type { Loudness, Played } from './played';

/** A take of so many days ago counts half. */
const HALF_LIFE_DAYS = 45;
/** The shipped guess counts as much as so many takes of today. */
const GUESS_TAKES = 3;
/** How far a note varies from sitting to sitting where too few were heard to tell, and how many sittings that counts as. */
const USUAL_VARIANCE = 6 ** 2;
const USUAL_SITTINGS = 4;

/** Where one written note lies. */
export interface MappedNote {
  readonly written: Midi;
  /** What is shipped as usual for the instrument. */
  readonly guess: Cents;
  /** Heard and guess together: the mean of the takes, drawn to the guess while they are few. */
  readonly centre: Cents;
  /** Heard alone, with the interval that its centre lies in 19 times of 20; null: not heard. */
  readonly heard: Estimate | null;
  /** Standard deviation from take to take; null: of fewer than two. */
  readonly spread: Cents | null;
  readonly wobble: Cents | null;
  readonly takes: number;
  readonly sittings: number;
  readonly seconds: Seconds;
  /** Weight of what was heard against the guess, 0 … 1. */
  readonly certainty: number;
  readonly lastDay: number | null;
}

export interface NoteMap {
  /** Every note of the instrument, low to high. */
  readonly notes: readonly MappedNote[];
  readonly usual: Usual;
}

/** What one take told of one note, slide and temperature taken off. */
export interface NoteReading {
  readonly take: Played;
  readonly cents: Cents;
  readonly n: number;
  readonly seconds: Seconds;
  readonly wobble: Cents | null;
  readonly levelDb: number | null;
}

/** Readings of each written note, take by take, oldest first. */
export function readingsOf(
  played: readonly Played[],
  instrument: Instrument,
  usual: Usual,
): Map<Midi, NoteReading[]> {
  const lengthOf = lengthsOf(instrument, usual);
  const byNote = new Map<Midi, NoteReading[]>();
  for (const take of played) {
    const sums = new Map<Midi, Sums>();
    for (const cell of take.notes) {
      const sum = sums.get(cell.written);
      if (sum) addTo(sum, cell);
      else sums.set(cell.written, addTo({ n: 0, cents: 0, seconds: 0, wobble: [0, 0], level: [0, 0] }, cell));
    }
    for (const [written, { n, cents, seconds, wobble, level }] of sums) {
      const reading: NoteReading = {
        take,
        cents: cents / n - shiftOf(take, usual, lengthOf(written)),
        n,
        seconds,
        wobble: wobble[1] === 0 ? null : wobble[0] / wobble[1],
        levelDb: level[1] === 0 ? null : level[0] / level[1],
      };
      const before = byNote.get(written);
      if (before) before.push(reading);
      else byNote.set(written, [reading]);
    }
  }
  return byNote;
}

/** Of one note in one take: sums, and sums with counts where some are unknown. */
interface Sums {
  n: number;
  cents: number;
  seconds: number;
  readonly wobble: [sum: number, count: number];
  readonly level: [sum: number, count: number];
}

function addTo(sums: Sums, { n, cents, seconds, wobbleCents, levelDb }: NoteCell): Sums {
  sums.n += n;
  sums.cents += n * cents;
  sums.seconds += seconds;
  if (wobbleCents !== null) {
    sums.wobble[0] += wobbleCents;
    sums.wobble[1]++;
  }
  if (levelDb !== null) {
    sums.level[0] += levelDb;
    sums.level[1]++;
  }
  return sums;
}

/** Sittings in place of takes: what is so on one day is so for all its takes, which are not as many witnesses. */
function bySitting(readings: readonly NoteReading[], now: number) {
  const values: number[] = [];
  const weights: number[] = [];
  for (let i = 0; i < readings.length;) {
    const { sitting } = readings[i]!.take;
    let [count, cents, weight] = [0, 0, 0];
    for (; readings[i]?.take.sitting === sitting; i++) {
      count++;
      cents += readings[i]!.cents;
      weight += ageWeight(readings[i]!.take.day, now);
    }
    values.push(cents / count);
    weights.push(weight);
  }
  return weighted(values, weights);
}

const ageWeight = (day: number, now: number) => 0.5 ** (Math.max(0, now - day) / HALF_LIFE_DAYS);

/** @param loudness of the guess: what the played takes were, if they were one. @param now in days. */
export function noteMap(
  played: readonly Played[],
  instrument: Instrument,
  now: number,
  loudness: Loudness | null = null,
  usual: Usual = usualOf(played),
): NoteMap {
  const readings = readingsOf(played, instrument, usual);
  const sat = new Map([...readings].map(([written, each]) => [written, bySitting(each, now)]));
  // The notes of one player vary alike: each borrows from all of them what it is too young to know (Smyth 2004).
  const known = [...sat.values()].flatMap(({ variance, effective }) =>
    variance === null ? [] : [{ variance, freedom: effective - 1 }],
  );
  const freedom = known.reduce((sum, each) => sum + each.freedom, 0) + USUAL_SITTINGS;
  const common =
    known.reduce((sum, each) => sum + each.freedom * each.variance, USUAL_SITTINGS * USUAL_VARIANCE) /
    freedom;
  const { low, high } = writtenRange(instrument);
  const notes: MappedNote[] = [];
  for (let written = low; written <= high; written += instrument.step) {
    const guess = tendenciesOf(
      instrument,
      written,
      loudness === null || loudness === 'medium' ? 'any' : loudness,
    ).reduce((sum, { cents }) => sum + cents, 0);
    const here = readings.get(written);
    notes.push(
      here
        ? heardNote(written, guess, here, sat.get(written)!, common, now)
        : {
            written,
            guess,
            centre: guess,
            heard: null,
            spread: null,
            wobble: null,
            takes: 0,
            sittings: 0,
            seconds: 0,
            certainty: 0,
            lastDay: null,
          },
    );
  }
  return { notes, usual };
}

function heardNote(
  written: Midi,
  guess: Cents,
  readings: readonly NoteReading[],
  sat: ReturnType<typeof weighted>,
  common: number,
  now: number,
): MappedNote {
  const takes = weighted(
    readings.map(({ cents }) => cents),
    readings.map(({ take }) => ageWeight(take.day, now)),
  );
  const own = Math.max(0, sat.effective - 1);
  const freedom = own + USUAL_SITTINGS;
  const variance = (own * (sat.variance ?? 0) + USUAL_SITTINGS * common) / freedom;
  const reach = studentT(freedom) * Math.sqrt(variance / sat.effective);
  const certainty = takes.weight / (takes.weight + GUESS_TAKES);
  const wobbles = readings.flatMap(({ wobble }) => wobble ?? []);
  return {
    written,
    guess,
    centre: certainty * takes.mean + (1 - certainty) * guess,
    heard: { value: takes.mean, low: takes.mean - reach, high: takes.mean + reach },
    spread: takes.variance === null ? null : Math.sqrt(takes.variance),
    wobble: wobbles.length === 0 ? null : wobbles.reduce((a, b) => a + b, 0) / wobbles.length,
    takes: readings.length,
    sittings: new Set(readings.map(({ take }) => take.sitting)).size,
    seconds: readings.reduce((sum, { seconds }) => sum + seconds, 0),
    certainty,
    lastDay: readings[readings.length - 1]!.take.day,
  };
}

/** A note that is a problem, and why. */
export interface ProblemNote {
  readonly note: MappedNote;
  readonly why: 'high' | 'low' | 'wanders';
  /** Whether its whole interval is beyond the limit. */
  readonly sure: boolean;
}

/** Notes further off than the player's limit, or wandering further, the worst first; of what was heard only. */
export function problemNotes({ notes }: NoteMap, limit: Cents): ProblemNote[] {
  const beyond = notes.flatMap((note): (ProblemNote & { by: number })[] => {
    if (note.heard === null) return [];
    const { heard, centre, spread } = note;
    const why = centre < 0 ? 'low' : 'high';
    if (Math.abs(centre) > limit)
      return [{ note, why, sure: heard.low > limit || heard.high < -limit, by: Math.abs(centre) / limit }];
    // Twice the limit from take to take: neither the ear nor a slide can be set to it.
    return spread !== null && note.takes >= 4 && spread > 2 * limit
      ? [{ note, why: 'wanders', sure: false, by: spread / (2 * limit) }]
      : [];
  });
  return beyond
    .sort((a, b) => Number(b.sure) - Number(a.sure) || b.by - a.by)
    .map(({ note, why, sure }) => ({ note, why, sure }));
}
