/** A tone that may have been stopped and begun again: the frames of both, and how likely it is in log-odds. */
export interface Start {
  readonly stop: number;
  readonly at: number;
  readonly odds: number;
}

/**
 * Starts in step: how many at least, how far each may be off its place, how much likelier one is where it is expected and what it may
 * count at most, what a missing one counts and from which log-odds on one is there at all (of slow notes before quick ones every other
 * step is not), from which log-odds steps are tried (also halves and thirds of their distances), what they have to add up to, how many
 * starts before each a step is taken from, and how many times the shortest step the longest is.
 */
const IN_STEP = {
  fewest: 3,
  share: 0.15,
  expected: 2.5,
  most: 3,
  missing: -4,
  there: -4,
  strong: -2.5,
  parts: [1, 2, 3],
  together: 5,
  neighbours: 8,
  longest: 10,
} as const;

/** Of two that cannot both be, the likelier. */
export const likeliest = (candidates: readonly Start[], apart: number): Start[] =>
  candidates.filter(({ at, odds }) =>
    candidates.every((other) => Math.abs(other.at - at) >= apart || other.odds <= odds),
  );

/**
 * Notes that are repeated come in step: starts a whole number of steps after the first are believed together, when their log-odds
 * add up.
 * @param first frame in which the tone begins. @param all in the order of time. @param shortest frames of a step.
 * @returns the candidates of the likeliest step; none where no step is likely.
 */
export function inStep(first: number, all: readonly Start[], shortest: number): Start[] {
  const strong = all.filter(({ odds }) => odds > IN_STEP.strong);
  const steps = strong.flatMap(({ at }, i) =>
    [first, ...strong.map((other) => other.at)]
      .slice(Math.max(0, i + 1 - IN_STEP.neighbours), i + 1)
      .flatMap((other) => IN_STEP.parts.map((parts) => Math.round((4 * (at - other)) / parts) / 4)),
  );
  let best: Row = { odds: IN_STEP.together, starts: [] };
  for (const step of new Set(steps)) {
    if (step < shortest || step > IN_STEP.longest * shortest) continue;
    const row = rowOf(first, all, step, best.odds);
    if (row) best = row;
  }
  return [...best.starts];
}

interface Row {
  readonly odds: number;
  readonly starts: readonly Start[];
}

/** The likeliest row of starts a step apart, as long as it gets likelier; null where it is no likelier than asked. */
function rowOf(first: number, all: readonly Start[], step: number, than: number): Row | null {
  const slack = IN_STEP.share * step;
  const starts: Start[] = [];
  let row: Row | null = null;
  let odds = 0;
  let next = 0;
  // Where the next is looked for follows those that were found.
  let last = first;
  for (let count = 1; next < all.length; count++) {
    while (next < all.length && all[next]!.at <= last + step - slack) next++;
    let here: Start | null = null;
    for (let k = next; k < all.length && all[k]!.at < last + step + slack; k++)
      if (all[k]!.odds > (here?.odds ?? IN_STEP.there)) here = all[k]!;
    odds += here ? Math.min(here.odds + IN_STEP.expected, IN_STEP.most) : IN_STEP.missing;
    if (here) starts.push(here);
    last = here ? here.at : last + step;
    if (count >= IN_STEP.fewest && odds > (row?.odds ?? than)) row = { odds, starts: [...starts] };
  }
  return row;
}
