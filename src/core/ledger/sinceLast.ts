import type { Entry, RowFigure } from './entry';
import { FOLLOWED, type Followed } from './followed';
import { isSameMusic } from './versus';

/** What a take is about, against the one before of the same exercise. */
export interface SinceLast {
  readonly followed: Followed;
  readonly now: number;
  readonly before: number;
  /** Where it is a count: of how many. */
  readonly of: { readonly now: number; readonly before: number } | null;
  readonly earlier: Entry;
  /** It was not the same music: what differs may be that. */
  readonly setOtherwise: boolean;
  /** `same`: two takes differ by as much by chance. `untold`: how much chance does is not known, or the music was other. */
  readonly verdict: 'better' | 'worse' | 'same' | 'untold';
}

/** Standard errors that two takes have to be apart. */
const APART = 2;
const SLURS = 'slurs-clean';

/** @param earlier of the same exercise. Null: they have nothing in common that is followed. */
export function sinceLast(entry: Entry, earlier: Entry): SinceLast | null {
  const followed = FOLLOWED.find((each) => each.of(entry) !== null && each.of(earlier) !== null);
  if (!followed) return null;
  const [now, before] = [followed.of(entry)!, followed.of(earlier)!];
  const { id } = followed;
  const [mine, theirs] = id === 'clean-tempo' ? [] : [entry.figures[id], earlier.figures[id]];
  const of = followed.id === SLURS && mine?.[3] && theirs?.[3] ? { now: mine[3], before: theirs[3] } : null;
  const setOtherwise = !isSameMusic(entry, earlier);
  const found = { followed, now, before, of, earlier, setOtherwise };
  const error = of ? countError(now, before, of) : spreadError(mine, theirs);
  if (error === null || setOtherwise) return { ...found, verdict: 'untold' };
  const size = (value: number) => (followed.better === 'zero' ? -Math.abs(value) : value);
  const by = (size(now) - size(before)) * (followed.better === 'less' ? -1 : 1);
  const verdict = Math.abs(by) <= APART * error ? 'same' : by > 0 ? 'better' : 'worse';
  return { ...found, verdict };
}

/** Of a difference of two shares, in percent. */
function countError(now: number, before: number, of: { now: number; before: number }): number {
  const share = (now * of.now + before * of.before) / (100 * (of.now + of.before));
  // Three of three and four of four do not differ for certain: one more of each is taken to have gone the other way.
  const fair = Math.min(1 - 1 / (of.now + of.before + 2), Math.max(1 / (of.now + of.before + 2), share));
  return 100 * Math.sqrt(fair * (1 - fair) * (1 / of.now + 1 / of.before));
}

function spreadError(mine: RowFigure | undefined, theirs: RowFigure | undefined): number | null {
  const parts = [mine, theirs].map((row) =>
    row && row[1] !== null && row[2] >= 2 ? row[1] ** 2 / row[2] : null,
  );
  return parts[0] == null || parts[1] == null ? null : Math.sqrt(parts[0] + parts[1]);
}
