import { capital, median } from '@/core/base';
import { lengthOf, type Note } from '@/core/hearing/notes';
import { leaning } from '@/core/tuning';
import { amountOf, beyond, beyondEither, faultAt } from '../beyond';
import { figure, figuresAt, isKnown, most, valueOf, wholeOf, type Figure } from '../figure';
import type { FigureId } from '../figures';
import { numbers, SILENT, type Measure } from '../measure';
import { centsOff, plainNotes, playedNotes, scoreNoteOf, type PlayedNote } from '../reading';
import { because, listed, sized } from '../words';
import { inNodes } from './nodes';
import { mayFadeInRoom, roomSpread } from './roomSpread';
import { centreError, driftError, hasWobble, roomWobble, wobbleHiddenBy } from './wobble';

/** One figure of each note, where it is known. */
function each(
  id: FigureId,
  pairs: readonly PlayedNote[],
  of: (note: Note, pair: PlayedNote) => number | null,
  error: (note: Note) => number | null = () => null,
): Figure[] {
  return pairs.flatMap((pair) => {
    const value = of(pair.note, pair);
    return value === null
      ? []
      : [figure(id, value, { at: pair.match.group.index, spread: error(pair.note) })];
  });
}

/** The median of figures at places, with what it rests on. */
export function middleOf(id: FigureId, from: readonly Figure[], source: FigureId): Figure {
  const rows = figuresAt(from, source);
  const values = rows.map(({ value }) => value);
  const groups = rows.map(({ at }) => at);
  return figure(id, median(values), { groups, spread: spreadOf(values), n: values.length });
}

/** Robust standard deviation: 1.4826 times the median distance from the median. Null of fewer than three. */
export function spreadOf(values: readonly number[]): number | null {
  if (values.length < 3) return null;
  const middle = median(values);
  return 1.4826 * median(values.map((value) => Math.abs(value - middle)));
}

/** A figure has to lie beyond its limit by more than it may be wrong. */
const SURE = { beyondError: true } as const;

/** Where the notes sat, as a whole and one by one. */
export const pitch: Measure = {
  measure(reading) {
    const centres = each(
      'centre',
      playedNotes(reading),
      (_, pair) => centsOff(reading, pair),
      (note) => centreError(reading, note),
    );
    const middle = middleOf('pitch-middle', centres, 'centre');
    if (centres.length === 0 || reading.score.drone.length > 1) return numbers([]);
    const spread = 'spread' in middle ? middle.spread : null;
    return numbers([
      ...centres,
      middle,
      ...(spread === null
        ? []
        : [figure('pitch-spread', spread, { groups: middle.groups, n: centres.length })]),
    ]);
  },
  judge(figures, judging) {
    const { limits, score, matches } = judging;
    const limit = limits.centreCents;
    const centres = figuresAt(figures, 'centre');
    const steady = beyondEither(
      judging,
      centres.length > 1 ? wholeOf(figures, 'pitch-middle') : undefined,
      limit,
      ['steadily-low', 'steadily-high'],
      { confidence: 0.9 },
    );
    if (steady.length > 0) return steady;
    // Over a hairpin the pitch of a note goes with the level, which is told by itself.
    return centres
      .filter(({ at }) => scoreNoteOf({ score }, matches[at]!.group).hairpin === null)
      .flatMap((found) => beyondEither(judging, found, limit, ['steadily-low', 'steadily-high'], SURE));
  },
  say(figures, { limits, nameAt }) {
    const middle = valueOf(figures, 'pitch-middle');
    if (middle === null) return SILENT;
    const centres = figuresAt(figures, 'centre');
    const outside = centres.filter(
      ({ value, spread }) => Math.abs(value) - (spread ?? 0) > limits.centreCents,
    );
    const worst = most(outside);
    return {
      headline: Math.abs(middle) < 1 ? 'In tune as a whole' : `${capital(leaning(middle))} as a whole`,
      lines: {
        'pitch-middle':
          Math.abs(middle) > limits.centreCents
            ? `${capital(leaning(middle))} as a whole, your limit ${sized(limits.centreCents, 'cents')}.`
            : outside.length === 0
              ? `Every note within your limit of ${sized(limits.centreCents, 'cents')}.`
              : `In the middle as a whole; ${listed(outside.map(({ at }) => nameAt(at)))} stood out.`,
        ...(valueOf(figures, 'pitch-spread') !== null && {
          'pitch-spread': worst
            ? `${nameAt(worst.at)} was furthest out, ${leaning(worst.value)}.`
            : 'The notes agree with each other.',
        }),
      },
    };
  },
};

const TREND_SECONDS = 1.2;
/** A movement smaller than this over a whole note is not worth a word, however short the note; nor one that echoes alone could make. */
const LEAST_SAG_CENTS = 2.5;

/** Whether notes were held still: drift, wobble, vibrato, fading. What a hairpin moves is not unsteady. */
export const steadiness: Measure = {
  measure(reading) {
    const pairs = plainNotes(reading);
    const inNode = inNodes(reading);
    const long = pairs.filter(({ note }) => lengthOf(note) > TREND_SECONDS);
    const wobbles = pairs.flatMap(({ note, match: { group } }): Figure[] => {
      if (!hasWobble(note)) return [];
      const hidden = wobbleHiddenBy(note, reading, inNode(note));
      return [figure('wobble', hidden ? null : note.wobbleCents, { at: group.index }, hidden ?? undefined)];
    });
    const [first] = wobbles;
    const groups = wobbles.flatMap((each) => each.groups);
    return numbers([
      ...wobbles,
      ...(wobbles.some(isKnown)
        ? [middleOf('wobble', wobbles, 'wobble')]
        : first && !isKnown(first)
          ? [figure('wobble', null, { groups }, first.unknown)]
          : []),
      ...each(
        'drift',
        long,
        (note) =>
          Math.abs((note.driftCentsPerSecond ?? 0) * lengthOf(note)) <
          Math.hypot(LEAST_SAG_CENTS, 2 * roomWobble(reading, inNode(note)))
            ? null
            : note.driftCentsPerSecond,
        driftError,
      ),
      ...each('fade', long, (note) =>
        mayFadeInRoom(note, reading, inNode(note)) ? null : note.levelDriftDbPerSecond,
      ),
      ...each('vibrato', long, (note) => note.vibrato?.extentCents ?? null),
    ]);
  },
  judge(figures, judging) {
    const { limits, score } = judging;
    return [
      ...figuresAt(figures, 'wobble').flatMap((each) =>
        beyond(judging, each, limits.wobbleCents, 'unsteady'),
      ),
      ...figuresAt(figures, 'drift').flatMap((each) =>
        beyondEither(judging, each, limits.driftCentsPerSecond, ['sinking', 'rising'], SURE),
      ),
      ...figuresAt(figures, 'fade')
        .filter(({ value }) => value < 0)
        .flatMap((each) => beyond(judging, each, limits.fadeDbPerSecond, 'fading-hold')),
      ...(score.vibrato === 'none'
        ? figuresAt(figures, 'vibrato').flatMap((each) =>
            beyond(judging, each, 0.6 * limits.wobbleCents, 'vibrato'),
          )
        : []),
    ];
  },
  say(figures, { limits, nameAt }) {
    const middle = wholeOf(figures, 'wobble');
    if (!middle) return SILENT;
    if (!isKnown(middle)) return { lines: { wobble: because(middle.unknown) } };
    const worst = most(figuresAt(figures, 'wobble'));
    const shook = worst !== undefined && worst.value > limits.wobbleCents;
    const hidden = figures.flatMap((each) =>
      each.id === 'wobble' && each.at !== null && !isKnown(each) ? [nameAt(each.at)] : [],
    );
    const told = shook
      ? `${nameAt(worst.at)} shook most, ${sized(worst.value, 'cents', 1)}.`
      : `Held still, within your limit of ${sized(limits.wobbleCents, 'cents')}.`;
    const untold = `Whether ${listed(hidden)} held still is not known: noise and echoes move the measured pitch by as much.`;
    return {
      headline: shook ? 'Unsteady' : 'Held still',
      lines: { wobble: hidden.length > 0 ? `${told} ${untold}` : told },
    };
  },
};

/** Notes that differ by less are alike whatever the room does; by so many times what it does they differ by themselves. */
const LEAST_LEVEL_SPREAD_DB = 1;
const MAY_BE_ROOM = 2;

/** Evenness of loudness among notes that were to be alike. */
export const level: Measure = {
  measure(reading) {
    const pairs = plainNotes(reading);
    const byDynamic = new Map<string, PlayedNote[]>();
    for (const pair of pairs) {
      if (pair.note.levelDb === null) continue;
      const { dynamic } = scoreNoteOf(reading, pair.match.group);
      byDynamic.set(dynamic, [...(byDynamic.get(dynamic) ?? []), pair]);
    }
    const alike = [...byDynamic.values()].filter((group) => group.length > 1);
    const deviations = alike.flatMap((group) => {
      const middle = median(group.map(({ note }) => note.levelDb!));
      return group.map(({ note }) => Math.abs(note.levelDb! - middle));
    });
    const groups = alike.flat().map(({ match }) => match.group.index);
    const reason = pairs[0]?.note.unknown['levelDb'];
    if (deviations.length < 3 && reason === undefined) return numbers([]);
    const value = deviations.length < 3 ? null : 1.4826 * median(deviations);
    const room = median(alike.flat().map(({ note }) => roomSpread(reading, [note])));
    const about = { groups, n: deviations.length, spread: room > 0 ? room : null };
    return numbers([
      value !== null && value > LEAST_LEVEL_SPREAD_DB && value < MAY_BE_ROOM * room
        ? figure('level-spread', null, about, 'room')
        : figure('level-spread', value, about, reason),
    ]);
  },
  say(figures, { limits }) {
    const found = wholeOf(figures, 'level-spread');
    if (!found) return SILENT;
    if (!isKnown(found))
      return {
        lines: {
          'level-spread':
            found.unknown === 'room'
              ? 'Not known: this room by itself makes notes differ in level by as much.'
              : because(found.unknown),
        },
      };
    return {
      lines: {
        'level-spread':
          found.value < limits.levelStepDb / 3
            ? 'The notes were alike in level.'
            : 'The notes differed in level.',
      },
    };
  },
};

const SOFT = ['pp', 'p'];

/** Air beside the tone. */
export const air: Measure = {
  measure(reading) {
    const rows = each('air', playedNotes(reading), (note) => note.airinessDb);
    return numbers(rows.length === 0 ? [] : [...rows, middleOf('air', rows, 'air')]);
  },
  judge(figures, judging) {
    const { limits, score, matches } = judging;
    // The softest notes always have more air for the room.
    return figuresAt(figures, 'air')
      .filter(
        ({ at, value }) =>
          value > limits.airinessDb && !SOFT.includes(scoreNoteOf({ score }, matches[at]!.group).dynamic),
      )
      .map((each) =>
        faultAt(
          judging,
          each.at,
          'airy',
          1 + (each.value - limits.airinessDb) / 8,
          amountOf(each, limits.airinessDb),
          { confidence: 0.6 },
        ),
      );
  },
  say(figures, { limits, nameAt }) {
    const airy = figuresAt(figures, 'air').filter(({ value }) => value > limits.airinessDb);
    if (valueOf(figures, 'air') === null) return SILENT;
    return {
      lines: {
        air:
          airy.length === 0
            ? 'The tone stands clear of the air.'
            : `Much air beside ${listed(airy.map(({ at }) => nameAt(at)))}.`,
      },
    };
  },
};
