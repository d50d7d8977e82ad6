import { median } from '@/core/base';
import { lengthOf, type Note } from '@/core/hearing/notes';
import type { Match } from '@/core/hearing/matching';
import type { Fault, FaultKind } from './fault';
import { NOTHING, type Part } from './part';
import { centsOff, nameOf, playedNotes, scoreNoteOf, type Reading } from './reading';
import type { Finding } from './verdict';
import { fixed, listed } from './words';
import { highOrLow } from '@/core/tuning';

type Pair = ReturnType<typeof playedNotes>[number];

/** A note's fault, at its place. */
export function faultAt(
  reading: Reading,
  { group }: Match,
  kind: FaultKind,
  size: number,
  confidence = 0.8,
): Fault {
  const { dynamic } = scoreNoteOf(reading, group);
  return { kind, group: group.index, atSlur: false, size, confidence, dynamic };
}

const known = (values: readonly (number | null)[]) => values.filter((value) => value !== null);

function worstOf(pairs: readonly Pair[], of: (pair: Pair) => number | null): Pair | null {
  return pairs.reduce<Pair | null>((worst, pair) => {
    const value = of(pair);
    if (value === null) return worst;
    return worst === null || value > (of(worst) ?? -Infinity) ? pair : worst;
  }, null);
}

/** Where the notes sat, as a whole and one by one. */
export function pitchPart(reading: Reading): Part {
  const { limits } = reading;
  const pairs = playedNotes(reading);
  const off = ({ note, match }: Pair) => centsOff(note, match.group);
  const all = known(pairs.map(off));
  if (all.length === 0) return NOTHING;
  const centre = median(all);
  const spread = median(all.map((cents) => Math.abs(cents - centre))) * 1.4826;
  const outside = pairs.filter((pair) => Math.abs(off(pair) ?? 0) > limits.centreCents);
  const worst = worstOf(pairs, (pair) => Math.abs(off(pair) ?? 0));
  const lean = Math.abs(centre) / limits.centreCents;
  const findings: Finding[] = [
    {
      id: 'centre',
      label: 'Pitch',
      value: fixed(centre, 1),
      unit: 'cents, the middle note',
      sentence:
        lean > 1
          ? `As a whole ${highOrLow(centre)}.`
          : outside.length === 0
            ? 'Every note within your limit.'
            : `In the middle as a whole; ${listed(outside.map(({ match }) => nameOf(match.group)).filter((name, i, names) => names.indexOf(name) === i))} stood out.`,
      meaning:
        'The median of all notes’ centres against their targets, in the chosen temperament. Good to about half a cent.',
    },
  ];
  if (all.length > 2) {
    findings.push({
      id: 'pitch-spread',
      label: 'Spread of pitch',
      value: fixed(spread, 1),
      unit: 'cents',
      sentence:
        worst && Math.abs(off(worst) ?? 0) > limits.centreCents
          ? `${nameOf(worst.match.group)} was furthest out, ${highOrLow(off(worst) ?? 0)}.`
          : 'The notes agree with each other.',
      meaning:
        'How far the notes lie from their own middle (median deviation, scaled to a standard deviation).',
    });
  }
  // Over a hairpin the pitch goes with the level, which is told by itself.
  const plain = (pair: Pair) => scoreNoteOf(reading, pair.match.group).hairpin === null;
  const faults =
    lean > 1 && pairs.some(plain)
      ? [{ ...steady(centre < 0 ? 'steadily-low' : 'steadily-high', lean), confidence: 0.9 }]
      : outside
          .filter(plain)
          .map((pair) =>
            faultAt(
              reading,
              pair.match,
              (off(pair) ?? 0) < 0 ? 'steadily-low' : 'steadily-high',
              Math.abs(off(pair) ?? 0) / limits.centreCents,
            ),
          );
  return {
    findings,
    faults,
    headline: {
      text:
        Math.abs(centre) < 1
          ? 'True as a whole'
          : `${highOrLow(centre).replace(/^./, (c) => c.toUpperCase())} as a whole`,
      weight: Math.min(2, 0.5 + lean / 2),
    },
  };
}

/** A fault of the whole take. */
export function steady(kind: FaultKind, size: number): Fault {
  return { kind, group: null, atSlur: false, size, confidence: 0.8, dynamic: null };
}

/** Whether notes were held still: drift, wobble, vibrato, fading. */
export function steadinessPart(reading: Reading): Part {
  const { limits, score } = reading;
  // What a hairpin moves is not unsteady.
  const pairs = playedNotes(reading).filter(
    ({ match }) => scoreNoteOf(reading, match.group).hairpin === null,
  );
  const faults: Fault[] = [];
  const each = (
    kind: FaultKind,
    of: (note: Note) => number | null,
    limit: number,
    counts: (note: Note) => boolean = () => true,
  ) => {
    for (const { match, note } of pairs) {
      const value = of(note);
      if (value !== null && value > limit && counts(note))
        faults.push(faultAt(reading, match, kind, value / limit));
    }
  };
  each('unsteady', (note) => note.wobbleCents, limits.wobbleCents);
  each(
    'sinking',
    (note) => (note.driftCentsPerSecond === null ? null : -note.driftCentsPerSecond),
    limits.driftCentsPerSecond,
    longEnough,
  );
  each(
    'fading-hold',
    (note) => (note.levelDriftDbPerSecond === null ? null : -note.levelDriftDbPerSecond),
    limits.fadeDbPerSecond,
    longEnough,
  );
  if (score.vibrato === 'none')
    each('vibrato', (note) => note.vibrato?.extentCents ?? null, 0.6 * limits.wobbleCents, longEnough);
  const wobbles = known(pairs.map(({ note }) => note.wobbleCents));
  if (wobbles.length === 0) return { findings: [], faults };
  const middle = median(wobbles);
  const worst = worstOf(pairs, ({ note }) => note.wobbleCents);
  return {
    findings: [
      {
        id: 'wobble',
        label: 'Wobble',
        value: fixed(middle, 1),
        unit: 'cents',
        sentence:
          worst && (worst.note.wobbleCents ?? 0) > limits.wobbleCents
            ? `${nameOf(worst.match.group)} shook most, ${fixed(worst.note.wobbleCents ?? 0, 1)} cents.`
            : 'Held still.',
        meaning:
          'Irregular movement of the pitch within notes (RMS), drift and vibrato taken away; the median of all notes long enough.',
      },
    ],
    faults,
    headline: {
      text: middle > limits.wobbleCents ? 'Unsteady' : 'Steady',
      weight: Math.min(2, 0.3 + middle / limits.wobbleCents / 2),
    },
  };
}

const TREND_SECONDS = 1.2;
const longEnough = (note: Note) => lengthOf(note) > TREND_SECONDS;

/** Evenness of loudness among notes that were to be alike, and air beside the tone. */
export function levelPart(reading: Reading): Part {
  const { limits } = reading;
  const pairs = playedNotes(reading).filter(
    ({ match }) => scoreNoteOf(reading, match.group).hairpin === null,
  );
  const levels = known(pairs.map(({ note }) => note.levelDb));
  const reason = pairs[0]?.note.unknown['levelDb'];
  if (levels.length < 3) return reason === 'gain-control' ? { findings: [GAIN], faults: [] } : NOTHING;
  const byDynamic = new Map<string, number[]>();
  for (const { match, note } of pairs)
    if (note.levelDb !== null) {
      const { dynamic } = scoreNoteOf(reading, match.group);
      byDynamic.set(dynamic, [...(byDynamic.get(dynamic) ?? []), note.levelDb]);
    }
  const deviations = [...byDynamic.values()].flatMap((group) =>
    group.map((dB) => Math.abs(dB - median(group))),
  );
  const spread = 1.4826 * median(deviations);
  return {
    findings: [
      {
        id: 'evenness',
        label: 'Evenness',
        value: fixed(spread, 1),
        unit: 'dB from note to note',
        sentence:
          spread < limits.levelStepDb / 3 ? 'The notes were alike in level.' : 'The notes differed in level.',
        meaning:
          'Spread of the levels of notes that were to be equally loud. A microphone hears some notes of an instrument louder than others; follow it over time rather than between instruments.',
      },
    ],
    faults: [],
  };
}

const GAIN: Finding = {
  id: 'evenness',
  label: 'Evenness',
  value: null,
  unit: '',
  sentence: 'Not known: the microphone’s own gain control was on, so levels say nothing about you.',
  meaning: 'Switch gain control off in the device’s sound settings, or use another microphone.',
};

export function colourPart(reading: Reading): Part {
  const { limits } = reading;
  const pairs = playedNotes(reading);
  const airs = known(pairs.map(({ note }) => note.airinessDb));
  if (airs.length === 0) return NOTHING;
  const middle = median(airs);
  const airy = pairs.filter(({ note }) => (note.airinessDb ?? -99) > limits.airinessDb);
  return {
    findings: [
      {
        id: 'air',
        label: 'Air',
        value: fixed(middle, 0),
        unit: 'dB against the tone',
        sentence:
          airy.length === 0
            ? 'The tone stands clear of the air.'
            : `Much air beside ${listed(airy.map(({ match }) => nameOf(match.group)).filter((n, i, all) => all.indexOf(n) === i))}.`,
        meaning:
          'Energy between the partials against the partials. Room noise counts as air; nearer to the microphone it counts for less.',
      },
    ],
    // The softest notes always have more air for the room.
    faults: airy
      .filter(({ match }) => !['pp', 'p'].includes(scoreNoteOf(reading, match.group).dynamic))
      .map(({ match, note }) =>
        faultAt(reading, match, 'airy', 1 + (note.airinessDb! - limits.airinessDb) / 8, 0.6),
      ),
  };
}
