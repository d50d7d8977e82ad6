import { groups } from 'd3-array';
import { FIGURE_IDS, FIGURES, type FigureId } from '@/core/verdict';
import type { Entry } from './entry';
import type { Played } from './played';
import { courseOf, LEAST_SITTINGS, trendThrough, type Trend } from './trend';

/** Which way is better; `zero`: the nearer to it; `neither`: it is told whether it moved, and not judged. */
type Better = 'more' | 'less' | 'zero' | 'neither';

/** Something of a take that is worth following over weeks. */
export interface Followed {
  /** A figure, or the one thing that is followed and is none. */
  readonly id: FigureId | 'clean-tempo';
  readonly label: string;
  readonly unit: string;
  readonly decimals: number;
  readonly better: Better;
  /** What it means. */
  readonly meaning: string;
  readonly of: (entry: Entry) => number | null;
}

/**
 * Figures that are followed, by which way is better: what an exercise is about, and not all that is measured by the way. The
 * more are asked, the less can be claimed of each.
 */
const FIGURES_BETTER = {
  more: [
    'best-hold',
    'purity',
    'slurs-clean',
    'range',
    'window',
    'modes-reached',
    'pulse-depth',
    'bend-down',
    'bend-up',
  ],
  less: [
    'wobble',
    'slur-time',
    'attack-spread',
    'sameness',
    'line',
    'just',
    'bend-even',
    'bend-level',
    'ending',
    'gave-way',
  ],
  zero: [
    'centre',
    'pitch-middle',
    'drift',
    'latency',
    'offset',
    'leaning',
    'octaves',
    'pitch-per-level',
    'ring-gap',
    'ring-cents',
    'top-difference',
    'peak',
  ],
} as const satisfies Record<Exclude<Better, 'neither'>, readonly FigureId[]>;

const SHARES: readonly FigureId[] = ['slurs-clean', 'crossings-clean', 'anchors-same'];

/** A figure that can be followed. Counts are shares, or three of four one day and five of eight the next could not be compared. */
function followedFigure(id: FigureId, better: Better): Followed {
  const { label, unit, decimals, meaning } = FIGURES[id];
  const share = SHARES.includes(id);
  return {
    id,
    label,
    unit: share ? `% ${unit}` : unit,
    decimals: share ? 0 : decimals,
    better,
    meaning,
    of: ({ figures }) => {
      const found = figures[id];
      if (!found) return null;
      const [value, , , of] = found;
      if (share) return of ? (100 * value) / of : null;
      return better === 'more' ? Math.abs(value) : value;
    },
  };
}

/** The fastest that was clean: of takes in which nothing was found. */
const cleanTempo: Followed = {
  id: 'clean-tempo',
  label: 'Tempo at clean',
  unit: 'beats a minute',
  decimals: 0,
  better: 'more',
  meaning:
    'The tempo of takes in which nothing was found to remark upon, by the limits of the day they were kept.',
  of: ({ tempo, faults, figures }) =>
    tempo !== null && figures['slurs-clean'] && Object.keys(faults).length === 0 ? tempo : null,
};

/** All figures that trends are drawn of, each with the way that is better. */
export const FOLLOWED: readonly Followed[] = [
  ...(Object.keys(FIGURES_BETTER) as (keyof typeof FIGURES_BETTER)[]).flatMap((better) =>
    FIGURES_BETTER[better].map((id) => followedFigure(id, better)),
  ),
  cleanTempo,
];

/** Counts that the music asks for: their course would be that of the settings. */
const COUNTS: readonly FigureId[] = [
  'notes-played',
  'events',
  'processing',
  'differences',
  'plain-repeats',
  'sounded',
];

/** All the rest: they can be looked at, and are not judged. */
export const OTHERS: readonly Followed[] = FIGURE_IDS.filter(
  (id) => !COUNTS.includes(id) && FOLLOWED.every((each) => each.id !== id),
).map((id) => followedFigure(id, 'neither'));

/** One figure of one family over time, and whether it moved, and for the better. */
export interface FollowedTrend {
  readonly family: string;
  readonly title: string;
  readonly followed: Followed;
  readonly trend: Trend;
  readonly verdict: 'better' | 'worse' | 'moved' | 'no-change' | 'unknown';
}

function verdictOf({ better }: Followed, { verdict, change, line }: Trend): FollowedTrend['verdict'] {
  if (verdict !== 'moved' || !change || !line) return verdict === 'unknown' ? 'unknown' : 'no-change';
  if (better === 'neither') return 'moved';
  if (better === 'zero') return Math.abs(line[1]) < Math.abs(line[0]) ? 'better' : 'worse';
  return change.value > 0 === (better === 'more') ? 'better' : 'worse';
}

/**
 * All that can be followed, family by family: what moved first, then what did not, then what is too young to say. The error of
 * all of them together is that of one. @param figures which of them: those with a better way, unless others are asked for.
 */
export function followedTrends(
  played: readonly Played[],
  figures: readonly Followed[] = FOLLOWED,
): FollowedTrend[] {
  const candidates = groups(played, ({ entry }) => entry.family).flatMap(([family, same]) =>
    figures.flatMap((followed) => {
      const course = courseOf(same, followed.of);
      return course.points.length < 2 ? [] : [{ family, title: same[0]!.entry.title, followed, course }];
    }),
  );
  // Holm (1979): the clearest is asked as one of all, the next as one of the rest, until one does not move.
  let asked = Math.max(1, candidates.filter(({ course }) => course.points.length >= LEAST_SITTINGS).length);
  const order = { better: 0, worse: 0, moved: 0, 'no-change': 1, unknown: 2 } as const;
  return candidates
    .sort((a, b) => b.course.strength - a.course.strength)
    .map(({ family, title, followed, course }) => {
      const trend = trendThrough(course, asked);
      if (trend.verdict === 'moved') asked--;
      return { family, title, followed, trend, verdict: verdictOf(followed, trend) };
    })
    .sort((a, b) => order[a.verdict] - order[b.verdict]);
}
