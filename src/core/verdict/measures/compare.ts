import { COLOURS, type ColourId, FEATURES, Random, capital, median, quantile } from '@/core/base';
import { comparable, modelOf, type Role } from '@/core/music';
import { figure, figuresAt, isKnown, valueOf, wholeOf, type Figure } from '../figure';
import type { FigureId } from '../figures';
import { FIGURES } from '../figures';
import { NOTHING, numbers, SILENT, type Measure, type Speaking } from '../measure';
import { centsOff, known, playedAs, playedNotes, type PlayedNote, type Reading } from '../reading';
import { differenceWord, distanceOf } from '../sameness';
import { because, fixed, listed, plural, signed, sized } from '../words';

const DRAWS = 2000;
/** With fewer on either side a difference of medians says nothing. */
const FEWEST = 3;

export interface Difference {
  /** Median of the second less that of the first. */
  readonly difference: number;
  readonly low: number;
  readonly high: number;
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
  return { difference: median(second) - median(first), low, high };
}

/** What is compared, with the least of it that is told: less is beyond the ear, and no reed or cue is chosen by it. */
const COMPARED: readonly (readonly [
  FigureId,
  least: number,
  (pair: PlayedNote, reading: Reading) => number | null,
])[] = [
  ['differ-pitch', 1, (pair, reading) => centsOff(reading, pair)],
  ['differ-wobble', 1, ({ note }) => note.wobbleCents],
  ['differ-level', 0.5, ({ note }) => note.levelDb],
  ['differ-brightness', 0.2, ({ note }) => note.brightness],
  ['differ-richness', 1, ({ note }) => note.richness],
  ['differ-air', 1, ({ note }) => note.airinessDb],
];
const LEAST = new Map<FigureId, number>(COMPARED.map(([id, least]) => [id, least]));

/** Half of a 95 % interval is so many standard deviations. */
const HALF_INTERVAL = 1.96;

function differences(
  reading: Reading,
  first: readonly PlayedNote[],
  second: readonly PlayedNote[],
): Figure[] {
  const groups = [...first, ...second].map(({ match }) => match.group.index);
  const row = (id: FigureId, of: (pair: PlayedNote) => number | null) => {
    const found = differenceOf(known(first.map(of)), known(second.map(of)));
    return found === null
      ? []
      : [
          figure(id, found.difference, {
            groups,
            n: Math.min(first.length, second.length),
            spread: (found.high - found.low) / 2 / HALF_INTERVAL,
          }),
        ];
  };
  return COMPARED.flatMap(([id, , of]) => row(id, (pair) => of(pair, reading)));
}

/** Only where the interval leaves zero out, and by as much as matters, is anything claimed. */
const isSure = (found: Figure): boolean =>
  isKnown(found) &&
  found.spread !== null &&
  Math.abs(found.value) > Math.max(LEAST.get(found.id) ?? 0, HALF_INTERVAL * found.spread);

/**
 * The same figure under two conditions in turn: what changed, and whether that is more than chance. Where a voice sounds along on
 * the first side, the plain repeats are the player's alone and are held against each other, the first of them and the last.
 */
export const compare: Measure = {
  measure(reading) {
    const [first, second] = [playedAs(reading, 'first'), playedAs(reading, 'second')];
    if (first.length + second.length === 0) return NOTHING;
    const voiced = reading.score.notes.some(({ company }) => company);
    const phrases = new Set(second.map(({ match }) => match.group.phrase));
    const [early, late] = [Math.min(...phrases), Math.max(...phrases)];
    const at = (phrase: number) => second.filter(({ match }) => match.group.phrase === phrase);
    const rows = voiced ? differences(reading, at(early), at(late)) : differences(reading, first, second);
    const groups = [...first, ...second].map(({ match }) => match.group.index);
    return numbers([
      ...rows,
      ...(voiced
        ? [figure('plain-repeats', phrases.size, { groups: second.map(({ match }) => match.group.index) })]
        : []),
      figure('differences', rows.length === 0 ? null : rows.filter(isSure).length, {
        groups,
        n: rows.length,
      }),
    ]);
  },
  say(figures, { score }) {
    const whole = wholeOf(figures, 'differences');
    if (!whole) return SILENT;
    const repeats = valueOf(figures, 'plain-repeats');
    const rows = COMPARED.flatMap(([id]) => wholeOf(figures, id) ?? []).filter(isSure);
    const changed = rows.flatMap((each) =>
      isKnown(each) ? [`${FIGURES[each.id].label.toLowerCase()} ${signed(each.value, 1)} ${each.unit}`] : [],
    );
    const [a, b] = score.sides ?? ['the first', 'the second'];
    const against =
      repeats === null ? `${capital(b)}, against ${a}` : 'The last plain repeat, against the first';
    const first = rows[0];
    return {
      headline: !isKnown(whole)
        ? 'Too little to compare'
        : first === undefined
          ? 'No difference beyond chance'
          : `${FIGURES[first.id].label} changed`,
      lines: {
        ...(repeats !== null && {
          'plain-repeats': `${capital(plural(repeats, 'plain repeat'))}; while the voice sounded along nothing could be told apart.`,
        }),
        differences: !isKnown(whole)
          ? because(whole.unknown)
          : changed.length === 0
            ? `${against}: nothing changed by more than chance and by as much as matters.`
            : `${against}: ${listed(changed, 6)}.`,
      },
    };
  },
  draw({ figures }, { score }) {
    const rows = COMPARED.flatMap(([id]) => {
      const found = wholeOf(figures, id);
      return isKnown(found) && found.spread !== null ? [{ found, half: HALF_INTERVAL * found.spread }] : [];
    });
    if (rows.length === 0) return [];
    const [a, b] = score.sides ?? ['first', 'second'];
    return [
      {
        kind: 'rows',
        title:
          valueOf(figures, 'plain-repeats') === null
            ? `${b} against ${a}, in intervals of its own`
            : 'Last plain repeat against the first, in intervals of its own',
        form: 'deviations',
        reach: 3,
        sides: ['less', 'more'],
        // Each in halves of its own interval: beyond 1 is more than chance.
        rows: rows.map(({ found, half }) => ({
          name: FIGURES[found.id].label,
          value: half > 0 ? found.value / half : 0,
          from: half > 0 ? (found.value - half) / half : 0,
          to: half > 0 ? (found.value + half) / half : 0,
          text: `${signed(found.value, 1)} ${found.unit} ± ${fixed(half, 1)}`,
          stands: isSure(found),
        })),
      },
    ];
  },
};

const HARDLY_STEPS = 1.5;
const CLEARLY_STEPS = 3;

/** Two colours of one note: how far apart. */
export const colours: Measure = {
  measure(reading) {
    const [first, second] = (['first', 'second'] satisfies Role[]).map((role) => playedAs(reading, role));
    const distances = first!.flatMap((pair, i) => {
      const other = second![i];
      return other ? known([distanceOf(other.note, pair.note).steps]) : [];
    });
    const groups = [...first!, ...second!].map(({ match }) => match.group.index);
    return distances.length === 0
      ? NOTHING
      : numbers([figure('colours-apart', median(distances), { groups, n: distances.length })]);
  },
  say(figures) {
    const apart = valueOf(figures, 'colours-apart');
    if (apart === null) return SILENT;
    return {
      headline: apart < HARDLY_STEPS ? 'One colour' : `Two colours, ${sized(apart, 'steps', 1)} apart`,
      lines: {
        'colours-apart':
          apart < HARDLY_STEPS
            ? 'Hardly to be told apart.'
            : apart < CLEARLY_STEPS
              ? 'Two colours, near to each other.'
              : 'Two clearly different colours.',
      },
    };
  },
};

const MODEL_PARTS = COLOURS.map((feature): readonly [FigureId, ColourId] => [
  `model-${FEATURES[feature].short}`,
  feature,
]);
/** Smaller than this, and it is not heard. */
const HEARD_STEPS = 1;
const MOST_SAID = 2;
const NEARER_STEPS = 0.5;

/** How far one's own colour is from that of a note in a recording, and in what. */
export const model: Measure = {
  measure(reading) {
    const chosen = modelOf(reading.score);
    if (!chosen) return numbers([figure('model-steps', null, {}, 'no-model')]);
    const pairs = playedNotes(reading);
    const rows = pairs.flatMap(({ match, note }) => {
      if (!comparable(chosen, note.soundingMidi)) return [];
      const found = distanceOf({ ...note, levelDb: null }, { ...chosen, levelDb: null });
      return found.steps === null ? [] : [{ group: match.group.index, ...found }];
    });
    const groups = rows.map(({ group }) => group);
    const about = { groups, n: rows.length };
    const [first] = rows;
    if (!first)
      return numbers([
        figure('model-steps', null, {}, pairs.length === 0 ? 'not-played' : 'another-note-than-the-model'),
      ]);
    const steps = rows.map((row) => row.steps ?? 0);
    return numbers([
      ...rows.map(({ group }, i) => figure('model-steps', steps[i]!, { at: group })),
      figure('model-steps', median(steps), about),
      ...(rows.length > 1 ? [figure('model-nearer', steps[0]! - steps[steps.length - 1]!, about)] : []),
      ...MODEL_PARTS.flatMap(([id, feature]) => {
        const values = rows
          .flatMap(({ parts }) => parts.filter((part) => part.feature === feature))
          .map((part) => part.steps);
        return values.length > 0 ? [figure(id, median(values), { groups, n: values.length })] : [];
      }),
    ]);
  },
  say(figures, speaking) {
    const whole = wholeOf(figures, 'model-steps');
    if (!whole) return SILENT;
    if (!isKnown(whole))
      return {
        headline: 'No model to compare with',
        lines: { 'model-steps': `${because(whole.unknown)}${which(speaking)}` },
      };
    const said = modelWords(figures);
    const nearer = valueOf(figures, 'model-nearer') ?? 0;
    const moved =
      Math.abs(nearer) > NEARER_STEPS
        ? ` It ${nearer > 0 ? 'came nearer' : 'went away'} from the first time to the last.`
        : '';
    return {
      headline: said[0] === undefined ? 'Like the model' : `${capital(said[0])} than the model`,
      lines: {
        'model-steps': `${said.length === 0 ? 'Of one colour with the model.' : `Against the model: ${listed(said)}.`}${moved}`,
      },
    };
  },
  draw({ figures }, { nameAt }) {
    const rows = figuresAt(figures, 'model-steps');
    return rows.length === 0
      ? []
      : [
          {
            kind: 'rows',
            title: 'From the model, in just noticed steps',
            form: 'amounts',
            reach: 4,
            rows: rows.map(({ at, value }, i) => ({
              name: `${i + 1}: ${nameAt(at)}`,
              value,
              text: sized(value, 'steps', 1),
            })),
          },
        ];
  },
};

/** In what the notes differ from the model all together, most first. */
function modelWords(figures: readonly Figure[]): string[] {
  return MODEL_PARTS.flatMap(([id, feature]) => {
    const steps = valueOf(figures, id);
    return steps !== null && Math.abs(steps) > HEARD_STEPS ? [{ feature, steps }] : [];
  })
    .sort((a, b) => Math.abs(b.steps) - Math.abs(a.steps))
    .slice(0, MOST_SAID)
    .map(differenceWord);
}

function which({ score, instrument, nameOf }: Speaking): string {
  const chosen = modelOf(score);
  return chosen ? ` The model plays ${nameOf(chosen.soundingMidi - instrument.transposition)}.` : '';
}
