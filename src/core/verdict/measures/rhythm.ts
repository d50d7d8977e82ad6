import { median, quantile, robustSlopeOver } from '@/core/base';
import { onsetErrorOf } from '@/core/hearing/room';
import { amountOf, beyond, faultAt, isOver } from '../beyond';
import { figure, figuresAt, isKnown, valueOf, wholeOf, type Figure, type Reason } from '../figure';
import { NOTHING, numbers, SILENT, type Judging, type Measure } from '../measure';
import { eventsOf, playedNotes, scoreNoteOf, type Reading } from '../reading';
import { because, fixed, sized } from '../words';

/** One attack against its place. Late is positive. */
interface Offset {
  readonly group: number;
  readonly beat: number;
  readonly ms: number;
}

/** Offsets of all beginnings that count from their beats; null without a beat. */
function offsetsOf(reading: Reading): Offset[] | null {
  const { secondsOf } = reading.beats;
  if (!secondsOf) return null;
  const all = reading.score.counts.timed === 'all';
  return (
    playedNotes(reading)
      .filter(({ match }) => all || !match.group.slurred)
      // What spoke late is told by itself, and says nothing of the player's time.
      .filter(({ match }) => eventsOf(reading, match).every(({ kind }) => kind !== 'late-speech'))
      // Where a note was interrupted, it was begun with its first part, whichever stands for it.
      .map(({ match: { group, parts }, note }) => ({
        group: group.index,
        beat: group.startBeat,
        ms: 1000 * ((reading.notes[parts[0]!] ?? note).startSeconds - secondsOf(group.startBeat)),
      }))
  );
}

const areBlurred = ({ alignment }: Reading, offsets: readonly Offset[]): boolean => {
  const blurred = alignment.matches.filter(({ state }) => state === 'blurred').length;
  return blurred > MOST_BLURRED * (blurred + offsets.length);
};

/** Times have to lie beyond their limits by more than they may be wrong. */
const SURE = { beyondError: true } as const;

/** Of a few attacks no tempo can be told: they are taken about their mean. */
const FEWEST_FOR_TEMPO = 5;
/** A tempo of one's own is told from this share of the asked one. */
const LEAST_DRIFT = 0.012;

/** Of attacks nearer than this no tempo is told. */
const LEAST_BEATS = 0.9;

/**
 * Line through offsets over the beats (Theil–Sen, so that one note that is late by itself does not tilt it): the slope in ms a
 * beat, and what is left of each.
 */
function lineThrough(offsets: readonly Offset[]): { perBeat: number; rest: number[] } {
  const beats = offsets.map(({ beat }) => beat);
  const ms = offsets.map((offset) => offset.ms);
  const slope = offsets.length < FEWEST_FOR_TEMPO ? 0 : robustSlopeOver(beats, ms, LEAST_BEATS);
  const perBeat = Number.isFinite(slope) ? slope : 0;
  const left = offsets.map((offset) => offset.ms - perBeat * offset.beat);
  const middle = median(left);
  return { perBeat, rest: left.map((each) => each - middle) };
}

/**
 * Half of what the middle two thirds lie within: the standard deviation, where it is a normal one. Single late notes leave it
 * where it is, and long-short pairs have no middle to be taken about.
 */
const spreadOf = (ms: readonly number[]): number => (quantile(ms, 0.8415) - quantile(ms, 0.1585)) / 2;

/** Of what single onsets are off by in a room, most is common to all: what still rings makes all beginnings seem late. */
const BIAS_SHARE = 0.9;
/** Where more than this share of the beginnings cannot be told in the echoes, those that were found may be others. */
const MOST_BLURRED = 0.25;

/** What errors of the onsets add to the spread of their distances from the beat, which add in squares; and how surely they do, of n. */
const spreadError = (spread: number, error: number, n: number): number =>
  spread > 0 ? Math.min(spread, error ** 2 / (2 * spread)) / 2 + error / Math.sqrt(2 * n) : 0;

/** Rush and drag, evenness, the tempo that was really played. */
export const rhythm: Measure = {
  measure(reading) {
    const { score } = reading;
    const offsets = offsetsOf(reading);
    if (offsets === null) return numbers([figure('offset', null, {}, 'no-beat')]);
    if (offsets.length < 2) return NOTHING;
    if (areBlurred(reading, offsets))
      return numbers([figure('offset', null, {}, 'blurred'), figure('attack-spread', null, {}, 'blurred')]);
    const groups = offsets.map(({ group }) => group);
    const about = { groups, n: offsets.length };
    const { perBeat, rest } = lineThrough(offsets);
    const spread = spreadOf(rest);
    // A tempo of one's own shows as offsets that grow: seconds a second.
    const slope = perBeat / 1000 / reading.beats.beatSeconds;
    const swing = score.swing ? swingOf(reading, offsets) : null;
    // In a room each onset may be off, and all of them to one side.
    const error = 1000 * onsetErrorOf(reading.room.decaySeconds);
    return numbers([
      ...offsets.map(({ group, ms }) =>
        figure('attack-offset', ms, { at: group, ...(error > 0 && { spread: error }) }),
      ),
      figure('offset', median(offsets.map(({ ms }) => ms)), {
        ...about,
        spread: Math.hypot(spread / Math.sqrt(offsets.length), BIAS_SHARE * error),
      }),
      figure('attack-spread', spread, {
        ...about,
        ...(error > 0 && { spread: spreadError(spread, error, offsets.length) }),
      }),
      ...(score.tempo === null ? [] : [figure('tempo', score.tempo / (1 + slope), about)]),
      ...(swing === null ? [] : [figure('swing', swing, about)]),
    ]);
  },

  judge(figures, judging) {
    const { limits, score } = judging;
    const offset = wholeOf(figures, 'offset');
    const tempo = wholeOf(figures, 'tempo');
    if (!isKnown(offset)) return [];
    const drift = driftOf(figures, score.tempo);
    const [behind, ahead] = ['drag', 'rush'] as const;
    const steady =
      drift !== 0 && isKnown(tempo)
        ? [faultAt(judging, null, drift > 0 ? ahead : behind, 1.5, amountOf(tempo, null))]
        : beyond(judging, offset, limits.rushMs, offset.value < 0 ? ahead : behind, {
            confidence: judging.roundTrip === 'assumed' ? 0.4 : 0.8,
            ...SURE,
          });
    const uneven = beyond(judging, wholeOf(figures, 'attack-spread'), limits.timingSpreadMs, 'uneven', SURE);
    return [
      ...steady,
      ...uneven,
      ...(drift === 0 && uneven.length === 0 ? alone(figures, judging, offset.value, limits.attackMs) : []),
    ];
  },

  say(figures, { limits, score, roundTrip }) {
    const offset = wholeOf(figures, 'offset');
    if (!offset) return SILENT;
    if (!isKnown(offset)) return { lines: { offset: because(offset.unknown) } };
    const drift = driftOf(figures, score.tempo);
    const spread = wholeOf(figures, 'attack-spread');
    const swing = valueOf(figures, 'swing');
    const uneven = isKnown(spread) && isOver(spread, limits.timingSpreadMs, false);
    const even = !isKnown(spread) || !isOver(spread, limits.timingSpreadMs, true);
    return {
      headline: even ? 'With the beat' : 'With the beat, unevenly',
      lines: {
        offset:
          drift !== 0
            ? `The tempo ${drift > 0 ? 'ran ahead of' : 'fell behind'} the beat.`
            : !isOver(offset, limits.rushMs, true)
              ? `${isOver(offset, limits.rushMs, false) ? `${offset.value < 0 ? 'Ahead of' : 'Behind'} the beat, hardly beyond your limit of ${limits.rushMs} ms: that is not held against you.` : 'With the beat.'}${unsure(roundTrip)}`
              : `${offset.value < 0 ? 'Ahead of' : 'Behind'} the beat, your limit ${limits.rushMs} ms.${unsure(roundTrip)}`,
        'attack-spread': !even
          ? `Unevenly spaced, your limit ${limits.timingSpreadMs} ms.`
          : uneven
            ? `Spaced hardly less evenly than your limit of ${limits.timingSpreadMs} ms: that is not held against you.`
            : 'Evenly spaced.',
        ...(drift !== 0 && { tempo: `${score.tempo} was asked for.` }),
        ...(swing !== null && {
          swing: swing < 1.5 ? 'Nearly even.' : swing > 2.6 ? 'Very sharply dotted.' : 'A relaxed swing.',
        }),
      },
    };
  },
};

/** What the middle distance from the beat is worth where the way of the sound has not been measured. */
const unsure = (roundTrip: Judging['roundTrip']): string =>
  roundTrip === 'assumed'
    ? ' The way from loudspeaker to microphone has not been measured on this device, so this may be off by some tens of milliseconds; Bench measures it.'
    : '';

/** 1 where the tempo ran ahead, −1 where it fell behind, 0 where it was kept. */
function driftOf(figures: readonly Figure[], asked: number | null): number {
  const played = valueOf(figures, 'tempo');
  if (played === null || asked === null) return 0;
  const ratio = played / asked - 1;
  return Math.abs(ratio) > LEAST_DRIFT ? Math.sign(ratio) : 0;
}

/** Single attacks far from their beats and from the others. */
function alone(
  figures: readonly Figure[],
  judging: Parameters<NonNullable<Measure['judge']>>[1],
  middle: number,
  limit: number,
) {
  return figuresAt(figures, 'attack-offset')
    .filter(({ value }) => Math.abs(value) > limit && Math.abs(value - middle) > limit)
    .flatMap((each) =>
      beyond(judging, each, limit, each.value < 0 ? 'early' : 'late', { ...SURE, confidence: 0.7 }),
    );
}

function swingOf({ beats: { secondsOf } }: Reading, offsets: readonly Offset[]): number | null {
  if (!secondsOf) return null;
  const at = new Map(offsets.map(({ beat, ms }) => [beat, secondsOf(beat) + ms / 1000]));
  const ratios: number[] = [];
  for (const [beat, start] of at) {
    if (!Number.isInteger(beat)) continue;
    const half = at.get(beat + 0.5);
    const next = at.get(beat + 1);
    if (half !== undefined && next !== undefined && next > half) ratios.push((half - start) / (next - half));
  }
  return ratios.length > 2 ? median(ratios) : null;
}

/** Steps whose spreads differ by less than this are equally hard. */
const LEAST_LEAD_MS = 3;

/** The steps of a ladder of subdivisions: each row of notes of one length, in the order played. */
export const ladder: Measure = {
  measure(reading) {
    const offsets = offsetsOf(reading) ?? [];
    if (areBlurred(reading, offsets)) return numbers([figure('hardest-step', null, {}, 'blurred')]);
    const steps: { attacks: number; rows: Offset[] }[] = [];
    for (const row of offsets) {
      const { beats } = scoreNoteOf(reading, reading.alignment.groups[row.group]!);
      const attacks = Math.round(reading.score.beatsPerBar / beats);
      const last = steps[steps.length - 1];
      if (last?.attacks === attacks) last.rows.push(row);
      else steps.push({ attacks, rows: [row] });
    }
    const told = steps.filter(({ rows }) => rows.length > 2);
    if (told.length === 0) return NOTHING;
    const spread = (rows: readonly Offset[]) => spreadOf(rows.map(({ ms }) => ms));
    const hardest = told.reduce((a, b) => (spread(b.rows) > spread(a.rows) ? b : a));
    const others = told.filter((step) => step !== hardest).map(({ rows }) => spread(rows));
    const lead = spread(hardest.rows) - Math.max(0, ...others);
    // Single onsets are off in a room, and more in one step than in another by chance.
    const error = 1000 * onsetErrorOf(reading.room.decaySeconds);
    const alike = lead < LEAST_LEAD_MS ? 'same-everywhere' : lead < 2 * error ? 'room' : null;
    // A single step has nothing to be harder than.
    const why = others.length > 0 ? alike : null;
    return numbers([
      ...steps.flatMap(({ rows }) => {
        const at = rows[0]!.group;
        const about = { at, groups: rows.map(({ group }) => group), n: rows.length };
        return [
          figure('step-offset', median(rows.map(({ ms }) => ms)), { ...about, spread: spread(rows) }),
          ...(rows.length > 2 ? [figure('step-spread', spread(rows), about)] : []),
        ];
      }),
      figure(
        'hardest-step',
        why ? null : hardest.attacks,
        { groups: hardest.rows.map(({ group }) => group) },
        why ?? undefined,
      ),
    ]);
  },
  say(figures) {
    const hardest = wholeOf(figures, 'hardest-step');
    if (!hardest) return SILENT;
    if (!isKnown(hardest)) {
      const lines: Partial<Record<Reason, string>> = {
        room: 'Not known: this room blurs single attacks by as much as the steps differ.',
        'same-everywhere': 'No step was harder than another.',
      };
      return { lines: { 'hardest-step': lines[hardest.unknown] ?? because(hardest.unknown) } };
    }
    const at = hardest.groups[0];
    const spread = figuresAt(figures, 'step-spread').find((each) => each.at === at);
    const offset = figuresAt(figures, 'step-offset').find((each) => each.at === at);
    const where =
      offset === undefined || Math.abs(offset.value) < 1
        ? 'on the beat'
        : `${sized(offset.value, 'ms')} ${offset.value < 0 ? 'early' : 'late'}`;
    return {
      lines: {
        'hardest-step': `At ${hardest.value} a bar the spread was ${sized(spread?.value ?? 0, 'ms')}, ${where}.`,
      },
    };
  },
  draw({ figures }, { score, matches }) {
    const steps = figuresAt(figures, 'step-offset');
    if (steps.length < 2) return [];
    return [
      {
        kind: 'rows',
        title: 'Each step against the beat',
        form: 'deviations',
        reach: 40,
        sides: ['early', 'late'],
        rows: steps.map((each) => ({
          name: `${Math.round(score.beatsPerBar / scoreNoteOf({ score }, matches[each.at]!.group).beats)} a bar`,
          value: each.value,
          ...(each.spread !== null && { from: each.value - each.spread, to: each.value + each.spread }),
          text: `${fixed(Math.abs(each.value), 0)} ms ${each.value < 0 ? 'early' : 'late'}`,
        })),
      },
    ];
  },
};
