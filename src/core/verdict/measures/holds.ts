import { median, type Seconds } from '@/core/base';
import { lengthOf, type Note } from '@/core/hearing/notes';
import { amountOf, faultAt } from '../beyond';
import { figure, figuresAt, isKnown, wholeOf, type Figure } from '../figure';
import { NOTHING, numbers, SILENT, type Measure } from '../measure';
import { playedAs, playedNotes, roleOf, type PlayedNote, type Reading } from '../reading';
import { fixed } from '../words';
import { inNodes } from './nodes';
import { roomSpread, WITHIN_NOTE } from './roomSpread';
import { roomWobble } from './wobble';

/** Held this much longer than the notes around it, a note is a hold. */
const TIMES_LONGER = 2;
const HELD_ROLES = ['hold', 'edge', 'whisper'] as const;

function holdsOf(reading: Reading): PlayedNote[] {
  const asked = playedAs(reading, ...HELD_ROLES);
  if (asked.length > 0) return asked;
  const pairs = playedNotes(reading);
  const usual = median(pairs.map(({ match }) => match.group.beats));
  const long = pairs.filter(({ match }) => match.group.beats >= TIMES_LONGER * usual);
  return long.length > 0 ? long : pairs.slice(-1);
}

export const NOT_PURE_IN_ROOM = 'Not known: in this room echoes alone can make a still note move by as much.';

/** Of a hold so long this much has to be pure. */
const enoughOf = (length: Seconds, { limits }: Pick<Reading, 'limits'>): Seconds =>
  (limits.holdPercent / 100) * length;

/**
 * Whether what cut a hold short may have been the room, by which a still note may leave what counts as pure; not where it went further
 * all along than that. @param inNode see nodes.ts.
 */
export function mayBeCutByRoom(
  note: Note,
  reading: Pick<Reading, 'limits' | 'room'>,
  inNode: number,
): boolean {
  const { puritySeconds, driftCentsPerSecond, levelDriftDbPerSecond } = note;
  const { purityCents, purityDb } = reading.limits;
  const length = lengthOf(note);
  if (puritySeconds === null || puritySeconds >= enoughOf(length, reading)) return false;
  const cents = 2 * roomWobble(reading, inNode);
  const dB = 2 * roomSpread(reading, [note]) * inNode;
  const strayed = Math.abs(driftCentsPerSecond ?? 0) * length > purityCents + cents;
  const faded = Math.abs(levelDriftDbPerSecond ?? 0) * length > purityDb + dB;
  return !strayed && !faded && (WITHIN_NOTE * dB >= purityDb || cents >= purityCents);
}

/** How long held notes stayed pure. */
export const hold: Measure = {
  measure(reading) {
    const pairs = holdsOf(reading);
    const inNode = inNodes(reading);
    const rows = pairs.flatMap(({ match, note }): Figure[] => {
      const { index: at } = match.group;
      const pure = mayBeCutByRoom(note, reading, inNode(note)) ? null : note.puritySeconds;
      return [
        figure('hold-length', lengthOf(note), { at }),
        ...(note.puritySeconds === null ? [] : [figure('hold-pure', pure, { at }, 'room')]),
      ];
    });
    const pure = figuresAt(rows, 'hold-pure');
    if (pure.length === 0) {
      const groups = rows.filter(({ id }) => id === 'hold-pure').map(({ at }) => at!);
      return groups.length === 0
        ? NOTHING
        : numbers([...rows, figure('best-hold', null, { groups }, 'room')]);
    }
    const best = pure.reduce((a, b) => (b.value > a.value ? b : a));
    return numbers([
      ...rows,
      figure('best-hold', best.value, { groups: [best.at] }),
      figure(
        'total-hold',
        pure.reduce((sum, { value }) => sum + value, 0),
        {
          groups: pure.map(({ at }) => at),
          n: pure.length,
        },
      ),
    ]);
  },
  judge(figures, judging) {
    const { limits, score, matches } = judging;
    if (score.counts.exploring) return [];
    const length = new Map(figuresAt(figures, 'hold-length').map(({ at, value }) => [at, value]));
    return (
      figuresAt(figures, 'hold-pure')
        // A tune's last note is no exercise in holding.
        .filter(({ at }) => roleOf({ score }, matches[at]!.group) === 'hold')
        .filter(({ at, value }) => value < enoughOf(length.get(at) ?? 0, { limits }))
        .map((each) =>
          faultAt(judging, each.at, 'short-purity', 1.2, amountOf(each, null), { confidence: 0.6 }),
        )
    );
  },
  say(figures, { nameAt }) {
    const best = wholeOf(figures, 'best-hold');
    const pure = figuresAt(figures, 'hold-pure');
    if (!best) return SILENT;
    if (!isKnown(best))
      return {
        lines: { 'best-hold': NOT_PURE_IN_ROOM },
      };
    const at = best.groups[0]!;
    const length = figuresAt(figures, 'hold-length').find((each) => each.at === at)?.value ?? best.value;
    return {
      headline: `${nameAt(at)} pure for ${fixed(best.value, 1)} s`,
      lines: {
        'best-hold': `${nameAt(at)}, held for ${fixed(length, 1)} s.`,
        'total-hold': pure.length === 1 ? 'One hold.' : `${pure.length} holds.`,
      },
    };
  },
  draw({ figures }, { nameAt }) {
    const rows = figuresAt(figures, 'hold-length');
    if (rows.length === 0 || figuresAt(figures, 'hold-pure').length === 0) return [];
    const pure = new Map(figuresAt(figures, 'hold-pure').map(({ at, value }) => [at, value]));
    return [
      {
        kind: 'rows',
        title: 'How long each hold stayed pure, of how long it was held',
        form: 'amounts',
        reach: 10,
        rows: rows.map(({ at, value }) => ({
          name: nameAt(at),
          value: pure.get(at) ?? null,
          to: value,
          text: `${pure.has(at) ? fixed(pure.get(at)!, 1) : 'not known'} of ${fixed(value, 1)} s`,
        })),
      },
    ];
  },
};
