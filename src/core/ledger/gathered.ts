import { groups } from 'd3-array';
import { type Decibels, median } from '@/core/base';
import { lengthOf } from '@/core/hearing/notes';
import { glideOf } from '@/core/music';
import type { Take } from '@/core/take';
import type { Judgement } from '@/core/verdict';
import type { NoteCell, TakeCells } from './cells';
import { crossingOf } from './judgedCrossing';

/** A room louder than this under the notes tells nothing of how they lie. */
const LEAST_MARGIN: Decibels = 15;

/** What a take may change in what is remembered of its instrument: what its exercise feeds, and nothing where it was hardly heard. */
export function cellsOf(take: Take, judgement: Judgement): TakeCells {
  const { feeds, exploring } = take.score.counts;
  if (judgement.outcome !== 'judged' || exploring || isDrowned(take)) return { notes: [], crossings: [] };
  return {
    notes: feeds.map ? noteCells(take, judgement) : [],
    crossings: feeds.seams ? judgement.seams.flatMap((seam) => crossingOf(seam, judgement, take.notes)) : [],
  };
}

function isDrowned({ notes, conditions }: Take): boolean {
  const level = median(notes.flatMap(({ levelDb }) => levelDb ?? []));
  return level - conditions.floorDb < LEAST_MARGIN;
}

function noteCells({ notes, conditions }: Take, judgement: Judgement): NoteCell[] {
  const controlled = conditions.processing.includes('gain-control');
  const played = judgement.notes.flatMap(({ match, cents }, i) => {
    const { group } = match;
    const asked = judgement.score.notes[group.from]!;
    if (cents === null || match.note === null || asked.fingered !== null || glideOf(asked.role) !== null)
      return [];
    const before = judgement.notes[i - 1]?.match.group;
    const follows = before !== undefined && before.phrase === group.phrase;
    const from = follows ? (Math.sign(group.written - before.written) as -1 | 0 | 1) : 0;
    const note = notes[match.note]!;
    return [{ written: group.written, dynamic: asked.dynamic, from, slurred: group.slurred, cents, note }];
  });
  const alike = groups(played, ({ written, dynamic, from, slurred }) =>
    [written, dynamic, from, slurred].join(),
  );
  return alike.map(([, same]) => {
    const { written, dynamic, from, slurred } = same[0]!;
    const level = median(same.flatMap(({ note }) => note.levelDb ?? []));
    const wobble = median(same.flatMap(({ note }) => note.wobbleCents ?? []));
    return {
      written,
      dynamic,
      from,
      slurred,
      n: same.length,
      seconds: same.reduce((sum, { note }) => sum + lengthOf(note), 0),
      cents: same.reduce((sum, { cents }) => sum + cents, 0) / same.length,
      wobbleCents: Number.isNaN(wobble) ? null : wobble,
      levelDb: controlled || Number.isNaN(level) ? null : level,
    };
  });
}
