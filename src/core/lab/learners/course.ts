import { DAY_MS } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import { playedOf, type Crossing, type Entry, type Played } from '@/core/ledger';
import { rowOf, slurOf } from '@/core/ledger/memory.testing';
import { unfolded, type Level, type Score } from '@/core/music';
import { scoreOfBlock, type Block } from '@/core/plan';
import { Learner, type LearnerKind } from './learner';

const FIRST = Date.UTC(2026, 0, 5);
/** Practice begins at six in the evening. */
const EVENING = 18 / 24;
const BETWEEN_SECONDS = 20;

/** What is done on one day, from what is remembered. @param day days since the course began, 0 … */
export type Teacher = (played: readonly Played[], day: number) => readonly Block[];

export interface Course {
  readonly kind: LearnerKind;
  readonly instrument: Instrument;
  readonly level: Level;
  readonly days: number;
  readonly seed: number;
  /** Highest note that the player meets. */
  readonly upTo: number;
}

/** What became of a learner. */
export interface CourseOutcome {
  /** For each way that was weak at first: the first day from which it held nine of ten for good; the length of the course where it did not. */
  readonly mendedAfter: readonly number[];
  /** Seconds by exercise, on each day that came to pass. */
  readonly bySession: readonly ReadonlyMap<string, number>[];
  readonly blocksBySession: readonly (readonly Block[])[];
}

export const COURSE_START = FIRST / DAY_MS;
const GOAL = 0.9;
const scores = new Map<string, Score | null>();

/** Scores are the same for the same block: made once. */
function scoreFor(block: Block, instrument: Instrument, level: Level): Score | null {
  const key = JSON.stringify([instrument.id, level, block.family, block.values, block.repeats]);
  let score = scores.get(key);
  if (score === undefined) {
    const made = scoreOfBlock(block, instrument, level, 'english');
    score = made.ok ? unfolded(made.value) : null;
    scores.set(key, score);
  }
  return score;
}

/** A learner through some weeks, taught by what is remembered and nothing else. */
export function takeCourse(
  { kind, instrument, level, days, seed, upTo }: Course,
  teacher: Teacher,
): CourseOutcome {
  const learner = new Learner(instrument, kind, seed, upTo);
  const weak = learner.weakWays;
  const lastOpen = weak.map(() => 0);
  const bySession: Map<string, number>[] = [];
  const blocksBySession: (readonly Block[])[] = [];
  const rows: Entry[] = [];
  const crossingsOf = new Map<string, readonly Crossing[]>();
  let played: readonly Played[] = [];
  for (let day = 0; day < days; day++) {
    weak.forEach((way, i) => {
      if (learner.shareOf(way, day) < GOAL) lastOpen[i] = day + 1;
    });
    if (!learner.comes()) continue;
    const blocks = teacher(played, day).filter(({ family, skipped }) => family !== null && !skipped);
    if (blocks.length === 0) continue;
    const seconds = new Map<string, number>();
    let elapsed = 0;
    for (const block of blocks) {
      const score = scoreFor(block, instrument, level);
      if (!score) continue;
      const { crossings, troubled } = learner.play(score, day, elapsed / 60);
      const row = rowOf(0, {
        id: `learnt-${String(rows.length).padStart(5, '0')}`,
        createdAt: new Date(FIRST + (day + EVENING) * DAY_MS + elapsed * 1000).toISOString(),
        family: score.family,
        title: score.title,
        parameters: score.parameters,
        tempo: score.tempo,
        instrumentId: instrument.id,
        faults: troubled ? { sinking: 1 } : {},
        exploring: score.counts.exploring,
      });
      rows.push(row);
      crossingsOf.set(
        row.id,
        crossings.map(({ from, to, heardClean }) => slurOf(from, to, heardClean)),
      );
      elapsed += block.seconds + BETWEEN_SECONDS;
      seconds.set(block.family!, (seconds.get(block.family!) ?? 0) + block.seconds);
    }
    bySession.push(seconds);
    blocksBySession.push(blocks);
    played = playedOf(rows, {}).map((take) => ({ ...take, crossings: crossingsOf.get(take.entry.id) ?? [] }));
  }
  return { mendedAfter: lastOpen, bySession, blocksBySession };
}
