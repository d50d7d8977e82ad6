import { FEATURE_IDS, FEATURES, median, type FeatureId } from '@/core/base';
import { leaning } from '@/core/tuning';
import { amountOf, beyond, faultAt } from '../beyond';
import { figure, figuresAt, isKnown, most, wholeOf, type Figure } from '../figure';
import type { FigureId } from '../figures';
import { NOTHING, numbers, SILENT, type Measure } from '../measure';
import { centsOff, playedAs, playedNotes, type PlayedNote, type Reading } from '../reading';
import { differenceWord, distanceOf } from '../sameness';
import { plural, sized, tallied } from '../words';

/**
 * The note that a note is held against: the best of the day, a problem note's best neighbour, or else the first of its own
 * breath: notes far from each other are of different colour by their pitch alone.
 */
function referenceOf(reading: Reading): (pair: PlayedNote) => PlayedNote {
  const one = playedAs(reading, 'reference')[0] ?? playedAs(reading, 'neighbour')[0];
  const all = playedNotes(reading);
  return (pair) => one ?? all.find(({ match }) => match.group.phrase === pair.match.group.phrase) ?? pair;
}

/** What is off by less cannot be heard as another note. */
const SAME_CENTS = 2.5;
/** Of more notes than that the rest is counted. */
const MOST_NAMES = 3;

/** A part of a distance as a figure. */
const partOf = (feature: FeatureId): FigureId => `unlike-${FEATURES[feature].short}`;
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
  const spread = samePitch ? 0 : (reading.room.spreadDb ?? 0) / DECIBELS_A_STEP;
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
        ? [figure('unlike', null, { at: match.group.index }, note.unknown['brightness'] ?? 'too-short')]
        : [
            ...parts.map((part) => figure(partOf(part.feature), part.steps, { at: match.group.index })),
            unlike(reading, pair, reference, steps),
          ];
    });
    if (rows.length === 0) return NOTHING;
    const values = figuresAt(rows, 'unlike').map(({ value }) => value);
    if (values.length === 0) return numbers(rows);
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
    const unknown = figures.flatMap(({ id, at, ...rest }) =>
      id === 'unlike' && at !== null && 'unknown' in rest ? [nameAt(at)] : [],
    );
    const open = unknown.length > 0 ? ` Of ${tallied(unknown, MOST_NAMES)} it is not known.` : '';
    const known = figuresAt(figures, 'unlike').length;
    return {
      headline:
        unknown.length > 0
          ? `One kind of sound in ${plural(known, 'note')}, of ${unknown.length} it is not known`
          : 'One kind of sound',
      lines: {
        sameness:
          worst.value <= limits.samenessSteps
            ? `One kind of sound ${unknown.length > 0 ? `in ${plural(known, 'note')}` : 'all the way'}, within your limit of ${sized(limits.samenessSteps, 'steps', 1)} from ${reference}.${open}`
            : `${nameAt(worst.at)} was least like ${reference}, ${sized(worst.value, 'steps', 1)} away: ${mostUnlike(figures, worst.at)}.${open}`,
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
    const found = figuresAt(figures, partOf(feature)).find((each) => each.at === at);
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
            ? Math.abs(worst.value) < SAME_CENTS
              ? `${name} was the same note at each of ${cents.length} returns.`
              : `${name} came back within ${sized(Math.abs(worst.value), 'cents')} of its first at each of ${cents.length} returns.`
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
