import { Random, median, quantile } from '@/core/base';
import { type Note } from '@/core/hearing/notes';
import type { Part } from './part';
import { centsOff, playedNotes, scoreNoteOf, type Reading } from './reading';
import { distanceOf } from './sameness';
import { fixed, listed } from './words';

const DRAWS = 2000;
/** With fewer on either side a difference of medians says nothing. */
const FEWEST = 3;

export interface Difference {
  /** Median of the second less that of the first. */
  readonly difference: number;
  readonly low: number;
  readonly high: number;
  /** The interval leaves zero out. */
  readonly sure: boolean;
}

/**
 * Difference of medians of two sets of takes with its 95 % bootstrap interval (percentile method, Efron 1979). Null when
 * there is too little to tell. Reproducible: the draws have a seed of their own.
 */
export function differenceOf(
  first: readonly number[],
  second: readonly number[],
  seed = 1,
): Difference | null {
  if (first.length < FEWEST || second.length < FEWEST) return null;
  const random = new Random(seed);
  const draw = (values: readonly number[]) =>
    median(values.map(() => values[Math.min(values.length - 1, Math.floor(random.next() * values.length))]!));
  const draws = Array.from({ length: DRAWS }, () => draw(second) - draw(first));
  const [low, high] = [quantile(draws, 0.025), quantile(draws, 0.975)];
  return { difference: median(second) - median(first), low, high, sure: low > 0 || high < 0 };
}

const MEASURES: readonly {
  readonly label: string;
  readonly unit: string;
  readonly of: (note: Note) => number | null;
}[] = [
  { label: 'wobble', unit: 'cents', of: (note) => note.wobbleCents },
  { label: 'level', unit: 'dB', of: (note) => note.levelDb },
  { label: 'brightness', unit: 'partials', of: (note) => note.brightness },
  { label: 'richness', unit: 'partials', of: (note) => note.richness },
  { label: 'air', unit: 'dB', of: (note) => note.airinessDb },
];

/** The same figure under two conditions in turn: what changed, and whether that is more than chance. */
export function comparePart(reading: Reading): Part {
  const pairs = playedNotes(reading);
  const names = [...new Set(reading.score.notes.flatMap((note) => note.label ?? []))];
  const [a, b] = [names[0] ?? 'first', names[1] ?? 'second'];
  // A label stands over the first note of its figure and holds until the next.
  const conditionOf = new Map<number, string>();
  let now = a;
  reading.score.notes.forEach((note, i) => {
    now = note.label ?? now;
    conditionOf.set(i, now);
  });
  const side = (name: string) => pairs.filter(({ match }) => conditionOf.get(match.group.from) === name);
  const [first, second] = [side(a), side(b)];
  const rows = [
    {
      label: 'pitch',
      unit: 'cents',
      values: (all: typeof first) => all.map(({ note, match }) => centsOff(note, match.group)),
    },
    ...MEASURES.map(({ label, unit, of }) => ({
      label,
      unit,
      values: (all: typeof first) => all.map(({ note }) => of(note)),
    })),
  ].flatMap(({ label, unit, values }) => {
    const known = (all: typeof first) => values(all).filter((value) => value !== null);
    const result = differenceOf(known(first), known(second));
    return result ? [{ label, unit, ...result }] : [];
  });
  const sure = rows.filter((row) => row.sure);
  return {
    findings: [
      {
        id: 'compared',
        label: `${b}, against ${a}`,
        value: rows.length === 0 ? null : String(sure.length),
        unit: sure.length === 1 ? 'thing differs' : 'things differ',
        sentence:
          rows.length === 0
            ? reading.score.company
              ? 'Not known: while a voice sounds along, the two cannot be told apart. The plain repeats are in the strip.'
              : 'Not known: too few notes on either side.'
            : sure.length === 0
              ? 'Nothing changed by more than chance.'
              : `${listed(sure.map((row) => `${row.label} ${row.difference > 0 ? '+' : ''}${fixed(row.difference, 1)} ${row.unit}`))}.`,
        meaning:
          'Difference of the medians with a 95 % interval by resampling. Only where the interval leaves zero out is anything claimed.',
      },
    ],
    faults: [],
    headline: {
      text:
        rows.length === 0
          ? 'Too little to compare'
          : sure.length === 0
            ? 'No difference beyond chance'
            : `${sure[0]!.label.replace(/^./, (c) => c.toUpperCase())} changed`,
      weight: 2,
    },
    ...(rows.length > 0 && { drawing: { kind: 'compared' as const, names: [a, b] as const, rows } }),
  };
}

/** Two colours of one note: how far apart, and whether the pitch stayed. */
export function colourPairPart(reading: Reading): Part {
  const compared = comparePart(reading);
  const pairs = playedNotes(reading);
  const labels = [...new Set(reading.score.notes.flatMap((note) => note.label ?? []))];
  const side = (name: string | undefined) =>
    pairs.filter(({ match }) => scoreNoteOf(reading, match.group).label === name);
  const [first, second] = [side(labels[0]), side(labels[1])];
  const distances = first.flatMap((pair, i) => {
    const other = second[i];
    return other ? (distanceOf(other.note, pair.note).steps ?? []) : [];
  });
  if (distances.length === 0) return compared;
  const apart = median(distances);
  return {
    ...compared,
    findings: [
      {
        id: 'colours',
        label: 'Colours apart',
        value: fixed(apart, 1),
        unit: 'steps',
        sentence:
          apart < 1.5
            ? 'Hardly to be told apart.'
            : apart < 3
              ? 'Two colours, near to each other.'
              : 'Two clearly different colours.',
        meaning: 'Distance of the two tones in steps that are about just noticed.',
      },
      ...compared.findings,
    ],
    headline: {
      text: apart < 1.5 ? 'One colour' : `Two colours, ${fixed(apart, 1)} steps apart`,
      weight: 2.2,
    },
  };
}
