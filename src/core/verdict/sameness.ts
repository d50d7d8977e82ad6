import { median } from '@/core/base';
import { type Note } from '@/core/hearing/notes';
import { NOTHING, type Part } from './part';
import { centsOff, nameOf, playedNotes, scoreNoteOf, type Reading } from './reading';
import { faultAt } from './tone';
import { fixed } from './words';
import { highOrLow } from '@/core/tuning';

/** What of a tone is compared. */
export type Colour = Pick<Note, 'brightness' | 'richness' | 'airinessDb' | 'oddEvenDb' | 'levelDb'>;

/** One step of each part of a tone's colour is about what is just noticed between two notes. */
export const STEPS = [
  { name: 'brightness', of: (tone: Colour) => tone.brightness, step: 0.35 },
  { name: 'richness', of: (tone: Colour) => tone.richness, step: 1.6 },
  { name: 'air', of: (tone: Colour) => tone.airinessDb, step: 3 },
  { name: 'odd and even', of: (tone: Colour) => tone.oddEvenDb, step: 3.5 },
  { name: 'level', of: (tone: Colour) => tone.levelDb, step: 2.5 },
] as const;

export interface Distance {
  /** In just-noticeable steps, all parts together; null when too little is known. */
  readonly steps: number | null;
  readonly parts: readonly { readonly name: string; readonly steps: number }[];
}

/** How unlike two tones are: root mean square over the parts that are known of both. */
export function distanceOf(tone: Colour, reference: Colour): Distance {
  const parts = STEPS.flatMap(({ name, of, step }) => {
    const [a, b] = [of(tone), of(reference)];
    return a === null || b === null ? [] : [{ name, steps: (a - b) / step }];
  });
  if (parts.length < 2) return { steps: null, parts };
  return { steps: Math.sqrt(parts.reduce((sum, part) => sum + part.steps ** 2, 0) / parts.length), parts };
}

type Pair = ReturnType<typeof playedNotes>[number];

/** The note that the others are compared with: what the score calls so, or the first long one. */
function referenceOf(reading: Reading, pairs: readonly Pair[]): Pair | undefined {
  const labelled = pairs.find(({ match }) =>
    ['reference', 'the note'].includes(scoreNoteOf(reading, match.group).label ?? ''),
  );
  return labelled ?? pairs[0];
}

/** Each note against the reference: pitch, level, colour, air. */
export function samenessPart(reading: Reading): Part {
  const { limits } = reading;
  const pairs = playedNotes(reading);
  const reference = referenceOf(reading, pairs);
  if (!reference || pairs.length < 2) return NOTHING;
  const rows = pairs
    .filter((pair) => pair !== reference)
    .flatMap((pair) => {
      const { steps, parts } = distanceOf(pair.note, reference.note);
      return steps === null ? [] : [{ pair, name: nameOf(pair.match.group), distance: steps, parts }];
    });
  if (rows.length === 0) return NOTHING;
  const far = rows.filter((row) => row.distance > limits.samenessSteps);
  const worst = rows.reduce((a, b) => (b.distance > a.distance ? b : a));
  const most = [...worst.parts].sort((a, b) => Math.abs(b.steps) - Math.abs(a.steps))[0];
  return {
    findings: [
      {
        id: 'sameness',
        label: 'Sameness',
        value: fixed(median(rows.map((row) => row.distance)), 1),
        unit: 'steps from the reference',
        sentence:
          worst.distance <= limits.samenessSteps
            ? 'One kind of sound all the way.'
            : `${worst.name} was least like ${nameOf(reference.match.group)}${most ? `: ${differenceWord(most)}` : ''}.`,
        meaning:
          'Brightness, richness, air, balance of odd and even partials and level, each in steps that are about just noticed; the root mean square of them.',
      },
    ],
    faults: far.map((row) =>
      faultAt(
        reading,
        row.pair.match,
        thinner(row.parts) ? 'thin' : 'unlike',
        row.distance / limits.samenessSteps,
        0.6,
      ),
    ),
    headline: {
      text:
        far.length === 0 ? 'One kind of sound' : `${far.length} of ${rows.length} notes unlike the reference`,
      weight: 1.2 + Math.min(1, far.length / rows.length),
    },
    drawing: {
      kind: 'sameness',
      reference: nameOf(reference.match.group),
      notes: rows.map(({ name, distance, parts }) => ({ name, distance, parts })),
    },
  };
}

const thinner = (parts: Distance['parts']) =>
  (parts.find((part) => part.name === 'richness')?.steps ?? 0) < -1.5 &&
  (parts.find((part) => part.name === 'brightness')?.steps ?? 0) < 0.5;

export function differenceWord({ name, steps }: { name: string; steps: number }): string {
  const words: Readonly<Record<string, readonly [string, string]>> = {
    brightness: ['brighter', 'darker'],
    richness: ['richer', 'with fewer partials'],
    air: ['with more air', 'with less air'],
    'odd and even': ['more hollow', 'less hollow'],
    level: ['louder', 'softer'],
  };
  return words[name]?.[steps > 0 ? 0 : 1] ?? name;
}

/** The anchor at each return against its first sounding. */
export function anchorPart(reading: Reading): Part {
  const { limits } = reading;
  const pairs = playedNotes(reading);
  const anchor = pairs[0];
  if (!anchor) return NOTHING;
  const returns = pairs.flatMap((pair, i) => {
    const before = pairs[i - 1];
    if (
      i === 0 ||
      pair.match.group.written !== anchor.match.group.written ||
      !pair.match.group.slurred ||
      !before
    )
      return [];
    const [now, first] = [centsOff(pair.note, pair.match.group), centsOff(anchor.note, anchor.match.group)];
    const { levelDb } = pair.note;
    return [
      {
        pair,
        from: nameOf(before.match.group),
        cents: now === null || first === null ? null : now - first,
        levelDb: levelDb === null || anchor.note.levelDb === null ? null : levelDb - anchor.note.levelDb,
        distance: distanceOf(pair.note, anchor.note).steps,
      },
    ];
  });
  if (returns.length === 0) return NOTHING;
  const limit = 0.8 * limits.intervalCents;
  const moved = returns.filter(
    (each) => Math.abs(each.cents ?? 0) > limit || (each.distance ?? 0) > limits.samenessSteps,
  );
  const worst = returns.reduce((a, b) => (Math.abs(b.cents ?? 0) > Math.abs(a.cents ?? 0) ? b : a));
  const name = nameOf(anchor.match.group);
  return {
    findings: [
      {
        id: 'anchor',
        label: 'The anchor',
        value: `${returns.length - moved.length} of ${returns.length}`,
        unit: 'returns the same',
        sentence:
          moved.length === 0
            ? `${name} was the same note every time.`
            : `Coming from ${worst.from}, ${name} was ${highOrLow(worst.cents ?? 0)} against its first.`,
        meaning: 'Pitch, level and colour of the anchor at each return against the first time.',
      },
    ],
    faults: moved.map((each) =>
      faultAt(reading, each.pair.match, 'anchor-moved', Math.max(1.1, Math.abs(each.cents ?? 0) / limit)),
    ),
    headline: {
      text:
        moved.length === 0
          ? 'The anchor held'
          : `The anchor moved ${moved.length === 1 ? 'once' : `${moved.length} times`}`,
      weight: 1.3 + Math.min(1, moved.length / returns.length),
    },
    drawing: {
      kind: 'anchor',
      name,
      returns: returns.map(({ from, cents, levelDb, distance }) => ({ from, cents, levelDb, distance })),
    },
  };
}
