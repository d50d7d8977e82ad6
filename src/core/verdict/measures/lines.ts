import { deviation } from 'd3-array';
import { leastSquares, median, robustSlopeOver, type Cents, type Decibels, type Seconds } from '@/core/base';
import type { Note } from '@/core/hearing/notes';
import { blurOf } from '@/core/hearing/room';
import { hairpinsOf, type Hairpin } from '@/core/music';
import { leaning } from '@/core/tuning';
import type { Chart } from '../charts';
import { amountOf, beyond, beyondEither, faultAt } from '../beyond';
import { figure, figuresAt, isKnown, most, valueOf, wholeOf, type Figure } from '../figure';
import type { FigureId } from '../figures';
import { NOTHING, numbers, SILENT, type Curve, type Measure } from '../measure';
import { bodyIn, centsOff, pitchOf, playedAs, traced, type Reading } from '../reading';
import { inNodes, type InNode } from './nodes';
import { roomSpread, WITHIN_NOTE } from './roomSpread';
import { because, listed, plural, sized } from '../words';
import { roomWobble } from './wobble';
import type { Match } from '@/core/hearing/matching';

const ATTACK: Seconds = 0.15;
const RELEASE: Seconds = 0.08;
const TURN_DB = 1.5;
const SMOOTH: Seconds = 0.2;
const LEAST_RANGE_DB = 6;
const LEAST_LEVEL_STEP_DB = 3;
const SHORTEST: Seconds = 0.6;
/** Of a few notes echoes may move the level by so much more than of many: 95 % of χ²/n about a line through five. */
const OF_FEW = 1.25;
/** A line that goes so far the other way was played the other way. */
const OTHER_WAY_DB = -3;
/** Of a line of one note, what its beginning and its end are: this share of it. */
const EDGES = 0.2;
/** Nearer to the room than this, noise moves the pitch of an end. */
const OVER_FLOOR_DB = 15;
/** A taper that still stands this far over the room when it ends was cut. */
const SOFT_END_DB = 15;

/** One hairpin as it was played: its notes, and from when to when. */
interface Span {
  readonly hairpin: Hairpin;
  readonly matches: readonly Match[];
  readonly start: Seconds;
  readonly end: Seconds;
}

/** Every hairpin of the take whose notes were all heard. */
function spansOf(reading: Reading): Span[] {
  const { score, alignment, notes } = reading;
  return hairpinsOf(score.notes).flatMap((span): Span[] => {
    const matches = alignment.matches.filter(({ group }) => group.to >= span.from && group.from <= span.to);
    const heard = matches.flatMap(({ parts }) => parts);
    if (heard.length === 0 || matches.some(({ state }) => state !== 'played')) return [];
    const start = notes[heard[0]!]!.startSeconds;
    const end = notes[heard[heard.length - 1]!]!.endSeconds;
    return end - start < SHORTEST ? [] : [{ hairpin: span.hairpin, matches, start, end }];
  });
}

/** Level against the asked line, and pitch against level: each note against its own target. */
export const line: Measure = {
  measure(reading) {
    const inNode = inNodes(reading);
    const played = spansOf(reading).map((span) => lineOf(reading, span, inNode));
    if (played.length === 0) return NOTHING;
    const figures = played.flatMap((each) => each.figures);
    const middle = (id: FigureId, source: FigureId, reason?: Parameters<typeof figure>[3]) => {
      const rows = figuresAt(figures, source);
      const values = rows.map(({ value }) => value);
      const about = { groups: rows.flatMap(({ groups }) => [...groups]), n: rows.length };
      return figure(
        id,
        values.length > 0 ? median(values) : null,
        { ...about, spread: spreadAmong(rows) },
        reason,
      );
    };
    const has = (id: FigureId) => figuresAt(figures, id).length > 0;
    return {
      figures: [
        ...figures,
        middle('line', 'line-off', 'room'),
        middle('range', 'line-range'),
        middle('pitch-per-level', 'line-slope', 'steady-level'),
        ...(has('peak') ? [middle('peak', 'peak')] : []),
        ...(has('ending') ? [middle('ending', 'ending')] : []),
      ],
      curves: played.flatMap((each) => each.curves),
    };
  },

  judge(figures, judging) {
    const { limits, score } = judging;
    if (score.counts.exploring) return [];
    const slope = wholeOf(figures, 'pitch-per-level');
    const range = wholeOf(figures, 'range');
    const sure = isKnown(slope) && Math.abs(slope.value) - (slope.spread ?? 0) > limits.centsPer10Db;
    return [
      ...(sure
        ? beyond(
            judging,
            slope,
            limits.centsPer10Db,
            slope.value > 0 ? 'flat-when-fading' : 'sharp-when-fading',
          )
        : []),
      ...figuresAt(figures, 'line-off').flatMap((each) =>
        beyond(judging, each, limits.lineDb, 'uneven-line'),
      ),
      ...figuresAt(figures, 'line-rise')
        .filter(({ value }) => value < OTHER_WAY_DB)
        .map((each) => faultAt(judging, each.at, 'wrong-way', 2, amountOf(each, null))),
      ...figuresAt(figures, 'peak').flatMap((each) =>
        beyondEither(judging, each, limits.topMs, ['early-top', 'late-top']),
      ),
      ...(sure
        ? []
        : figuresAt(figures, 'line-moved').flatMap((each) =>
            beyondEither(judging, each, limits.endingCents, ['end-low', 'end-high']),
          )),
      ...(isKnown(range) && range.value < limits.rangeDb && asksRange(score)
        ? [
            faultAt(
              judging,
              null,
              'narrow-window',
              limits.rangeDb / Math.max(1, range.value),
              amountOf(range, limits.rangeDb),
            ),
          ]
        : []),
    ];
  },

  say(figures, { limits, nameAt, score }) {
    const off = wholeOf(figures, 'line');
    const range = valueOf(figures, 'range');
    if (!off || range === null) return SILENT;
    const slope = wholeOf(figures, 'pitch-per-level');
    const uneven = figuresAt(figures, 'line-off').filter(({ value }) => value > limits.lineDb);
    const turns = figuresAt(figures, 'turns').reduce((sum, { value }) => sum + value, 0);
    const peak = most(figuresAt(figures, 'peak'));
    const moved = figures.filter(({ id }) => id === 'line-moved');
    const strayed = most(moved.filter(isKnown));
    const isKept =
      isKnown(slope) &&
      Math.abs(slope.value) <= limits.centsPer10Db &&
      moved.every(isKnown) &&
      Math.abs(strayed?.value ?? 0) <= limits.endingCents;
    const isEven = figures.every((each) => each.id !== 'line-off' || isKnown(each)) && turns === 0;
    const ends = figuresAt(figures, 'ending');
    const cut = ends.filter(({ value }) => value >= SOFT_END_DB);
    return {
      headline: isEven
        ? isKept
          ? 'An even line, and the pitch kept'
          : 'An even line'
        : isKept
          ? 'The pitch kept'
          : `${sized(range, 'dB')} between soft and loud`,
      lines: {
        line: !isKnown(off)
          ? because(off.unknown)
          : uneven.length > 0
            ? `The line is uneven at ${listed(uneven.map(({ at }) => nameAt(at)))}, your limit ${sized(limits.lineDb, 'dB', 1)}.`
            : turns > 0
              ? `The line is even, but for ${plural(turns, 'step')} the wrong way.`
              : 'The line is even.',
        range: asksRange(score)
          ? `${range < limits.rangeDb ? 'Less than' : 'At least'} your limit of ${sized(limits.rangeDb, 'dB')} between soft and loud.`
          : `${sized(range, 'dB')} between soft and loud.`,
        'pitch-per-level': !isKnown(slope)
          ? because(slope?.unknown ?? 'steady-level')
          : Math.abs(slope.value) <= limits.centsPer10Db
            ? strayed && Math.abs(strayed.value) > limits.endingCents
              ? `As a whole the pitch does not go with the level; the end of ${nameAt(strayed.at ?? 0)} lay ${leaning(strayed.value)} against its beginning.`
              : `The pitch stayed where it was, within your limit of ${sized(limits.centsPer10Db, 'cents')} per 10 dB.`
            : slope.value > 0
              ? `Flat when soft, sharp when loud; your limit is ${sized(limits.centsPer10Db, 'cents')} per 10 dB.`
              : `Sharp when soft, flat when loud; your limit is ${sized(limits.centsPer10Db, 'cents')} per 10 dB.`,
        ...(peak && {
          peak:
            Math.abs(peak.value) <= limits.topMs
              ? 'On its beat.'
              : `The top of ${nameAt(peak.at)} came ${sized(peak.value, 'ms')} ${peak.value < 0 ? 'early' : 'late'}.`,
        }),
        ...(ends.length > 0 && {
          ending:
            cut.length === 0
              ? `${ends.length === 1 ? 'The note' : 'Each note'} vanished.`
              : `${cut.length} of ${plural(ends.length, 'note')} ended before the sound had vanished.`,
        }),
      },
    };
  },

  draw: ({ curves }, { nameAt }) =>
    [...new Set(curves.map(({ at }) => at))].map((at): Chart => {
      const of = (what: Curve['of']) =>
        curves.find((each) => each.at === at && each.of === what)?.points ?? [];
      return {
        kind: 'curves',
        title: `${nameAt(at)}: level against the line`,
        x: { label: 'time', unit: 's' },
        y: { label: 'level', unit: 'dBFS' },
        lines: [
          { name: 'asked', style: 'asked', points: of('asked') },
          { name: 'played', style: 'played', points: of('level') },
        ],
        marks: [],
      };
    }),
};

/** Whether a range is asked for at all: two quavers ask for none, nor does what explores. */
const asksRange = ({ notes, counts }: Reading['score']): boolean =>
  !counts.exploring &&
  hairpinsOf(notes).some(
    ({ from, to }) => notes[to]!.startBeat + notes[to]!.beats - notes[from]!.startBeat >= 3,
  );

/** How sure the middle of several lines is; of one, what its own figure says. */
function spreadAmong(
  rows: readonly { readonly value: number; readonly spread: number | null }[],
): number | null {
  const own = rows.flatMap(({ spread }) => spread ?? []);
  if (rows.length < 3) return own.length > 0 ? median(own) : null;
  return (deviation(rows, ({ value }) => value) ?? 0) / Math.sqrt(rows.length);
}

function lineOf(
  reading: Reading,
  { hairpin, matches, start, end }: Span,
  inNode: InNode,
): { figures: Figure[]; curves: Curve[] } {
  const { trace, conditions, limits, notes, room } = reading;
  const step = trace.stepSeconds;
  const length = end - start;
  const from = start + Math.min(ATTACK, length / 6);
  // What a room rings on by at the end is not of the line.
  const to = end - Math.min(Math.max(RELEASE, blurOf(room.decaySeconds)), length / 8);
  const played = matches.map(({ note }) => notes[note!]!);
  const at = matches[0]!.group.index;
  const about = { at, groups: matches.map(({ group }) => group.index) };
  const level = smooth(traced(trace, 'levelDb', from, to), Math.max(1, Math.round(SMOOTH / step)));
  const firstStep = Math.ceil(from / step);
  const time = (i: number) => (firstStep + i + 0.5) * step - start;
  const shape = (i: number) => {
    const place = Math.min(1, time(i) / length);
    return hairpin === 'swell' ? 1 - Math.abs(2 * place - 1) : hairpin === 'grow' ? place : 1 - place;
  };
  // The nearest line of the asked shape: `low + rise·shape`.
  const { slope: rise, intercept: low } = leastSquares(
    level.map((_, i) => shape(i)),
    level,
  );
  const off = level.map((dB, i) => dB - low - rise * shape(i));
  const offDb = Math.sqrt(off.reduce((sum, dB) => sum + dB * dB, 0) / Math.max(1, off.length));
  // Echoes that add up differently from note to note wander as much by themselves; a single note hardly moves among them.
  const ofNote = roomSpread(reading, played) / Math.sqrt(played.length);
  const wander = played.length > 1 ? ofNote : WITHIN_NOTE * ofNote * inNode(played[0]!);
  const loudest = level.indexOf(Math.max(...level));
  const turns = turnsIn(level, hairpin, loudest);
  const rangeDb = Math.max(...level) - Math.min(...level);
  const slope = slopeOf(reading, matches, rangeDb);
  const last = median(level.slice(-Math.max(2, Math.round(0.25 / step))));
  return {
    figures: [
      figure(
        'line-off',
        offDb > limits.lineDb && Math.hypot(limits.lineDb, OF_FEW * wander) >= offDb ? null : offDb,
        about,
        'room',
      ),
      figure('line-range', rangeDb, about),
      // What echoes alone may turn round was not played so.
      figure(
        'line-rise',
        rise < OTHER_WAY_DB && rise + 2 * wander >= OTHER_WAY_DB ? null : rise,
        about,
        'room',
      ),
      ...(matches.length === 1
        ? [figure('line-moved', movedIn(reading, played[0]!, last, inNode), about, 'room')]
        : []),
      ...(slope ? [figure('line-slope', slope.value, { ...about, spread: slope.spread, n: slope.n })] : []),
      // The room may go the other way by itself.
      figure('turns', turns > 0 && 2 * wander > TURN_DB ? null : turns, about, 'room'),
      ...(hairpin === 'swell'
        ? [figure('peak', 2 * wander > TURN_DB ? null : 1000 * (time(loudest) - length / 2), about, 'room')]
        : []),
      ...(hairpin === 'fade' && matches.length === 1
        ? [figure('ending', last - conditions.floorDb, about)]
        : []),
    ],
    curves: [
      { of: 'level', at, points: level.map((y, i) => ({ x: time(i), y })) },
      { of: 'asked', at, points: level.map((_, i) => ({ x: time(i), y: low + rise * shape(i) })) },
    ],
  };
}

/** How far the end of a line of one note lies from its beginning; null where noise or echoes may have moved it. */
function movedIn(reading: Reading, note: Note, endDb: Decibels, inNode: InNode): Cents | null {
  const { from, to } = bodyIn(reading, note);
  const pitches = reading.trace.pitchMidi.slice(from, to).map((pitch) => pitch ?? NaN);
  const edge = Math.ceil(EDGES * pitches.length);
  const cents = 100 * (median(pitches.slice(-edge)) - median(pitches.slice(0, edge)));
  const isOfRoom = Math.abs(cents) < 2 * roomWobble(reading, inNode(note));
  const isNoisy = endDb < reading.conditions.floorDb + OVER_FLOOR_DB;
  return !Number.isFinite(cents) || (isNoisy && Math.abs(cents) > reading.limits.endingCents) || isOfRoom
    ? null
    : cents;
}

/**
 * Pitch per 10 dB over a line (Theil–Sen), each note's pitch against its own target. Of several notes the scatter between them
 * says how sure it is: some notes of an instrument lie high or low by themselves.
 */
function slopeOf(reading: Reading, matches: readonly Match[], rangeDb: number) {
  if (rangeDb < LEAST_RANGE_DB) return null;
  const rows = matches.flatMap((match) => {
    if (match.note === null) return [];
    const note = reading.notes[match.note]!;
    const centre = centsOff(reading, { match, note });
    if (centre === null) return [];
    const pitch = pitchOf(reading, note);
    const { from, to } = bodyIn(reading, note);
    return [
      {
        cents: reading.trace.pitchMidi
          .slice(from, to)
          .map((each) => (each === null ? NaN : 100 * (each - pitch) + centre)),
        level: reading.trace.levelDb.slice(from, to).map((each) => each ?? NaN),
      },
    ];
  });
  const level = rows.flatMap((row) => row.level);
  const cents = rows.flatMap((row) => row.cents).map((each) => (Math.abs(each) < 200 ? each : NaN));
  const value = 10 * robustSlopeOver(level, cents, LEAST_LEVEL_STEP_DB);
  if (!Number.isFinite(value)) return null;
  return { value, spread: rows.length < 2 ? null : errorOf(rows, value), n: rows.length };
}

/** Standard error of the slope through the notes' middles, per 10 dB. */
function errorOf(rows: readonly { cents: number[]; level: number[] }[], per10Db: number): number | null {
  const points = rows.map((row) => ({ x: median(row.level) / 10, y: median(row.cents) }));
  const rest = points.map(({ x, y }) => y - per10Db * x);
  const across = deviation(points, ({ x }) => x) ?? 0;
  const scatter = deviation(rest) ?? 0;
  return across > 0 ? scatter / (across * Math.sqrt(points.length)) : null;
}

const smooth = (values: readonly number[], count: number): number[] =>
  values.map((_, i) => median(values.slice(Math.max(0, i - (count >> 1)), i + (count >> 1) + 1)));

/** Reversals of the level by more than `TURN_DB` against the way it is to go. */
function turnsIn(level: readonly number[], hairpin: Hairpin, peak: number): number {
  let turns = 0;
  let mark = level[0] ?? 0;
  let against = false;
  level.forEach((dB, i) => {
    const up = hairpin === 'grow' || (hairpin === 'swell' && i < peak);
    const way = up ? dB - mark : mark - dB;
    if (way > 0 || i === peak) {
      mark = dB;
      against = false;
    } else if (-way > TURN_DB && !against) {
      turns++;
      against = true;
      mark = dB;
    } else if (-way > 0 && against) mark = dB;
  });
  return turns;
}

/** A line grown into and faded into: where its top lies, both ways. */
export const bothWays: Measure = {
  measure(reading) {
    const top = (role: 'reversed' | 'as-written') => {
      const all = playedAs(reading, role);
      const highest = Math.max(...all.map(({ match }) => match.group.written));
      const tops = all.filter(({ match }) => match.group.written === highest);
      const values = tops.flatMap((pair) => centsOff(reading, pair) ?? []);
      return { value: median(values), groups: tops.map(({ match }) => match.group.index), n: values.length };
    };
    const [reversed, written] = [top('reversed'), top('as-written')];
    return numbers([
      figure('top-reversed', reversed.value, reversed, 'not-played'),
      figure('top-written', written.value, written, 'not-played'),
      figure(
        'top-difference',
        written.value - reversed.value,
        { groups: [...reversed.groups, ...written.groups] },
        'not-played',
      ),
    ]);
  },
  say(figures, { limits, nameAt }) {
    const [reversed, written, apart] = (['top-reversed', 'top-written', 'top-difference'] as const).map(
      (id) => wholeOf(figures, id),
    );
    const name = reversed && reversed.groups.length > 0 ? nameAt(reversed.groups[0]!) : 'the top';
    const tell = (found: Figure | undefined, how: string) =>
      isKnown(found)
        ? `${how}, ${name} was ${leaning(found.value)}.`
        : because(found?.unknown ?? 'not-played');
    return {
      headline: isKnown(apart) ? 'The top the same both ways' : 'One way only',
      lines: {
        'top-reversed': tell(reversed, 'Grown into'),
        'top-written': tell(written, 'Faded into'),
        'top-difference': isKnown(apart)
          ? Math.abs(apart.value) <= limits.centreCents
            ? `The top is the same both ways, within your limit of ${sized(limits.centreCents, 'cents')}.`
            : `Faded into, the top is ${sized(apart.value, 'cents')} ${apart.value < 0 ? 'lower' : 'higher'} than grown into.`
          : because(apart?.unknown ?? 'not-played'),
      },
    };
  },
};
