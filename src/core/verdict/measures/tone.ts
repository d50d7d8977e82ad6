import { median } from '@/core/base';
import { lengthOf, type Note } from '@/core/hearing/notes';
import { blurOf } from '@/core/hearing/room';
import { leaning, type Decibels, type Seconds } from '@/core/tuning';
import { amountOf, beyond, beyondEither, faultAt } from '../fault';
import { figure, figuresAt, isKnown, most, valueOf, wholeOf, type Figure, type Reason } from '../figure';
import type { FigureId } from '../figures';
import { numbers, SILENT, type Measure } from '../measure';
import { centsOff, plainNotes, playedNotes, scoreNoteOf, type PlayedNote, type Reading } from '../reading';
import { because, capital, listed, sized } from '../words';
import { hiddenSwing, swingError } from './hiddenSwing';
import { roomSpread } from './roomSpread';

/** Time after which an irregular wander of the pitch has forgotten itself. */
const WANDER: Seconds = 0.3;
/** Wobble of a note that is too short for it to be told. */
const USUAL_WOBBLE = 2;

const readings = (note: Note) => Math.max(1, lengthOf(note) / WANDER);
/** Standard error of a note's centre, by how much it wanders and how long it lasts; and what a swing that is not seen may add. */
export const centreError = (reading: Reading, note: Note): number =>
  (note.wobbleCents ?? USUAL_WOBBLE) / Math.sqrt(readings(note)) + swingError(reading, note);
/** What is left of a swing when its middle is taken, as a share. */
const SWING_LEFT = 0.1;
/** Standard error of a slope through a wandering note: σ·√12 / (T·√n), cents a second; and what a swing leaves. */
export const driftError = (note: Note): number =>
  ((note.wobbleCents ?? USUAL_WOBBLE) * Math.sqrt(12)) / (lengthOf(note) * Math.sqrt(readings(note))) +
  (SWING_LEFT * (note.vibrato?.extentCents ?? 0)) / lengthOf(note);

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
const LEAST_FADE_DB = 2;
/** Where echoes ring they pull at a held note's pitch, now up, now down: a still tone wobbles by as much there. */
const ROOM_WOBBLE_CENTS = 3;

const roomWobble = ({ room }: Reading) => (blurOf(room.decaySeconds) > 0 ? ROOM_WOBBLE_CENTS : 0);

/**
 * Noise pulls at the pitch of a soft note too: at most by so much where it is NOISY_DB under the note, and tenfold less for 10 dB
 * more. Held tones in white noise, six instruments: 4 cents at 16 dB, 10 at 11; in a room, with the fundamental in a node, 12 at 15
 * and 32 at 9.
 */
const NOISE_WOBBLE_CENTS = 12;
const NOISY_DB = 15;
const noiseWobble = (overFloorDb: Decibels) => NOISE_WOBBLE_CENTS * 10 ** ((NOISY_DB - overFloorDb) / 10);

/** Whether a wobble over its limit may be a swing that is not known to be one. */
const maySwing = (note: Note, reading: Reading): boolean =>
  (note.wobbleCents ?? 0) > reading.limits.wobbleCents &&
  (note.wobbleCents ?? 0) <= hiddenSwing(reading, note);

/** A wobble that is over its limit with what room and noise can make, and within it without, is not known to be the player's. */
function ownWobble(note: Note, reading: Reading): number | null {
  const { wobbleCents, levelDb } = note;
  const { conditions, limits } = reading;
  if (maySwing(note, reading)) return null;
  if (wobbleCents === null || wobbleCents <= limits.wobbleCents) return wobbleCents;
  const room = roomWobble(reading);
  const noise = levelDb === null ? 0 : noiseWobble(levelDb - conditions.floorDb);
  return wobbleCents ** 2 - room ** 2 - noise ** 2 <= limits.wobbleCents ** 2 ? null : wobbleCents;
}

/** Whether notes were held still: drift, wobble, vibrato, fading. What a hairpin moves is not unsteady. */
export const steadiness: Measure = {
  measure(reading) {
    const pairs = plainNotes(reading);
    const long = pairs.filter(({ note }) => lengthOf(note) > TREND_SECONDS);
    const wobbles = each('wobble', pairs, (note) => ownWobble(note, reading));
    const known = new Set(wobbles.map(({ at }) => at));
    const other = roomWobble(reading) > 0 ? 'room' : 'too-noisy';
    const hidden = pairs.flatMap(({ note, match: { group } }): { at: number; reason: Reason }[] =>
      note.wobbleCents === null || known.has(group.index)
        ? []
        : [{ at: group.index, reason: maySwing(note, reading) ? 'vibrato' : other }],
    );
    return numbers([
      ...wobbles,
      ...hidden.map((each) => figure('wobble', null, { at: each.at }, each.reason)),
      ...(wobbles.length > 0
        ? [middleOf('wobble', wobbles, 'wobble')]
        : hidden.length > 0
          ? [figure('wobble', null, { groups: hidden.map(({ at }) => at) }, hidden[0]!.reason)]
          : []),
      ...each(
        'drift',
        long,
        (note) =>
          Math.abs((note.driftCentsPerSecond ?? 0) * lengthOf(note)) <
          Math.hypot(LEAST_SAG_CENTS, 2 * roomWobble(reading))
            ? null
            : note.driftCentsPerSecond,
        driftError,
      ),
      ...each('fade', long, (note) =>
        Math.abs((note.levelDriftDbPerSecond ?? 0) * lengthOf(note)) <
        Math.max(LEAST_FADE_DB, 2 * roomSpread(reading, [note]))
          ? null
          : note.levelDriftDbPerSecond,
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
const MAY_BE_ROOM = 1.5;

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
