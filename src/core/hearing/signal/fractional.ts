/** Samples on each side that a value between samples is made of. */
export const REACH = 8;
/** Places between two samples that are told apart. */
const PHASES = 64;
/** Distance, in phases, of the three values that a parabola is laid through. */
const STEP = 8;
const ROUNDS = 2;

/** Rows of weights for shifts of −½ … ½ sample: a sinc under a Blackman window, summing to 1. */
const WEIGHTS = Array.from({ length: PHASES + 2 * STEP + 1 }, (_, row) => {
  const shift = (row - STEP) / PHASES - 0.5;
  const raw = Float64Array.from({ length: 2 * REACH + 1 }, (_unused, i) => {
    const x = i - REACH - shift;
    const sinc = x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
    const phase = Math.min(1, Math.abs(x) / (REACH + 0.5));
    return sinc * (0.42 + 0.5 * Math.cos(Math.PI * phase) + 0.08 * Math.cos(2 * Math.PI * phase));
  });
  const sum = raw.reduce((a, b) => a + b, 0);
  return raw.map((w) => w / sum);
});

function valueAt(values: Float64Array, at: number, row: number): number {
  const weights = WEIGHTS[row]!;
  let sum = 0;
  // An even function of the lag: what lies before 0 mirrors what lies behind it.
  for (let i = 0; i <= 2 * REACH; i++) sum += weights[i]! * values[Math.abs(at - REACH + i)]!;
  return sum;
}

/** The highest point of a band-limited even function near one of its samples. Reused from call to call. */
export class FractionalPeak {
  /** From the sample, −½ … ½. */
  shift = 0;
  height = 0;

  /** @param at index of a local maximum, with REACH samples after it. @param guess a first idea of the shift. */
  find(values: Float64Array, at: number, guess: number): void {
    let middle = STEP + Math.round((Math.min(0.5, Math.max(-0.5, guess)) + 0.5) * PHASES);
    for (let round = 0; ; round++) {
      const left = valueAt(values, at, middle - STEP);
      const centre = valueAt(values, at, middle);
      const right = valueAt(values, at, middle + STEP);
      const bend = left - 2 * centre + right;
      const steps = bend < 0 ? Math.min(2, Math.max(-2, (left - right) / (2 * bend))) : 0;
      const next = Math.min(PHASES + STEP, Math.max(STEP, Math.round(middle + steps * STEP)));
      // A parabola is true near its middle only: laid anew where the peak turned out to lie elsewhere.
      if (round === ROUNDS || Math.abs(next - middle) < STEP / 4) {
        this.shift = (middle - STEP + steps * STEP) / PHASES - 0.5;
        this.height = centre - ((left - right) * steps) / 4;
        return;
      }
      middle = next;
    }
  }
}
