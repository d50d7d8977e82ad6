import { secondsAt, type Score } from '@/core/music';
import type { Group } from '@/core/hearing/matching';
import type { Seconds } from '@/core/tuning';

/** What is seen of the music at once: some groups, and the time they take. */
export interface Page {
  readonly groups: readonly Group[];
  readonly fromSeconds: Seconds;
  readonly toSeconds: Seconds;
}

const LONGEST: Seconds = 9;
const MOST_NOTES = 8;

/** Parts the music into pages at its breaths, and within a long breath where enough is on the page. Times are those of the music. */
export function pagesOf(score: Pick<Score, 'tempo' | 'swing'>, groups: readonly Group[]): Page[] {
  const start = (group: Group) => secondsAt(score, group.startBeat);
  const end = (group: Group) => secondsAt(score, group.startBeat + group.beats);
  const rows: Group[][] = [];
  groups.forEach((group, i) => {
    const row = rows[rows.length - 1];
    const first = row?.[0];
    const isNew =
      !row ||
      !first ||
      group.phrase !== groups[i - 1]!.phrase ||
      row.length >= MOST_NOTES ||
      end(group) - start(first) > LONGEST;
    if (isNew) rows.push([group]);
    else row.push(group);
  });
  // Single notes in a breath each share a page as long as there is room.
  const joined: Group[][] = [];
  for (const row of rows) {
    const before = joined[joined.length - 1];
    const fits =
      before && before.length + row.length <= 5 && end(row[row.length - 1]!) - start(before[0]!) <= LONGEST;
    if (fits) before.push(...row);
    else joined.push(row);
  }
  return joined.map((row) => ({
    groups: row,
    fromSeconds: start(row[0]!),
    toSeconds: end(row[row.length - 1]!),
  }));
}
