import { SAME_BEAT, type Seconds } from '@/core/base';
import { barSpans, secondsAt, type BarSpan, type Score } from '@/core/music';
import type { Group } from '@/core/hearing/matching';

/** What is seen of the music at once: some groups, the time they take, and the whole bars they stand in. */
export interface Page {
  readonly groups: readonly Group[];
  readonly fromSeconds: Seconds;
  readonly toSeconds: Seconds;
  readonly fromBeat: number;
  readonly toBeat: number;
}

type Music = Pick<Score, 'tempo' | 'swing' | 'beatsPerBar' | 'metres'>;

const LONGEST: Seconds = 9;
const MOST_NOTES = 8;
/** Short breaths share a page up to here. */
const FEW_NOTES = 5;
/** A bar of so many is still read at one glance; a fuller one is parted. */
const FULL_BAR = 12;

/**
 * Parts the music into pages, as an engraver would: at bar lines, where a breath ends there, or where enough is on the page.
 * Where no note begins at a bar line for too long, a page ends within a bar, and both pages show the whole of it.
 * Times are those of the music.
 */
export function pagesOf(score: Music, groups: readonly Group[]): Page[] {
  const last = groups[groups.length - 1];
  const spans = last ? barSpans(score, last.startBeat + last.beats) : [];
  const barOf = (beat: number) => spans.findLast(({ startBeat }) => startBeat <= beat + SAME_BEAT)!;
  const start = (row: readonly Group[]) => secondsAt(score, row[0]!.startBeat);
  const endBeat = (row: readonly Group[]) => row[row.length - 1]!.startBeat + row[row.length - 1]!.beats;
  const fits = (row: readonly Group[], more: readonly Group[], most: number) =>
    row.length + more.length <= most && secondsAt(score, endBeat(more)) - start(row) <= LONGEST;

  const endOf = ({ startBeat, beats }: BarSpan) => startBeat + beats;

  const bars: Group[][] = [];
  for (const group of groups) {
    const bar = bars[bars.length - 1];
    const atBarLine = Math.abs(group.startBeat - barOf(group.startBeat).startBeat) < SAME_BEAT;
    if (!bar || atBarLine || tooMuch(bar, group)) bars.push([group]);
    else bar.push(group);
  }
  function tooMuch(bar: readonly Group[], group: Group): boolean {
    const within = barOf(bar[0]!.startBeat) === barOf(group.startBeat + group.beats - 2 * SAME_BEAT);
    return within ? bar.length >= FULL_BAR : !fits(bar, [group], MOST_NOTES);
  }

  const breaths: Group[][] = [];
  for (const bar of bars) {
    const row = breaths[breaths.length - 1];
    const goesOn = row && row[row.length - 1]!.phrase === bar[0]!.phrase;
    if (goesOn && fits(row, bar, MOST_NOTES)) row.push(...bar);
    else breaths.push([...bar]);
  }
  const rows: Group[][] = [];
  for (const breath of breaths) {
    const row = rows[rows.length - 1];
    if (row && fits(row, breath, FEW_NOTES)) row.push(...breath);
    else rows.push(breath);
  }
  return rows.map((row) => ({
    groups: row,
    fromSeconds: start(row),
    toSeconds: secondsAt(score, endBeat(row)),
    fromBeat: barOf(row[0]!.startBeat).startBeat,
    toBeat: endOf(barOf(endBeat(row) - 2 * SAME_BEAT)),
  }));
}
