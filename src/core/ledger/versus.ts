import { FIGURE_IDS, FIGURES, type FigureId } from '@/core/verdict';
import type { Entry, RowFigure } from './entry';

/** A figure of two takes, and whether it differs by more than the two may be off. */
export interface Versus {
  readonly id: FigureId;
  readonly label: string;
  readonly unit: string;
  readonly decimals: number;
  readonly first: number;
  readonly second: number;
  /** Second less first. */
  readonly difference: number;
  /** Null: of single readings nothing is known of how far they may be off. */
  readonly differs: boolean | null;
}

/** Standard error of a middle; null of a single reading. */
const errorOf = ([, spread, n]: RowFigure): number | null =>
  spread === null || n < 2 ? null : (1.2533 * spread) / Math.sqrt(n);

const SURE = 1.96;

/** What may be other in the same music: how fast, how loud, how often, what was attended to. */
const INCIDENTAL = ['tempo', 'cue', 'vibrato', 'dynamic', 'times'];

/** What earlier takes did not say, as all of them were played. */
const isUntold = (id: string, value: unknown) => id === 'through' && value === 'usual';

/** Whether two takes are of the same music. */
export function isSameMusic(a: Entry, b: Entry): boolean {
  const music = ({ instrumentId, family, title, parameters }: Entry) =>
    JSON.stringify([
      instrumentId,
      family,
      title,
      Object.entries(parameters)
        .filter(([id, value]) => !INCIDENTAL.includes(id) && !isUntold(id, value))
        .sort(([x], [y]) => (x < y ? -1 : 1)),
    ]);
  return music(a) === music(b);
}

/** Figures that two takes both have, in the order of the table of figures; counts out of something as shares. */
export function versus(a: Pick<Entry, 'figures'>, b: Pick<Entry, 'figures'>): Versus[] {
  return FIGURE_IDS.flatMap((id) => {
    const [one, other] = [a.figures[id], b.figures[id]];
    if (!one || !other) return [];
    const valueOf = ([value, , , of]: RowFigure) => (of ? (100 * value) / of : value);
    const counted = one[3] !== null && other[3] !== null;
    const [first, second] = [valueOf(one), valueOf(other)];
    const errors = [errorOf(one), errorOf(other)];
    const known = !counted && errors[0] != null && errors[1] != null;
    const { label, unit, decimals } = FIGURES[id];
    // What would be read as no difference is none.
    const seen = Math.abs(second - first) >= 0.5 * 10 ** -decimals;
    return [
      {
        id,
        label,
        unit: counted ? '%' : unit,
        decimals: counted ? 0 : decimals,
        first,
        second,
        difference: second - first,
        differs: known ? seen && Math.abs(second - first) > SURE * Math.hypot(errors[0]!, errors[1]!) : null,
      },
    ];
  });
}
