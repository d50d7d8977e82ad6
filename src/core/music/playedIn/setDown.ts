import type { Seconds } from '@/core/base';
import type { ScoreNote } from '../score';

/** How what was played is counted. */
export interface Counting {
  /** Beats a minute. */
  readonly tempo: number;
  /** A beat has three parts, not two: it is a dotted crotchet. */
  readonly compound: boolean;
  /** It was played to a metronome, which does not give way. */
  readonly strict: boolean;
}

/** Where in a beat a note may begin, and how little that is to be expected. */
const PLACES: Readonly<Record<'simple' | 'compound', readonly (readonly [number, number])[]>> = {
  simple: [
    [0, 0],
    [1 / 2, 0.3],
    [1 / 4, 1],
    [3 / 4, 0.8],
    [1 / 3, 1.3],
    [2 / 3, 1.3],
  ],
  compound: [
    [0, 0],
    [1 / 3, 0.3],
    [2 / 3, 0.3],
    [1 / 6, 1.2],
    [1 / 2, 1],
    [5 / 6, 1.2],
  ],
};
/** Players miss a place by so much of a beat, and by so much of the way from the note before: they give way. */
const MISSED = 0.05;
const MISSED_OF_WAY = 0.07;
/** How soon the beat follows a player who gives way, per beat. */
const FOLLOWS = 0.3;
const LEAST_APART = 0.12;
/** Readings of the notes so far that are carried along (beam search). */
const CARRIED = 24;
/** What no reading accounts for costs no more than this a note. */
const MOST = 12;
/** Tempos that are tried where none was told, and the one that most things are counted at. */
const TEMPOS = { low: 40, high: 176, apart: 1.04, usual: 84 } as const;
/** How much an unusual tempo costs, beside the notes' own places. */
const UNUSUAL = 1.2;

/** A reading of the notes so far, the last first. */
interface Reading {
  /** Where the last note is written, in beats. */
  readonly at: number;
  /** Where a metronome says that it was: it does not forget what was missed. */
  readonly exact: number;
  readonly period: Seconds;
  readonly cost: number;
  readonly before: Reading | null;
}

const isThird = (at: number) => Math.abs(3 * at - Math.round(3 * at)) < 1e-9 && !Number.isInteger(at);
const isWhole = (at: number) => Math.abs(at - Math.round(at)) < 1e-9;

/** A beat is parted in one way: thirds and quarters are not mixed in it. */
const goTogether = (before: number, at: number): boolean =>
  Math.floor(before + 1e-9) !== Math.floor(at + 1e-9) || isWhole(before) || isThird(before) === isThird(at);

/** The readings that a note makes of one. @param apart from the note before. */
function readOn(reading: Reading, apart: Seconds, { compound, strict }: Counting): Reading[] {
  const exact = (strict ? reading.exact : reading.at) + apart / reading.period;
  const next: Reading[] = [];
  for (let whole = Math.floor(exact) - 1; whole <= Math.floor(exact) + 1; whole++)
    for (const [part, rare] of PLACES[compound ? 'compound' : 'simple']) {
      const at = whole + part;
      const way = at - reading.at;
      if (way < LEAST_APART || Math.abs(exact - at) > 0.6) continue;
      if (!compound && !goTogether(reading.at, at)) continue;
      const missed = strict ? 2 * MISSED : Math.hypot(MISSED, MISSED_OF_WAY * way);
      const cost = reading.cost + Math.min(MOST, ((exact - at) / missed) ** 2 + rare);
      const period = strict
        ? reading.period
        : reading.period + Math.min(0.5, FOLLOWS * way) * (apart / way - reading.period);
      next.push({ at, exact, period, cost, before: reading });
    }
  // Nearer than any place: it is written a little after, whatever it was.
  if (next.length === 0) {
    const at = Math.floor(reading.at + 1e-9) + 1;
    next.push({ ...reading, at, exact, cost: reading.cost + MOST, before: reading });
  }
  return next;
}

interface Followed {
  /** Where each begins, in beats; the first lies within the first beat. */
  readonly starts: readonly number[];
  /** Of a beat, at each of them. */
  readonly periods: readonly Seconds[];
  /** A note, how far from what is to be expected. */
  readonly cost: number;
}

/** Counts along with the beginnings of notes, wherever in its beat the first one may lie. */
function follow(onsets: readonly Seconds[], counting: Counting): Followed {
  const period = 60 / counting.tempo;
  let readings = PLACES[counting.compound ? 'compound' : 'simple'].map(([at, cost]): Reading => ({
    at,
    exact: at,
    period,
    cost,
    before: null,
  }));
  for (let i = 1; i < onsets.length; i++) {
    const apart = onsets[i]! - onsets[i - 1]!;
    readings = readings
      .flatMap((reading) => readOn(reading, apart, counting))
      .sort((a, b) => a.cost - b.cost)
      .slice(0, CARRIED);
  }
  const starts: number[] = [];
  const periods: Seconds[] = [];
  for (let at: Reading | null = readings[0]!; at; at = at.before) {
    starts.unshift(at.at);
    periods.unshift(at.period);
  }
  return { starts, periods, cost: readings[0]!.cost / onsets.length };
}

/**
 * The tempo that notes are most simply counted at.
 * @param notes in free time, a beat a second.
 */
export function tempoHeard(notes: readonly ScoreNote[], compound = false): number {
  const onsets = notes.map(({ startBeat }) => startBeat);
  let best = { tempo: TEMPOS.usual as number, cost: Infinity };
  for (let tempo = TEMPOS.low; tempo <= TEMPOS.high; tempo *= TEMPOS.apart) {
    const { cost } = follow(onsets, { tempo, compound, strict: false });
    const whole = cost + UNUSUAL * Math.log2(tempo / TEMPOS.usual) ** 2;
    if (whole < best.cost) best = { tempo, cost: whole };
  }
  return Math.round(best.tempo);
}

/** A note that lasts for so much of the way to the next one is written up to it. */
const NEARLY_TO_THE_NEXT = 0.55;

/**
 * Sets notes in free time (a beat a second) down in beats: each at the place of its beat that it was most likely meant at.
 * @returns crotchets; the first note begins within the first beat.
 */
export function setDown(notes: readonly ScoreNote[], counting: Counting): ScoreNote[] {
  if (notes.length === 0) return [];
  const { starts, periods } = follow(
    notes.map(({ startBeat }) => startBeat),
    counting,
  );
  const part = counting.compound ? 1 / 3 : 1 / 2;
  const crotchets = counting.compound ? 1.5 : 1;
  return notes.map((note, i) => {
    const [start, next] = [starts[i]!, starts[i + 1]];
    const held = note.beats / periods[i]!;
    const inParts = part * Math.max(1, Math.round(held / part));
    const room = next === undefined ? Infinity : next - start;
    const beats = held >= NEARLY_TO_THE_NEXT * room ? room : Math.min(room, inParts);
    return { ...note, startBeat: crotchets * start, beats: crotchets * beats };
  });
}
