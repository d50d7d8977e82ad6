import { groups } from 'd3-array';
import { leastSquares, studentT, weighted, type Estimate } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import { readingsOf } from './noteMap';
import { usualOf } from './normal';
import type { Played } from './played';

/** An effect is told of so many sittings or more. */
const LEAST_SITTINGS = 4;
const LEAST_STEP_DB = 4;
/** Warming up is over after so many minutes. */
const WARM_MINUTES = 20;

/** Mean over sittings with Student's interval; null of too few. */
function overSittings(values: readonly number[]): (Estimate & { sittings: number }) | null {
  if (values.length < LEAST_SITTINGS) return null;
  const { mean, variance } = weighted(
    values,
    values.map(() => 1),
  );
  const reach = studentT(values.length - 1) * Math.sqrt((variance ?? 0) / values.length);
  return { value: mean, low: mean - reach, high: mean + reach, sittings: values.length };
}

/** How the pitch goes with the level: cents for 10 dB more, of notes that were played at two levels in one sitting. */
export function loudnessEffect(played: readonly Played[]): (Estimate & { sittings: number }) | null {
  const slopes = groups(played, ({ sitting }) => sitting).flatMap(([, takes]) => {
    const cells = takes.flatMap(({ notes }) => notes.filter(({ levelDb }) => levelDb !== null));
    const byNote = groups(cells, ({ written }) => written).flatMap(([, same]) => {
      const [x, y] = [same.map(({ levelDb }) => levelDb!), same.map(({ cents }) => cents)];
      return Math.max(...x) - Math.min(...x) < LEAST_STEP_DB ? [] : [10 * leastSquares(x, y).slope];
    });
    return byNote.length === 0 ? [] : [byNote.reduce((a, b) => a + b, 0) / byNote.length];
  });
  return overSittings(slopes);
}

/** How far the instrument rises while it warms: cents over the first twenty minutes of a sitting, note by note. */
export function warmUpEffect(
  played: readonly Played[],
  instrument: Instrument,
): (Estimate & { sittings: number }) | null {
  const readings = [...readingsOf(played, instrument, usualOf(played)).values()].filter(
    (each) => each.length > 1,
  );
  const residuals = readings.flatMap((same) => {
    const { mean } = weighted(
      same.map(({ cents }) => cents),
      same.map(({ n }) => n),
    );
    return same.map(({ take, cents }) => ({ take, cents: cents - mean }));
  });
  const slopes = groups(residuals, ({ take }) => take.sitting).flatMap(([, same]) => {
    const x = same.map(({ take }) => Math.min(WARM_MINUTES, take.minutesIn));
    if (Math.max(...x) - Math.min(...x) < WARM_MINUTES / 2) return [];
    return [
      WARM_MINUTES *
        leastSquares(
          x,
          same.map(({ cents }) => cents),
        ).slope,
    ];
  });
  return overSittings(slopes);
}
