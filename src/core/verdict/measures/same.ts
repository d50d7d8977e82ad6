import { median, type FeatureId } from '@/core/base';
import type { Note } from '@/core/hearing/notes';
import type { Role } from '@/core/music';
import { leaning } from '@/core/tuning';
import type { Chart } from '../charts';
import { amountOf, beyond, faultAt } from '../fault';
import { figure, figuresAt, isKnown, most, valueOf, wholeOf, type Figure } from '../figure';
import type { FigureId } from '../figures';
import { NOTHING, numbers, SILENT, type Measure, type Speaking } from '../measure';
import { centsOff, known, playedAs, playedNotes, roleOf, type PlayedNote, type Reading } from '../reading';
import { differenceWord, distanceOf } from '../sameness';
import { fixed, sized } from '../words';
import { judgedSlurs } from './slurs';

/**
 * The note that a note is held against: the best of the day, a problem note's best neighbour, or else the first of its own
 * breath: notes far from each other are of different colour by their pitch alone.
 */
function referenceOf(reading: Reading): (pair: PlayedNote) => PlayedNote {
  const one = playedAs(reading, 'reference')[0] ?? playedAs(reading, 'neighbour')[0];
  const all = playedNotes(reading);
  return (pair) => one ?? all.find(({ match }) => match.group.phrase === pair.match.group.phrase) ?? pair;
}

/** Parts of a distance as figures. */
const PARTS: Readonly<Record<FeatureId, FigureId>> = {
  brightness: 'unlike-brightness',
  richness: 'unlike-richness',
  airinessDb: 'unlike-air',
  oddEvenDb: 'unlike-hollow',
  levelDb: 'unlike-level',
};
const FEATURE_IDS = Object.keys(PARTS) as FeatureId[];
/** So many steps fewer partials, and no brighter for it, is thin. */
const THIN_STEPS = -1.5;
const NO_BRIGHTER_STEPS = 0.5;

/** A room that spreads the level of a partial by so much puts two different notes one just noticed step apart. */
const DECIBELS_A_STEP = 2;

function unlike(reading: Reading, pair: PlayedNote, reference: PlayedNote, steps: number): Figure {
  const groups = [pair.match.group.index, reference.match.group.index];
  const at = { at: pair.match.group.index, groups };
  // The same note at the same place meets the same echoes.
  const samePitch = pair.note.soundingMidi === reference.note.soundingMidi;
  const spread = samePitch ? 0 : (reading.conditions.room?.spreadDb ?? 0) / DECIBELS_A_STEP;
  const limit = reading.limits.samenessSteps;
  return steps > limit && steps - 2 * spread <= limit
    ? figure('unlike', null, at, 'room')
    : figure('unlike', steps, { ...at, spread });
}

/** Each note against the reference: colour, air, level. Where one is the problem, only that one. */
export const sameness: Measure = {
  measure(reading) {
    const referenceTo = referenceOf(reading);
    const problems = playedAs(reading, 'problem');
    const others = problems.length > 0 ? problems : playedNotes(reading);
    const rows = others.flatMap((pair): Figure[] => {
      const { match, note } = pair;
      const reference = referenceTo(pair);
      if (reference.match === match) return [];
      const { steps, parts } = distanceOf(note, reference.note);
      return steps === null
        ? []
        : [
            ...parts.map((part) => figure(PARTS[part.feature], part.steps, { at: match.group.index })),
            unlike(reading, pair, reference, steps),
          ];
    });
    if (rows.length === 0) return NOTHING;
    const values = figuresAt(rows, 'unlike').map(({ value }) => value);
    const groups = [...new Set(figuresAt(rows, 'unlike').flatMap((each) => [...each.groups].reverse()))];
    return numbers([...rows, figure('sameness', median(values), { groups, n: values.length })]);
  },
  judge(figures, judging) {
    return figuresAt(figures, 'unlike').flatMap((each) => {
      const part = (id: FigureId) => figuresAt(figures, id).find(({ at }) => at === each.at)?.value ?? 0;
      const thin = part('unlike-richness') < THIN_STEPS && part('unlike-brightness') < NO_BRIGHTER_STEPS;
      return beyond(judging, each, judging.limits.samenessSteps, thin ? 'thin' : 'unlike', {
        confidence: 0.6,
      });
    });
  },
  say(figures, { limits, nameAt }) {
    const whole = wholeOf(figures, 'sameness');
    const worst = most(figuresAt(figures, 'unlike'));
    if (!isKnown(whole) || !worst) return SILENT;
    const reference = nameAt(worst.groups[1] ?? worst.at);
    return {
      headline: 'One kind of sound',
      lines: {
        sameness:
          worst.value <= limits.samenessSteps
            ? `One kind of sound all the way, within your limit of ${sized(limits.samenessSteps, 'steps', 1)} from ${reference}.`
            : `${nameAt(worst.at)} was least like ${reference}, ${sized(worst.value, 'steps', 1)} away: ${mostUnlike(figures, worst.at)}.`,
      },
    };
  },
  draw({ figures }, speaking) {
    const rows = figuresAt(figures, 'unlike');
    const whole = wholeOf(figures, 'sameness');
    if (rows.length === 0 || !isKnown(whole)) return [];
    const { limits, nameAt } = speaking;
    return [
      {
        kind: 'rows',
        title: 'Unlike its reference, in just noticed steps',
        form: 'amounts',
        reach: 4,
        rows: rows.map(({ at, value, groups }) => ({
          name: nameAt(at),
          value,
          text: `${sized(value, 'steps', 1)} from ${nameAt(groups[1] ?? at)}`,
          stands: value > limits.samenessSteps,
        })),
      },
    ];
  },
};

/** In what a note differs most from the reference. */
function mostUnlike(figures: readonly Figure[], at: number): string {
  const parts = FEATURE_IDS.flatMap((feature) => {
    const found = figuresAt(figures, PARTS[feature]).find((each) => each.at === at);
    return found ? [{ feature, steps: found.value }] : [];
  });
  const [worst] = parts.sort((a, b) => Math.abs(b.steps) - Math.abs(a.steps));
  return worst ? differenceWord(worst) : 'in all a little';
}

/** The anchor at each return against its first sounding. */
export const anchor: Measure = {
  measure(reading) {
    const [first, ...later] = playedAs(reading, 'anchor');
    if (!first) return NOTHING;
    const returns = later.filter(({ match }) => match.group.slurred);
    const from = centsOff(reading, first);
    return numbers(
      returns.flatMap((pair): Figure[] => {
        const now = centsOff(reading, pair);
        const about = {
          at: pair.match.group.index,
          groups: [first.match.group.index, pair.match.group.index],
        };
        const { steps } = distanceOf(pair.note, first.note);
        return [
          ...(now === null || from === null ? [] : [figure('anchor-cents', now - from, about)]),
          ...(steps === null ? [] : [figure('anchor-steps', steps, about)]),
        ];
      }),
    );
  },
  judge(figures, judging) {
    const limit = 0.8 * judging.limits.intervalCents;
    const moved = figuresAt(figures, 'anchor-cents').flatMap((each) =>
      beyond(judging, each, limit, 'anchor-moved'),
    );
    const places = new Set(moved.map(({ group }) => group));
    return [
      ...moved,
      ...figuresAt(figures, 'anchor-steps')
        .filter(({ at, value }) => !places.has(at) && value > judging.limits.samenessSteps)
        .map((each) =>
          faultAt(
            judging,
            each.at,
            'anchor-moved',
            each.value / judging.limits.samenessSteps,
            amountOf(each, judging.limits.samenessSteps),
            {
              confidence: 0.6,
            },
          ),
        ),
    ];
  },
  say(figures, { faults, nameAt }) {
    const cents = figuresAt(figures, 'anchor-cents');
    const worst = most(cents);
    if (!worst) return SILENT;
    const moved = faults.filter(({ kind }) => kind === 'anchor-moved').length;
    const name = nameAt(worst.groups[0]!);
    return {
      headline: 'The anchor held',
      lines: {
        'anchor-cents':
          moved === 0
            ? `${name} was the same note at each of ${cents.length} returns.`
            : `Coming from ${nameAt(worst.at - 1)}, ${name} was ${leaning(worst.value)} against its first; ${moved} of ${cents.length} returns had moved.`,
      },
    };
  },
  draw({ figures }, { limits, nameAt }) {
    const rows = figuresAt(figures, 'anchor-cents');
    if (rows.length === 0) return [];
    return [
      {
        kind: 'rows',
        title: `${nameAt(rows[0]!.groups[0]!)} against its first, by where it came from`,
        form: 'deviations',
        reach: 15,
        sides: ['low', 'high'],
        rows: rows.map(({ at, value }) => ({
          name: `from ${nameAt(at - 1)}`,
          value,
          text: leaning(value),
          stands: Math.abs(value) > 0.8 * limits.intervalCents,
        })),
      },
    ];
  },
};

const WAYS: readonly (readonly [Role, string])[] = [
  ['tongued', 'tongued'],
  ['back-of-tongue', 'back of the tongue'],
  ['breath-only', 'breath only'],
  ['slurred-up', 'slurred up'],
  ['slurred-down', 'slurred down'],
  ['up-softer', 'up, getting softer'],
  ['down-louder', 'down, getting louder'],
  ['triplets', 'in triplets'],
];
/** Two rises that differ by less than this are not told apart. */
const SAME_RISE_MS = 15;

/** The same row in several ways: attacks against each other, bodies against each other. */
export const ways: Measure = {
  measure(reading) {
    const of = (role: Role) => playedAs(reading, role);
    const rise = (role: Role) =>
      median(
        known(
          of(role)
            .filter(({ match }) => !match.group.slurred)
            .map(({ note }) => note.attack.riseSeconds),
        ),
      );
    const tongued = of('tongued');
    const breath = of('breath-only');
    const bodies = breath.flatMap(({ note }, i) => {
      const other: Note | undefined = tongued[i]?.note;
      return other ? known([distanceOf(note, other).steps]) : [];
    });
    const groups = (role: Role) => of(role).map(({ match }) => match.group.index);
    const apart = 1000 * Math.abs(rise('tongued') - rise('back-of-tongue'));
    return numbers([
      ...(Number.isFinite(apart)
        ? [figure('two-tongues', apart, { groups: [...groups('tongued'), ...groups('back-of-tongue')] })]
        : []),
      ...(bodies.length > 0
        ? [figure('breath-body', median(bodies), { groups: groups('breath-only'), n: bodies.length })]
        : []),
      ...WAYS.flatMap(([role]) => wayFigures(reading, of(role))),
    ]);
  },
  say(figures, { limits }) {
    const apart = valueOf(figures, 'two-tongues');
    const body = valueOf(figures, 'breath-body');
    return {
      headline: 'The ways matched',
      lines: {
        ...(apart !== null && {
          'two-tongues': apart < SAME_RISE_MS ? 'Not to be told apart.' : 'The two can be told apart.',
        }),
        ...(body !== null && {
          'breath-body':
            body <= limits.samenessSteps
              ? 'The same tone once it sounds.'
              : 'Another tone: the tongue was doing more than begin it.',
        }),
      },
    };
  },
  draw({ figures }, speaking) {
    return waysTable(figures, speaking);
  },
};

/** Level and rise of one way, kept at its first note. */
function wayFigures(reading: Reading, pairs: readonly PlayedNote[]): Figure[] {
  const [first] = pairs;
  if (!first) return [];
  const about = {
    at: first.match.group.index,
    groups: pairs.map(({ match }) => match.group.index),
    n: pairs.length,
  };
  const rises = known(
    pairs.filter(({ match }) => !match.group.slurred).map(({ note }) => note.attack.riseSeconds),
  );
  const levels = known(pairs.map(({ note }) => note.levelDb));
  const centres = known(pairs.map((pair) => centsOff(reading, pair)));
  return [
    ...(rises.length > 0 ? [figure('rise', 1000 * median(rises), about)] : []),
    ...(levels.length > 0 ? [figure('loudness', median(levels), about)] : []),
    ...(centres.length > 0 ? [figure('pitch-middle', median(centres), about)] : []),
  ];
}

function waysTable(figures: readonly Figure[], { score, matches, instrument, faults }: Speaking): Chart[] {
  const slurs = judgedSlurs(matches, instrument, faults, figures);
  const rows = WAYS.flatMap(([role, name]) => {
    const groups = matches
      .filter(({ group }) => roleOf({ score }, group) === role)
      .map(({ group }) => group.index);
    if (groups.length === 0) return [];
    const at = (id: 'rise' | 'loudness' | 'pitch-middle') =>
      figuresAt(figures, id).find((each) => groups.includes(each.at) && each.groups.length > 1)?.value;
    const mine = slurs.filter(({ to, clean }) => groups.includes(to.group.index) && clean !== null);
    const rise = at('rise');
    const level = at('loudness');
    const centre = at('pitch-middle');
    return [
      {
        name,
        cells: [
          rise === undefined ? '–' : `${fixed(rise, 0)} ms`,
          level === undefined ? '–' : `${fixed(level, 0)} dB`,
          centre === undefined ? '–' : leaning(centre),
          mine.length === 0 ? '–' : `${mine.filter(({ clean }) => clean).length} of ${mine.length}`,
        ],
      },
    ];
  });
  return rows.length < 2
    ? []
    : [
        {
          kind: 'table',
          title: 'The ways beside each other',
          columns: ['rise', 'level', 'pitch', 'clean slurs'],
          rows,
        },
      ];
}
