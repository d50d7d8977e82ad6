import { median, quantile, type Seconds } from '@/core/base';
import { glideOf } from '@/core/music';
import { leaning } from '@/core/tuning';
import type { Chart } from '../charts';
import { figure, isKnown, valueOf, wholeOf, type Figure } from '../figure';
import { NOTHING, numbers, SILENT, type Curve, type Measure } from '../measure';
import { playedAs, roleOf, traced, type PlayedNote, type Reading } from '../reading';
import { because, fixed, sized } from '../words';
import { roomSpread } from './roomSpread';

const SMOOTH = 5;
/** The first and last of a glide belong to the notes beside it. */
const EDGE: Seconds = 0.06;
const HARDLY_CENTS = 15;
const SMOOTH_GLIDE_CENTS = 8;
const NEARLY_GONE_DB = 10;

/** How far the pitch was moved each way, how evenly, and what the tone lost. */
export const bend: Measure = {
  measure(reading) {
    const { score, trace, alignment, notes, beats, events } = reading;
    const heard = alignment.matches.flatMap(({ parts }) => parts);
    if (heard.length === 0 || score.notes.length === 0) return NOTHING;
    const start = notes[heard[0]!]!.startSeconds;
    const end = notes[heard[heard.length - 1]!]!.endSeconds;
    const total = Math.max(...score.notes.map((note) => note.startBeat + note.beats));
    const at = (beat: number) => beats.secondsOf?.(beat) ?? start + (beat / total) * (end - start);
    const first = score.notes[0]!;
    const plain = [at(0) + 0.3, at(first.beats) - 0.1] as const;
    const centre = median(traced(trace, 'pitchMidi', ...plain));
    const plainDb = median(traced(trace, 'levelDb', ...plain));
    const legs = score.notes.flatMap((note, index) => {
      const glide = glideOf(note.role);
      if (!glide) return [];
      const from = Math.max(start, at(note.startBeat));
      const to = Math.min(end, at(note.startBeat + note.beats));
      const pitch = traced(trace, 'pitchMidi', from, to);
      // Where nothing is pitched there is no tone to lose: a breath, or the silence after the last.
      const inside = traced(trace, 'pitchMidi', from + EDGE, to - EDGE);
      const level = traced(trace, 'levelDb', from + EDGE, to - EDGE).filter((_, i) =>
        Number.isFinite(inside[i]!),
      );
      const raw = pitch.map((each) => 100 * (each - centre));
      const cents = raw.map((_, i) =>
        median(raw.slice(Math.max(0, i - (SMOOTH >> 1)), i + (SMOOTH >> 1) + 1)),
      );
      const known = cents.filter((value) => Number.isFinite(value) && Math.abs(value) < 400);
      const down = Math.min(glide.from, glide.to) < 0;
      return [
        {
          index,
          down,
          reach: known.length === 0 ? 0 : down ? Math.min(...known) : Math.max(...known),
          uneven: unevenness(known),
          lostDb: plainDb - quantile(level, 0.05),
          points: cents.flatMap((y, i) =>
            Number.isFinite(y) ? [{ x: (i + 0.5) * trace.stepSeconds, y }] : [],
          ),
        },
      ];
    });
    const reachOf = (down: boolean) =>
      Math.max(0, ...legs.filter((leg) => leg.down === down).map((leg) => (down ? -leg.reach : leg.reach)));
    const groups = alignment.matches.filter(({ note }) => note !== null).map(({ group }) => group.index);
    const losses = legs.map((leg) => leg.lostDb).filter(Number.isFinite);
    const lost = losses.length > 0 ? Math.max(0, ...losses) : null;
    // A pitch that moves goes through the nodes of the room.
    const room = 2 * roomSpread(reading, [notes[heard[0]!]!]);
    const isOfRoom = lost !== null && lost > NEARLY_GONE_DB && lost - room <= NEARLY_GONE_DB;
    const broke = events.filter(({ kind }) => kind === 'break' || kind === 'squeak').length;
    return {
      figures: [
        figure('bend-down', reachOf(true), { groups }),
        figure('bend-up', reachOf(false), { groups }),
        figure('bend-even', median(legs.map((leg) => leg.uneven)), { groups, n: legs.length }, 'too-short'),
        figure(
          'bend-level',
          isOfRoom ? null : lost,
          { groups, n: legs.length },
          isOfRoom ? 'room' : 'too-few',
        ),
        figure('bend-broke', broke, { groups }),
      ],
      curves: legs.map(({ index, points }): Curve => ({ of: 'bend', at: index, points })),
    };
  },
  say(figures) {
    const down = valueOf(figures, 'bend-down');
    const up = valueOf(figures, 'bend-up');
    if (down === null || up === null) return SILENT;
    const even = wholeOf(figures, 'bend-even');
    const lost = wholeOf(figures, 'bend-level');
    const far = (cents: number, way: string) =>
      cents < HARDLY_CENTS
        ? 'It hardly moved.'
        : `${fixed(cents / 100, 1)} of a semitone ${way} the plain note.`;
    return {
      headline: `${sized(down, 'cents')} down, ${sized(up, 'cents')} up`,
      lines: {
        'bend-down': far(down, 'below'),
        'bend-up': far(up, 'above'),
        'bend-even': isKnown(even)
          ? even.value < SMOOTH_GLIDE_CENTS
            ? 'A smooth way.'
            : 'In steps.'
          : because(even?.unknown ?? 'too-short'),
        'bend-level': !isKnown(lost)
          ? because(lost?.unknown ?? 'too-short')
          : (valueOf(figures, 'bend-broke') ?? 0) > 0
            ? 'It broke on the way.'
            : lost.value > NEARLY_GONE_DB
              ? 'The tone nearly went.'
              : 'The tone survived.',
      },
    };
  },
  draw: ({ curves }, { score }): Chart[] =>
    curves.length === 0
      ? []
      : [
          {
            kind: 'curves',
            title: 'Each glide, from the plain note',
            x: { label: 'time', unit: 's' },
            y: { label: 'pitch', unit: 'cents' },
            zero: 0,
            lines: curves.map(({ at, points }) => ({
              name: score.notes[at]?.label ?? '',
              style: glideOf(score.notes[at]?.role ?? null)?.to === 0 ? 'second' : 'played',
              points,
            })),
            marks: [],
          },
        ],
};

/** Mean distance from the straight way between the two ends. */
function unevenness(cents: readonly number[]): number {
  if (cents.length < 8) return NaN;
  const inner = cents.slice(1, -1);
  const [a, b] = [inner[0]!, inner[inner.length - 1]!];
  const off = inner.map((value, i) => Math.abs(value - a - ((b - a) * i) / (inner.length - 1)));
  return off.reduce((sum, each) => sum + each, 0) / off.length;
}

const RICHER_PARTIALS = 2;
const STAYED_CENTS = 10;
const RICHEST_SECONDS: Seconds = 0.5;

/** Richness along some notes: their times end to end, in seconds from the first. */
function richnessAlong(reading: Reading, pairs: readonly PlayedNote[]) {
  const { trace } = reading;
  let before = 0;
  return pairs.flatMap(({ match, note }) => {
    const [from, to] = [note.startSeconds + 0.2, note.endSeconds - 0.1];
    const rich = traced(trace, 'richness', from, to);
    const pitch = traced(trace, 'pitchMidi', from, to);
    const rows = rich.flatMap((y, i) =>
      Number.isFinite(y)
        ? [
            {
              x: before + (i + 0.5) * trace.stepSeconds,
              y,
              cents: 100 * (pitch[i]! - match.group.sounding),
              group: match.group.index,
            },
          ]
        : [],
    );
    before += Math.max(0, to - from);
    return rows;
  });
}

function richFigures(rows: ReturnType<typeof richnessAlong>): Figure[] {
  const groups = [...new Set(rows.map(({ group }) => group))];
  const values = rows.map(({ y }) => y);
  const best = quantile(values, 0.95);
  const middle = median(rows.map(({ cents }) => cents));
  const moved = rows.map(({ cents }) => Math.abs(cents - middle)).filter(Number.isFinite);
  return [
    figure('richest', best, { groups, n: rows.length }),
    figure('richest-more', best - median(values), { groups, n: rows.length }),
    figure('strayed', quantile(moved, 0.9), { groups, n: moved.length }),
  ];
}

const strayedText = (cents: number | null) =>
  cents === null ? because('too-few') : cents < STAYED_CENTS ? 'The pitch stayed.' : 'The pitch moved along.';

/** A note held near its breaking point: how rich it grew. */
export const edge: Measure = {
  measure(reading) {
    const rows = richnessAlong(reading, playedAs(reading, 'edge'));
    return rows.length === 0 ? NOTHING : numbers(richFigures(rows));
  },
  say(figures) {
    const best = valueOf(figures, 'richest');
    if (best === null) return SILENT;
    return {
      headline: `${sized(best, 'partials')} at the edge`,
      lines: {
        richest:
          (valueOf(figures, 'richest-more') ?? 0) > RICHER_PARTIALS
            ? 'Clearly richer in places: look for what you did there.'
            : 'Much the same all along.',
        strayed: strayedText(valueOf(figures, 'strayed')),
      },
    };
  },
};

/** The stream's angle moved slowly: where the note is richest, and where its pitch is there. */
export const angle: Measure = {
  measure(reading) {
    const pairs = playedAs(reading, 'one-way', 'and-back');
    const rows = richnessAlong(reading, pairs);
    if (rows.length === 0) return NOTHING;
    const step = reading.trace.stepSeconds;
    const span = Math.max(1, Math.round(RICHEST_SECONDS / step));
    const means = rows.map((_, i) => {
      const near = rows.slice(Math.max(0, i - (span >> 1)), i + (span >> 1) + 1);
      return near.reduce((sum, { y }) => sum + y, 0) / near.length;
    });
    const at = means.indexOf(Math.max(...means));
    const there = rows.slice(Math.max(0, at - (span >> 1)), at + (span >> 1) + 1);
    const middle = median(rows.map(({ cents }) => cents));
    const group = rows[at]!.group;
    const clear = quantile(means, 0.95) - median(means) >= 1;
    return {
      figures: [
        ...richFigures(rows),
        figure('richest-at', clear ? rows[at]!.x : null, { groups: [group] }, 'same-everywhere'),
        figure('richest-cents', median(there.map(({ cents }) => cents)) - middle, {
          groups: [group],
          n: there.length,
        }),
      ],
      curves: [{ of: 'richness', at: rows[0]!.group, points: rows.map(({ x }, i) => ({ x, y: means[i]! })) }],
    };
  },
  say(figures, { score, matches }) {
    const best = valueOf(figures, 'richest');
    const at = wholeOf(figures, 'richest-at');
    if (best === null) return SILENT;
    const cents = valueOf(figures, 'richest-cents') ?? 0;
    const [group] = at?.groups ?? [];
    const back = group !== undefined && roleOf({ score }, matches[group]!.group) === 'and-back';
    return {
      headline: isKnown(at)
        ? `Richest ${fixed(at.value, 1)} s in, on the way ${back ? 'back' : 'out'}`
        : 'Equally rich all along',
      lines: {
        'richest-at': isKnown(at)
          ? `On the way ${back ? 'back' : 'out'}: ${sized(best, 'partials')} there, ${sized(valueOf(figures, 'richest-more') ?? 0, 'partials')} more than in the middle.`
          : because(at?.unknown ?? 'same-everywhere'),
        'richest-cents': `There the pitch was ${leaning(cents)} against its middle.`,
        strayed: strayedText(valueOf(figures, 'strayed')),
      },
    };
  },
  draw: ({ figures, curves }): Chart[] => {
    const at = valueOf(figures, 'richest-at');
    const [curve] = curves;
    if (!curve) return [];
    return [
      {
        kind: 'curves',
        title: 'Richness along the angle',
        x: { label: 'time', unit: 's' },
        y: { label: 'richness', unit: 'partials' },
        lines: [{ name: 'richness', style: 'played', points: curve.points }],
        marks: at === null ? [] : [{ x: at, text: 'richest' }],
      },
    ];
  },
};
