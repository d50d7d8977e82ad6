import { median } from '@/core/base';
import type { Note } from '@/core/hearing/notes';
import type { Role } from '@/core/music';
import { leaning } from '@/core/tuning';
import type { Chart } from '../charts';
import { figure, figuresAt, isKnown, valueOf, wholeOf, type Figure } from '../figure';
import { numbers, type Measure, type Speaking } from '../measure';
import { centsOff, known, playedAs, roleOf, type PlayedNote, type Reading } from '../reading';
import { distanceOf } from '../sameness';
import { fixed } from '../words';
import { unknownRise } from './rise';
import { judgedSlurs } from './slurs';

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
    const begun = (role: Role) => of(role).filter(({ match }) => !match.group.slurred);
    const rise = (role: Role) => median(known(begun(role).map(({ note }) => note.attack.riseSeconds)));
    const tongued = of('tongued');
    const breath = of('breath-only');
    const bodies = breath.flatMap(({ note }, i) => {
      const other: Note | undefined = tongued[i]?.note;
      return other ? known([distanceOf(note, other).steps]) : [];
    });
    const groups = (role: Role) => of(role).map(({ match }) => match.group.index);
    const apart = 1000 * Math.abs(rise('tongued') - rise('back-of-tongue'));
    const [first] = begun('tongued');
    const tongues = { groups: [...groups('tongued'), ...groups('back-of-tongue')] };
    return numbers([
      ...(first && begun('back-of-tongue').length > 0
        ? [figure('two-tongues', apart, tongues, first.note.unknown['riseSeconds'])]
        : []),
      ...(bodies.length > 0
        ? [figure('breath-body', median(bodies), { groups: groups('breath-only'), n: bodies.length })]
        : []),
      ...WAYS.flatMap(([role]) => wayFigures(reading, of(role))),
    ]);
  },
  say(figures, { limits }) {
    const apart = wholeOf(figures, 'two-tongues');
    const body = valueOf(figures, 'breath-body');
    return {
      headline: 'The ways matched',
      lines: {
        ...(apart && {
          'two-tongues': !isKnown(apart)
            ? unknownRise(apart.unknown, 'Whether the two rose alike')
            : apart.value < SAME_RISE_MS
              ? 'Not to be told apart.'
              : 'The two can be told apart.',
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
  const slurs = judgedSlurs({ score, matches, instrument }, faults, figures);
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
