/** A mark on a row: a value and, where it is known, how far it may be from the truth or how far it reaches. */
export interface ChartRow {
  readonly name: string;
  /** Null: not known, or not reached; `text` says which. */
  readonly value: number | null;
  /** From one end to the other, where it is a stretch rather than a point. */
  readonly from?: number;
  readonly to?: number;
  /** The figure in words, with its unit. */
  readonly text: string;
  /** Beyond its limit: drawn filled, and told by its text too. */
  readonly stands?: boolean;
}

/** Figures of several places under one another, about a zero (`deviations`) or from it (`amounts`, `spans`). */
export interface RowsChart {
  readonly kind: 'rows';
  readonly title: string;
  readonly form: 'deviations' | 'amounts' | 'spans';
  /** Value at the edge of the drawing, least; more where a row reaches further. */
  readonly reach: number;
  /** What the two sides mean, for deviations: `low`, `high`. */
  readonly sides?: readonly [string, string];
  readonly rows: readonly ChartRow[];
}

export interface ChartLine {
  readonly name: string;
  /** `played` is the player's own; `asked` is what it is held against; `second` belongs to the other axis or leg. */
  readonly style: 'played' | 'asked' | 'second';
  readonly points: readonly { readonly x: number; readonly y: number }[];
}

/** One thing against another. */
export interface CurvesChart {
  readonly kind: 'curves';
  readonly title: string;
  readonly x: { readonly label: string; readonly unit: string };
  readonly y: { readonly label: string; readonly unit: string };
  /** Drawn where the figure is asked to lie. */
  readonly zero?: number;
  readonly lines: readonly ChartLine[];
  /** Places on the x axis that are spoken of. */
  readonly marks: readonly { readonly x: number; readonly text: string }[];
}

/** Words and figures in columns. */
export interface TableChart {
  readonly kind: 'table';
  readonly title: string;
  readonly columns: readonly string[];
  readonly rows: readonly { readonly name: string; readonly cells: readonly string[] }[];
}

/** What is drawn of a take besides its strip: a few forms that every measure finds its own in. */
export type Chart = RowsChart | CurvesChart | TableChart;
