import { type Decibels, median } from '@/core/base';
import { seamBetween } from '@/core/instruments';
import type { Match } from '@/core/hearing/matching';
import { blurOf } from '@/core/hearing/room';
import { ownOvershoot } from './ownOvershoot';
import { roomSpread } from './roomSpread';
import { dipSpread } from '../dipSpread';
import { beyond, beyondEither } from '../beyond';
import type { Fault } from '../fault';
import type { FaultKind } from '../faults';
import { figure, figuresAt, isKnown, valueOf, wholeOf, type Figure } from '../figure';
import type { FigureId } from '../figures';
import { NOTHING, numbers, SILENT, type Judging, type Measure } from '../measure';
import { scoreNoteOf, type Reading } from '../reading';
import { because, plural, sized } from '../words';
import { ms } from './held';

/** A mode that sounds on the way this near the arrival belongs to the slur. */
export const ARRIVAL_SECONDS = 0.3;

/** A written slur: the notes on its two sides. */
export interface Slur {
  readonly from: Match;
  readonly to: Match;
}

/** Neighbours that the music joins by a slur, in order. */
export const slursIn = (matches: readonly Match[]): Slur[] =>
  matches.flatMap((to, i) => {
    const from = matches[i - 1];
    return from && to.group.slurred ? [{ from, to }] : [];
  });

/** Whether the two sides of a slur are asked at one level. */
export function asksLevel({ score }: Pick<Judging, 'score'>, { from, to }: Slur): boolean {
  const [a, b] = [scoreNoteOf({ score }, from.group), scoreNoteOf({ score }, to.group)];
  return (
    a.hairpin === null &&
    b.hairpin === null &&
    a.dynamic === b.dynamic &&
    score.counts.measures.includes('level')
  );
}

/** Half of what is a hole is worth a word. */
const gaveWay = (dip: Decibels, { limits }: Pick<Reading, 'limits'>): boolean => dip >= limits.seamDipDb / 2;

/** Every slur: its dip, push, time, overshoot, and the step in level. */
export const seam: Measure = {
  measure(reading) {
    const slurs = slursIn(reading.alignment.matches);
    const rows = slurs.flatMap(({ to }): Figure[] => {
      const transition = to.parts[0] === undefined ? undefined : reading.into.get(to.parts[0]);
      if (!transition) return [];
      const at = { at: to.group.index };
      const { dipDb, bumpDb, seconds, overshootCents, levelStepDb } = transition;
      const [from, into] = [reading.notes[transition.from]!, reading.notes[transition.to]!];
      const spread = roomSpread(reading, [from, into]);
      const level = (
        id: 'slur-dip' | 'slur-bump' | 'slur-step',
        value: number | null,
        limit: number,
        ofRoom = spread,
      ) =>
        value !== null && Math.abs(value) > limit && Math.abs(value) - 2 * ofRoom <= limit
          ? figure(id, null, at, 'room')
          : figure(id, value, { ...at, spread: ofRoom }, 'too-short');
      const { limits } = reading;
      const blur = 1000 * blurOf(reading.room.decaySeconds);
      const took = ms(seconds);
      const isOfRoom = took !== null && took > limits.seamMs && took - blur <= limits.seamMs;
      const own = overshootCents === null ? null : ownOvershoot(reading, into, overshootCents);
      const isOfOthers =
        own !== null && overshootCents! > limits.overshootCents && own.cents <= limits.overshootCents;
      const overshoot = figure(
        'slur-overshoot',
        isOfOthers ? null : overshootCents,
        at,
        isOfOthers ? own.because! : 'too-short',
      );
      return [
        level('slur-dip', dipDb, limits.seamDipDb, dipSpread(spread)),
        level('slur-bump', bumpDb, limits.seamBumpDb),
        figure('slur-time', isOfRoom ? null : took, at, isOfRoom ? 'room' : 'too-short'),
        overshoot,
        level('slur-step', levelStepDb, limits.levelStepDb),
      ];
    });
    if (slurs.length === 0) return NOTHING;
    const middle = (id: 'slur-dip' | 'slur-time') => {
      const found = figuresAt(rows, id);
      const groups = found.map(({ at }) => at);
      const value = median(found.map((each) => each.value));
      const room = median(found.map(({ spread }) => spread ?? 0));
      const isOfRoom = id === 'slur-dip' && gaveWay(value, reading) && !gaveWay(value - room, reading);
      return found.length === 0
        ? []
        : [figure(id, isOfRoom ? null : value, { groups, n: found.length }, 'room')];
    };
    return numbers([...rows, ...middle('slur-dip'), ...middle('slur-time')]);
  },

  judge(figures, judging) {
    const { limits, matches } = judging;
    const at = { atSlur: true } as const;
    const slurs = new Map(slursIn(matches).map((slur) => [slur.to.group.index, slur]));
    return [
      ...figuresAt(figures, 'slur-dip').flatMap((each) =>
        beyond(judging, each, limits.seamDipDb, 'hole', { ...at, confidence: 0.7 }),
      ),
      ...figuresAt(figures, 'slur-bump').flatMap((each) =>
        beyond(judging, each, limits.seamBumpDb, 'bump', { ...at, confidence: 0.7 }),
      ),
      ...figuresAt(figures, 'slur-time').flatMap((each) =>
        beyond(judging, each, limits.seamMs, 'slow-slur', { ...at, confidence: 0.7 }),
      ),
      ...figuresAt(figures, 'slur-overshoot').flatMap((each) =>
        beyond(judging, each, limits.overshootCents, 'overshoot', { ...at, confidence: 0.5 }),
      ),
      ...figuresAt(figures, 'slur-step')
        .filter((each) => asksLevel(judging, slurs.get(each.at)!))
        .flatMap((each) =>
          beyondEither(judging, each, limits.levelStepDb, ['narrow-leap', 'bump'], {
            ...at,
            confidence: 0.6,
          }),
        ),
    ];
  },

  say(figures, { score, limits, matches, instrument, faults, slurAt }) {
    const judged = judgedSlurs({ score, matches, instrument }, faults, figures);
    const known = judged.filter(({ clean }) => clean !== null);
    if (known.length === 0) return SILENT;
    const failed = known.filter(({ clean }) => clean === false);
    const crossing = known.filter(({ crosses }) => crosses);
    const crossed = crossing.filter(({ clean }) => clean);
    const worst = failed.flatMap(({ why }) => why).sort((a, b) => b.size - a.size)[0];
    const dip = wholeOf(figures, 'slur-dip');
    const time = valueOf(figures, 'slur-time');
    const open = judged.length - known.length;
    const dips = figures.filter(({ id, at }) => id === 'slur-dip' && at !== null);
    const gave = dips.filter((each) => isKnown(each) && each.value > limits.seamDipDb).length;
    const untold = dips.filter((each) => !isKnown(each)).length;
    return {
      headline:
        open > 0
          ? `${known.length - failed.length} of ${judged.length} slurs clean, of ${open} it is not known`
          : known.length === 1
            ? 'The slur was clean'
            : `All ${known.length} slurs clean`,
      lines: {
        'slurs-clean':
          worst?.group != null
            ? `The worst: ${slurAt(worst.group)}.`
            : open > 0
              ? `${known.length} of ${judged.length} slurs could be told, and ${known.length === 1 ? 'was' : 'were'} clean by your limits.`
              : 'Every slur was clean by your limits.',
        ...(crossing.length > 0 &&
          crossing.length < known.length && {
            'crossings-clean':
              crossed.length === crossing.length
                ? crossing.length === 1
                  ? 'The crossing of a break was clean.'
                  : `${crossing.length} crossings of a break, all clean.`
                : `${plural(crossing.length - crossed.length, 'crossing')} of a break failed.`,
          }),
        ...(dip && {
          'slur-dip': !isKnown(dip)
            ? because(dip.unknown)
            : gaveWay(dip.value, { limits })
              ? `The level gave way between the notes, your limit ${sized(limits.seamDipDb, 'dB')}.`
              : gave > 0
                ? `The level gave way in ${plural(gave, 'slur')} of ${dips.length}.`
                : untold > 0
                  ? `The air went on through ${plural(dips.length - untold, 'slur')}; of ${untold} it is not known.`
                  : 'The air went on through the slurs.',
        }),
        ...(time !== null && {
          'slur-time':
            time <= limits.seamMs
              ? 'The slurs settled in time.'
              : `The slurs took long to settle, your limit ${limits.seamMs} ms.`,
        }),
      },
    };
  },
};

/** One slur, judged. */
export interface JudgedSlur {
  readonly from: Match;
  readonly to: Match;
  /** It crosses a register break. */
  readonly crosses: boolean;
  /** Null when nothing can be said: the two notes were not both heard, or the room hides how. */
  readonly clean: boolean | null;
  /** Why not, worst first; of one thing seen in two ways the first. */
  readonly why: readonly Fault[];
}

/** Figures without which it is not known whether the air went on. */
const LEVEL_AT_SLUR: readonly FigureId[] = ['slur-dip', 'slur-bump'];
/** What a note does that does not stand. */
const FALLS: readonly FaultKind[] = ['break-up', 'break-down', 'squeak', 'slipped', 'stopped'];

/** Every slur of a take, by the faults that were found at it. */
export function judgedSlurs(
  { score, matches, instrument }: Pick<Judging, 'score' | 'matches' | 'instrument'>,
  faults: readonly Fault[],
  figures: readonly Figure[],
): JudgedSlur[] {
  const hidden = new Set(
    figures.flatMap((each) =>
      LEVEL_AT_SLUR.some((id) => id === each.id) && !isKnown(each) && each.unknown === 'room'
        ? [each.at]
        : [],
    ),
  );
  // In a drill the note that is slurred to has to stand for as long as it is written: nothing gets faster over one that cracks.
  const standing = score.counts.notches !== null;
  return slursIn(matches).map(({ from, to }) => {
    const why = faults
      .filter(
        ({ kind, atSlur, group }) =>
          group === to.group.index && (atSlur || (standing && FALLS.includes(kind))),
      )
      .sort((a, b) => b.size - a.size)
      .filter((fault, i, all) => all.findIndex(({ kind }) => kind === fault.kind) === i);
    const heard = from.note !== null && to.note !== null;
    return {
      from,
      to,
      crosses: seamBetween(instrument, from.group.written, to.group.written) !== null,
      clean: why.length > 0 ? false : heard && !hidden.has(to.group.index) ? true : null,
      why,
    };
  });
}

/** How many of the slurs were clean: counted once everything has been judged. */
export function cleanFigures(slurs: readonly JudgedSlur[]): Figure[] {
  const count = (id: 'slurs-clean' | 'crossings-clean', all: readonly JudgedSlur[]) =>
    figure(id, all.filter(({ clean }) => clean).length, {
      groups: all.map(({ to }) => to.group.index),
      n: all.length,
      of: all.length,
    });
  const known = slurs.filter(({ clean }) => clean !== null);
  const crossing = known.filter(({ crosses }) => crosses);
  return [
    ...(known.length > 0 ? [count('slurs-clean', known)] : []),
    ...(crossing.length > 0 ? [count('crossings-clean', crossing)] : []),
  ];
}
