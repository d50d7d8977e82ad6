import type { Cents, Decibels, Midi, Seconds } from '@/core/base';
import { mistaken, type Match, type Mistaken } from '@/core/hearing/matching';
import type { NoteEvent, Transition } from '@/core/hearing/notes';
import type { Instrument } from '@/core/instruments';
import type { MeasureId, Score } from '@/core/music';
import { blurOf } from '@/core/hearing/room';
import { withoutConsequences } from './explained';
import { weighed, type Fault, type Weighed } from './fault';
import { NOT_WHOLE, type FaultKind } from './faults';
import type { Figure } from './figure';
import type { Limits } from './limits';
import { mannerOf, type Manner } from './manner';
import type { Judging, Measured } from './measure';
import {
  cleanFigures,
  faultsOfHappenings,
  happenings,
  happeningsIn,
  judgedSlurs,
  MEASURES,
  inNodes,
  ownOvershoot,
  roomSpread,
  type JudgedSlur,
} from './measures';
import { centsOff, readingOf, type Played, type Reading } from './reading';

/** One note of the score as it was played: numbers and kinds, no words. */
export interface JudgedNote {
  readonly match: Match;
  /** Against its target; null when missed or not known. */
  readonly cents: Cents | null;
  /** Sounding pitch that was heard; null when nothing was. */
  readonly heard: Midi | null;
  /** What happened in it, where in the sound, and the fault that it is. */
  readonly marks: readonly { readonly event: NoteEvent; readonly fault: FaultKind }[];
  /** How it was held; null when it was not heard, was to be moved about, or it is not known. */
  readonly manner: Manner | null;
}

/** One slur, with what its sound was like. */
export interface JudgedSeam extends JudgedSlur {
  readonly transition: Transition | null;
  /** Asked interval against the heard one; positive is wide. */
  readonly errorCents: Cents | null;
  /** Standard deviation of what the room adds to the levels at it. */
  readonly spreadDb: Decibels;
  /** How long the room keeps the first note sounding: a change of pitch is not to be timed more closely. */
  readonly blurSeconds: Seconds;
  /** What of the overshoot is surely the player's. */
  readonly overshootCents: Cents | null;
  /** Brightness and richness of the second note against the first, in partials. */
  readonly colour: { readonly brightness: number; readonly richness: number } | null;
}

/** What can be said of a take at all. */
export type Outcome = 'judged' | 'another' | 'nothing-heard' | 'without-sound' | 'without-instrument';

/** All that is found in a take: figures, and how they stand against the limits. What is said of it is `say`'s. */
export interface Judgement extends Omit<Judging, 'instrument'> {
  /** Null where the take's instrument is not known. */
  readonly instrument: Instrument | null;
  readonly outcome: Outcome;
  /** What each measure found, by its name; `happenings` is looked at in every take. */
  readonly measured: readonly { readonly id: MeasureId | 'happenings'; readonly found: Measured }[];
  /** The figures of all measures together. */
  readonly figures: readonly Figure[];
  /** Worst first. */
  readonly faults: readonly Fault[];
  /** Faults by kind, what matters most first: the headline and the advice are about the first of them. */
  readonly ranked: readonly Weighed[];
  readonly notes: readonly JudgedNote[];
  readonly seams: readonly JudgedSeam[];
  /** What was played instead, where it was something else. */
  readonly mistaken: Mistaken | null;
  readonly floorDb: Decibels;
}

/** Judges a take against its score at a level. Pure; facts only: words are `say`'s, causes and remedies the coach's. */
export function judge(take: Played, limits: Limits): Judgement {
  const { instrument, score } = take;
  const floorDb = take.conditions.floorDb;
  if (!instrument) return emptyJudgement(score, null, limits, 'without-instrument', floorDb);
  if (score.notes.length === 0) return emptyJudgement(score, instrument, limits, 'without-sound', floorDb);
  const reading = readingOf(take, instrument, limits);
  const { matches } = reading.alignment;
  const roundTrip = take.timing.roundTrip.how;
  const { processing } = take.conditions;
  const judging: Judging = { score: reading.score, instrument, limits, matches, roundTrip, processing };
  const instead = mistaken(reading.alignment, take.notes, instrument);
  const heard = matches.some(({ note }) => note !== null);
  const notes = judgedNotes(reading);
  if (instead || !heard) {
    const outcome = instead ? 'another' : 'nothing-heard';
    const base = emptyJudgement(reading.score, instrument, limits, outcome, floorDb);
    return { ...base, matches, notes, mistaken: instead };
  }
  const { measures, exploring, events } = score.counts;
  const measured: Judgement['measured'][number][] = measures.map((id) => ({
    id,
    found: MEASURES[id].measure(reading),
  }));
  const judged = measured.flatMap(({ id, found }) =>
    id === 'happenings' ? [] : (MEASURES[id].judge?.(found.figures, judging) ?? []),
  );
  const told = exploring && events.length === 0 ? null : happenings.measure(reading);
  const happened = told ? faultsOfHappenings(reading, told.figures) : [];
  // Who explores is not scolded for what is meant.
  const faults = exploring ? [] : withoutConsequences(worstOfEach([...happened, ...judged]));
  const slurs = judgedSlurs(
    judging,
    faults,
    measured.flatMap(({ found }) => found.figures),
  );
  if (told) measured.push({ id: 'happenings', found: told });
  if (measures.includes('seam'))
    measured.push({ id: 'seam', found: { figures: cleanFigures(slurs), curves: [] } });
  return {
    ...judging,
    outcome: 'judged',
    measured,
    figures: measured.flatMap(({ found }) => found.figures),
    faults,
    ranked: weighed(faults),
    notes,
    seams: slurs.map((slur) => seamOf(reading, slur)),
    mistaken: null,
    floorDb,
  };
}

/** Of one thing seen in two ways at one place the greater is kept: a hole that was heard is also a deep dip. */
function worstOfEach(faults: readonly Fault[]): Fault[] {
  const key = ({ kind, group, atSlur }: Fault) => `${kind}/${group ?? ''}/${atSlur}`;
  const best = new Map<string, Fault>();
  for (const fault of faults) {
    const before = best.get(key(fault));
    if (!before) best.set(key(fault), fault);
    else
      best.set(key(fault), {
        ...(fault.size > before.size ? fault : before),
        amount: before.amount ?? fault.amount,
      });
  }
  return [...best.values()].sort((a, b) => b.size * b.confidence - a.size * a.confidence);
}

function seamOf(reading: Reading, slur: JudgedSlur): JudgedSeam {
  const { from, to } = slur;
  const { notes, into } = reading;
  const [a, b] = [from, to].map(({ note }) => (note === null ? null : notes[note]!));
  const [offA, offB] = [
    a && from.state === 'played' ? centsOff(reading, { match: from, note: a }) : null,
    b && to.state === 'played' ? centsOff(reading, { match: to, note: b }) : null,
  ];
  const direction = Math.sign(to.group.sounding - from.group.sounding);
  const transition = to.parts[0] === undefined ? null : (into.get(to.parts[0]) ?? null);
  const overshoot = transition?.overshootCents ?? null;
  const known =
    a && b && a.brightness !== null && b.brightness !== null && a.richness !== null && b.richness !== null;
  return {
    ...slur,
    transition,
    errorCents: offA !== null && offB !== null ? direction * (offB - offA) : null,
    spreadDb: a && b ? roomSpread(reading, [a, b]) : 0,
    blurSeconds: blurOf(reading.room.decaySeconds),
    overshootCents:
      overshoot === null ? null : ownOvershoot(reading, notes[transition!.to]!, overshoot).cents,
    colour: known ? { brightness: b.brightness! - a.brightness!, richness: b.richness! - a.richness! } : null,
  };
}

function judgedNotes(reading: Reading): JudgedNote[] {
  const told = happeningsIn(reading);
  const inNode = inNodes(reading);
  return reading.alignment.matches.map((match): JudgedNote => {
    const note = match.note === null ? null : reading.notes[match.note]!;
    return {
      match,
      cents: note && match.state === 'played' ? centsOff(reading, { match, note }) : null,
      heard: note?.soundingMidi ?? null,
      marks: told.filter((each) => each.match === match).map(({ event, fault }) => ({ event, fault })),
      // Of a note in which something else sounded its longest part says nothing of the whole.
      manner:
        note &&
        !reading.score.counts.exploring &&
        !told.some((each) => each.match === match && !each.atSlur && NOT_WHOLE.includes(each.fault))
          ? mannerOf(note, reading, inNode)
          : null,
    };
  });
}

function emptyJudgement(
  score: Score,
  instrument: Instrument | null,
  limits: Limits,
  outcome: Outcome,
  floorDb: Decibels,
): Judgement {
  return {
    score,
    instrument,
    limits,
    matches: [],
    roundTrip: 'exact',
    processing: [],
    outcome,
    measured: [],
    figures: [],
    faults: [],
    ranked: [],
    notes: [],
    seams: [],
    mistaken: null,
    floorDb,
  };
}
