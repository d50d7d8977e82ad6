import { seamBetween } from '@/core/instruments';
import type { Group, Match } from '@/core/hearing/matching';
import type { NoteEvent, Transition } from '@/core/hearing/notes';
import type { FaultKind } from './fault';
import { centsOff, eventsOf, nameOf, scoreNoteOf, type Reading } from './reading';
import { fixed } from './words';

/** One slur, judged. */
export interface JudgedSeam {
  readonly from: Group;
  readonly to: Group;
  /** It crosses a register break. */
  readonly crosses: boolean;
  /** Null when nothing can be said: the two notes were not joined in what was heard, or not heard at all. */
  readonly clean: boolean | null;
  /** Why not, worst first. */
  readonly why: readonly SeamFault[];
  readonly transition: Transition | null;
  /** Asked interval against the heard one; positive is wide. */
  readonly errorCents: number | null;
  /** Brightness and richness of the second note against the first, in partials. */
  readonly colour: { readonly brightness: number; readonly richness: number } | null;
}

interface SeamFault {
  readonly kind: FaultKind;
  readonly text: string;
  readonly size: number;
  readonly confidence: number;
}

/** A mode that sounds on the way this near the arrival belongs to the slur. */
export const ARRIVAL_SECONDS = 0.3;

/** Every slur of the take. */
export function judgeSeams(reading: Reading): JudgedSeam[] {
  const { matches } = reading.alignment;
  return matches.flatMap((to, i) => {
    const from = matches[i - 1];
    return from && to.group.slurred ? [judgeSeam(reading, from, to)] : [];
  });
}

function judgeSeam(reading: Reading, from: Match, to: Match): JudgedSeam {
  const { instrument, notes, into, score } = reading;
  const base = {
    from: from.group,
    to: to.group,
    crosses: seamBetween(instrument, from.group.written, to.group.written) !== null,
  };
  if (from.note === null || to.note === null) {
    const lost = to.note === null ? to : from;
    const text = `${nameOf(lost.group)} did not sound`;
    const faults = to.note === null ? [{ kind: 'missed' as const, text, size: 3, confidence: 0.8 }] : [];
    return {
      ...base,
      clean: to.note === null ? false : null,
      why: faults,
      transition: null,
      errorCents: null,
      colour: null,
    };
  }
  const arrival = to.parts[0]!;
  const transition = into.get(arrival) ?? null;
  const [a, b] = [notes[from.note]!, notes[to.note]!];
  const [offA, offB] = [centsOff(a, from.group), centsOff(b, to.group)];
  const direction = Math.sign(to.group.sounding - from.group.sounding);
  const right = from.state === 'played' && to.state === 'played';
  const errorCents = right && offA !== null && offB !== null ? direction * (offB - offA) : null;
  const hairpin = scoreNoteOf(reading, to.group).hairpin !== null;
  const change = scoreNoteOf(reading, from.group).dynamic !== scoreNoteOf(reading, to.group).dynamic;
  const asksLevel = !hairpin && !change && score.counts.measures.includes('level');
  const found = [
    ...arrivalFaults(reading, to),
    ...stateFaults(to),
    ...(transition ? transitionFaults(reading, transition, asksLevel) : []),
    ...intervalFaults(reading, errorCents),
  ].sort((x, y) => y.size - x.size);
  // Of one thing seen in two ways the first is enough: a hole that was reported is also a deep dip.
  const why = found.filter((fault, i) => found.findIndex((other) => other.kind === fault.kind) === i);
  return {
    ...base,
    clean: why.length > 0 ? false : transition || right ? true : null,
    why,
    transition,
    errorCents,
    colour:
      a.brightness !== null && b.brightness !== null && a.richness !== null && b.richness !== null
        ? { brightness: b.brightness - a.brightness, richness: b.richness - a.richness }
        : null,
  };
}

/** What went wrong at the arrival itself. */
function arrivalFaults(reading: Reading, to: Match): SeamFault[] {
  const first = reading.notes[to.parts[0]!]!;
  return eventsOf(reading, to)
    .filter((event) => event.startSeconds - first.startSeconds < ARRIVAL_SECONDS)
    .flatMap((event): SeamFault[] => {
      const { kind, confidence } = event;
      if (kind === 'gap') {
        const text = `a hole of ${Math.round(1000 * (event.endSeconds - event.startSeconds))} ms`;
        return [{ kind: 'hole', text, size: 2.2, confidence }];
      }
      if (kind === 'blip' || kind === 'break') {
        const up = isHigher(event, first.soundingMidi);
        const text =
          kind === 'blip'
            ? up
              ? 'a higher mode first'
              : 'a lower mode first'
            : up
              ? 'it broke upwards'
              : 'it broke downwards';
        return [{ kind: up ? 'break-up' : 'break-down', text, size: 3, confidence }];
      }
      if (kind === 'squeak') return [{ kind: 'squeak', text: 'a squeak', size: 3, confidence }];
      return [];
    });
}

export const isHigher = (event: NoteEvent, midi: number) => (event.soundingMidi ?? midi) > midi;

function stateFaults(to: Match): SeamFault[] {
  if (to.state === 'wrong')
    return [{ kind: 'wrong-note', text: 'another note came', size: 2.5, confidence: 0.9 }];
  if (to.state === 'mode')
    return [{ kind: 'break-down', text: 'another mode came', size: 3, confidence: 0.8 }];
  return [];
}

function transitionFaults({ limits }: Reading, each: Transition, asksLevel: boolean): SeamFault[] {
  const over = (
    kind: FaultKind,
    value: number | null,
    limit: number,
    text: (value: number) => string,
    confidence = 0.7,
  ): SeamFault[] =>
    value !== null && value > limit ? [{ kind, text: text(value), size: value / limit, confidence }] : [];
  return [
    ...over(
      'hole',
      each.dipDb,
      limits.seamDipDb,
      (dB) => `the level fell by ${fixed(dB, 0)} dB between them`,
    ),
    ...over('bump', each.bumpDb, limits.seamBumpDb, (dB) => `a push of ${fixed(dB, 0)} dB between them`),
    ...over('slow-slur', each.seconds, limits.seamSeconds, (s) => `it took ${Math.round(1000 * s)} ms`),
    ...over(
      'slow-slur',
      each.overshootCents,
      limits.overshootCents,
      (c) => `it went ${fixed(c, 0)} cents too far`,
      0.5,
    ),
    ...(asksLevel
      ? over(
          (each.levelStepDb ?? 0) < 0 ? 'narrow-leap' : 'bump',
          each.levelStepDb === null ? null : Math.abs(each.levelStepDb),
          limits.levelStepDb,
          (dB) =>
            `the second note was ${fixed(dB, 0)} dB ${(each.levelStepDb ?? 0) < 0 ? 'softer' : 'louder'}`,
          0.6,
        )
      : []),
  ];
}

function intervalFaults({ limits, score }: Reading, errorCents: number | null): SeamFault[] {
  if (errorCents === null || !score.counts.measures.includes('interval')) return [];
  const size = Math.abs(errorCents) / limits.intervalCents;
  if (size <= 1) return [];
  const wide = errorCents > 0;
  return [
    {
      kind: wide ? 'wide-interval' : 'narrow-interval',
      text: `${fixed(Math.abs(errorCents), 0)} cents ${wide ? 'wide' : 'narrow'}`,
      size,
      confidence: 0.8,
    },
  ];
}
