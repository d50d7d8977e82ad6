import { least } from 'd3-array';
import { median, type Seconds } from '@/core/base';
import { blurOf } from '@/core/hearing/room';
import { leaning } from '@/core/tuning';
import { amountOf, faultAt } from '../beyond';
import { figure, figuresAt, valueOf, wholeOf, isKnown, type Figure } from '../figure';
import { NOTHING, numbers, SILENT, type Measure } from '../measure';
import { playedAs, roleOf, traced } from '../reading';
import { fixed, sized } from '../words';
import { spreadOf } from './tone';

/** What the level of a held note is worth. */
const LEVEL_ERROR_DB = 0.5;

/** The softest and the loudest that each note was held at. */
export const window: Measure = {
  measure(reading) {
    const softest = playedAs(reading, 'softest');
    const rows = softest.flatMap((soft): Figure[] => {
      // The music may have other notes between the two, and may hold a note's ends more than once.
      const loud = least(
        playedAs(reading, 'loudest').filter(({ match }) => match.group.written === soft.match.group.written),
        ({ match }) => Math.abs(match.group.index - soft.match.group.index),
      );
      if (!loud || soft.note.levelDb === null || loud.note.levelDb === null) return [];
      const about = { at: soft.match.group.index, groups: [soft.match.group.index, loud.match.group.index] };
      return [
        figure('window-note', loud.note.levelDb - soft.note.levelDb, about),
        figure('softest-db', soft.note.levelDb, about),
        figure('loudest-db', loud.note.levelDb, about),
        ...(soft.note.centreCents === null ? [] : [figure('softest-cents', soft.note.centreCents, about)]),
        ...(loud.note.centreCents === null ? [] : [figure('loudest-cents', loud.note.centreCents, about)]),
      ];
    });
    const widths = figuresAt(rows, 'window-note');
    if (widths.length === 0)
      return numbers([figure('window', null, {}, softest[0]?.note.unknown['levelDb'] ?? 'not-played')]);
    const groups = widths.flatMap((each) => [...each.groups]);
    return numbers([
      ...rows,
      figure('window', median(widths.map(({ value }) => value)), { groups, n: widths.length }),
    ]);
  },
  judge(figures, judging) {
    const { windowDb } = judging.limits;
    return figuresAt(figures, 'window-note')
      .filter(({ value }) => value + LEVEL_ERROR_DB < windowDb)
      .map((each) =>
        faultAt(
          judging,
          each.at,
          'narrow-window',
          windowDb / Math.max(1, each.value),
          amountOf(each, windowDb),
        ),
      );
  },
  say(figures, { limits, nameAt }) {
    const rows = figuresAt(figures, 'window-note');
    const middle = valueOf(figures, 'window');
    if (middle === null || rows.length === 0) return SILENT;
    const least = rows.reduce((a, b) => (b.value < a.value ? b : a));
    return {
      headline: middle > 0 ? `${sized(middle, 'dB')} from soft to loud` : 'Loud was no louder than soft',
      lines: {
        window: `Narrowest: ${nameAt(least.at)}, ${fixed(least.value, 0)} dB; your limit is ${sized(limits.windowDb, 'dB')}.`,
      },
    };
  },
  draw({ figures }, { limits, nameAt }) {
    const rows = figuresAt(figures, 'window-note');
    if (rows.length === 0) return [];
    const at = (id: 'softest-db' | 'loudest-db' | 'softest-cents' | 'loudest-cents', group: number) =>
      figuresAt(figures, id).find((each) => each.at === group)?.value ?? null;
    return [
      {
        kind: 'rows',
        title: 'Softest to loudest, dBFS',
        form: 'spans',
        reach: 40,
        rows: rows.map((each) => {
          const [soft, loud] = [at('softest-db', each.at), at('loudest-db', each.at)];
          const [low, high] = [at('softest-cents', each.at), at('loudest-cents', each.at)];
          return {
            name: nameAt(each.at),
            value: each.value,
            ...(soft !== null && loud !== null && { from: soft, to: loud }),
            text: [
              `${fixed(each.value, 0)} dB`,
              low === null ? null : `soft ${leaning(low)}`,
              high === null ? null : `loud ${leaning(high)}`,
            ]
              .filter((part) => part !== null)
              .join(' · '),
            stands: each.value < limits.windowDb,
          };
        }),
      },
    ];
  },
};

const SURGE_DB = 2;
const SMOOTH_SECONDS = 0.09;
/** How a note is let go, and what a room rings on by, is no surge. */
const RELEASE: Seconds = 0.06;

/** Surges of air on one note: how deep, how even, how long, and whether the tone went on. */
export const pulses: Measure = {
  measure(reading) {
    const pairs = playedAs(reading, 'smaller', 'longer');
    const [first] = pairs;
    if (!first) return NOTHING;
    const asked = reading.score.notes.filter(({ role }) => role === 'smaller').length;
    const { trace } = reading;
    const rows = pairs
      .filter(({ match }) => roleOf(reading, match.group) === 'smaller')
      .flatMap(({ match, note }) => {
        const end = note.endSeconds - Math.max(RELEASE, blurOf(reading.room.decaySeconds));
        const level = traced(trace, 'levelDb', note.startSeconds, end);
        return surgesIn(smoothed(level, SMOOTH_SECONDS / trace.stepSeconds)).map((surge) => ({
          ...surge,
          group: match.group.index,
        }));
      });
    const groups = pairs.map(({ match }) => match.group.index);
    const depths = rows.map(({ depth }) => depth);
    const gaps = rows.slice(1).map(({ at }, i) => (at - rows[i]!.at) * trace.stepSeconds * 1000);
    const way = depths.length > 2 ? rest(depths) : [];
    return numbers([
      figure('pulses-heard', rows.length, { groups, n: rows.length, of: asked }),
      figure('pulse-depth', depths.length > 0 ? median(depths) : null, { groups, n: depths.length }),
      figure('pulse-evenness', way.length > 0 ? (spreadOf(way) ?? null) : null, { groups, n: way.length }),
      figure('pulse-length', gaps.length > 0 ? median(gaps) : null, { groups, n: gaps.length }),
    ]);
  },
  say(figures, { limits, score }) {
    const heard = wholeOf(figures, 'pulses-heard');
    if (!isKnown(heard)) return SILENT;
    const depth = valueOf(figures, 'pulse-depth');
    const even = valueOf(figures, 'pulse-evenness');
    const length = valueOf(figures, 'pulse-length');
    const beat = score.tempo === null ? null : 60_000 / score.tempo;
    return {
      headline:
        heard.value === 0
          ? 'No surge was heard'
          : `${heard.value === 1 ? 'One pulse' : `${heard.value} pulses`}${depth === null ? '' : `, ${sized(depth, 'dB')} deep`}`,
      lines: {
        'pulses-heard':
          heard.value >= (heard.of ?? 0) - 1
            ? 'Every surge was heard, and the tone went on.'
            : `${heard.value} of ${heard.of} surges stood out by 2 dB or more.`,
        ...(depth !== null && {
          'pulse-depth': `The surges are ${depth < 4 ? 'shallow' : depth < 9 ? 'clear' : 'deep'}.`,
        }),
        ...(even !== null && {
          'pulse-evenness':
            even <= limits.lineDb ? 'The pulses changed evenly.' : 'The pulses changed unevenly.',
        }),
        ...(length !== null && {
          'pulse-length':
            beat === null
              ? 'From one surge to the next.'
              : Math.abs(length - beat) < 0.12 * beat
                ? 'On the beat.'
                : `A beat is ${sized(beat, 'ms')}.`,
        }),
      },
    };
  },
};

/** Tops of the level and how far it falls after each, place by place. */
function surgesIn(level: readonly number[]): { at: number; depth: number }[] {
  const surges: { at: number; depth: number }[] = [];
  let top = -Infinity;
  let topAt = 0;
  let low = Infinity;
  let falling = false;
  level.forEach((dB, i) => {
    if (!Number.isFinite(dB)) return;
    if (!falling) {
      if (dB > top) {
        top = dB;
        topAt = i;
      } else if (top - dB >= SURGE_DB) {
        falling = true;
        low = dB;
      }
    } else if (dB < low) low = dB;
    else if (dB - low >= SURGE_DB) {
      surges.push({ at: topAt, depth: top - low });
      falling = false;
      top = dB;
      topAt = i;
    }
  });
  if (falling) surges.push({ at: topAt, depth: top - low });
  return surges;
}

const smoothed = (values: readonly number[], count: number): number[] => {
  const half = Math.max(1, Math.round(count / 2));
  return values.map((_, i) => median(values.slice(Math.max(0, i - half), i + half + 1)));
};

/** What is left of values when the straight way from first to last is taken off. */
function rest(values: readonly number[]): number[] {
  const step = (values[values.length - 1]! - values[0]!) / (values.length - 1);
  return values.map((value, i) => value - values[0]! - step * i);
}
