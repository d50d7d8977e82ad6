import type { Entry } from './entry';

/** Takes of one exercise, one after the other. */
export interface LogBlock {
  /** In the order of the rows. */
  readonly entries: readonly Entry[];
  readonly seconds: number;
}

/** After a longer pause it is another block. */
const PAUSE_MS = 20 * 60_000;

const beganAt = ({ createdAt }: Entry) => Date.parse(createdAt);

/** Whether two neighbouring rows are of one block, whichever is the earlier. */
function goOn(a: Entry, b: Entry): boolean {
  const [earlier, later] = beganAt(a) <= beganAt(b) ? [a, b] : [b, a];
  return (
    a.family === b.family &&
    a.title === b.title &&
    a.instrumentId === b.instrumentId &&
    beganAt(later) - beganAt(earlier) - 1000 * earlier.durationSeconds < PAUSE_MS
  );
}

/** Rows in order of time, brought together where they were played in one go. */
export function blocksIn(entries: readonly Entry[]): LogBlock[] {
  const blocks: Entry[][] = [];
  for (const entry of entries) {
    const latest = blocks[blocks.length - 1];
    const before = latest?.[latest.length - 1];
    if (latest && before && goOn(before, entry)) latest.push(entry);
    else blocks.push([entry]);
  }
  return blocks.map((same) => ({
    entries: same,
    seconds: same.reduce((sum, { durationSeconds }) => sum + durationSeconds, 0),
  }));
}
