/** Every case of every matrix is wanted: `npm run check -- --whole`. */
export const WHOLE = process.env.WHOLE !== undefined;

/**
 * For tests: of many cases that say much the same the first, the last and what lies evenly between; all of them in a whole run.
 * What no other case says belongs into a test of its own.
 */
export function thinned<T>(cases: readonly T[], few: number): T[] {
  if (WHOLE || cases.length <= few) return [...cases];
  const step = few > 1 ? (cases.length - 1) / (few - 1) : 0;
  return Array.from({ length: few }, (_, i) => cases[Math.round(i * step)]!);
}

/** Runs of a property: fewer than in a whole run. */
export const runs = (whole: number): number => (WHOLE ? whole : Math.max(8, Math.ceil(whole / 4)));
