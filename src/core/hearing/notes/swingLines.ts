import { clamp, type Hertz, median, robustSlope, type Seconds } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import type { Vibrato } from './note';

/** Lines on each side of a partial, and partials, that are looked at; none that is so much weaker than the strongest. */
const LINES = { fewest: 8, most: 16 } as const;
/** How many times as wide as it seems a swing may be. */
const WIDER = 1.5;
const PARTIALS = 6;
const FAINT = 1e-3;
/** Periods of the tone in the window that parts its partials. */
const PERIODS = 3;
/**
 * How far the middle of the swing may lie beside the pitch's, a share of the tone. It is looked for half way to the next line: there it
 * cannot be told from a whole rate more or less, and each is another reading.
 */
const ASIDE = { share: 0.006, ofRate: 0.5, steps: 8 } as const;
/** Lines on each side that tell where the middle is, at least; and how far the rate may be off. */
const FEWEST_LINES = 3;
const RATE_OFF = { hertz: 0.2, steps: 3 } as const;
const NATURAL_CENT = Math.LN2 / 1200;

/** How far a swing turns the phase of partial 1, radians. */
export const indexOf = ({ rateHz, extentCents }: Vibrato, f0: Hertz): number =>
  (extentCents * NATURAL_CENT * f0) / rateHz;
/** Share of the frames in which the pitch has to be known. */
const MOSTLY = 0.7;

/** The pitch that a swing goes about: its mean over whole turns. Null where too little is known. */
export function withoutSwing(quickHz: Float64Array, rate: Hertz, hop: Seconds): Float64Array | null {
  const known: number[] = [];
  for (const hertz of quickHz) if (hertz > 0) known.push(hertz);
  if (known.length < MOSTLY * quickHz.length) return null;
  const logs = new Float64Array(quickHz.length);
  let last = Math.log(known[0]!);
  quickHz.forEach((hertz, i) => {
    if (hertz > 0) last = Math.log(hertz);
    logs[i] = last;
  });
  const turn = Math.max(1, Math.round(1 / (rate * hop)));
  return averaged(averaged(logs, turn), turn).map(Math.exp);
}

/** Moving mean over `width` values, its ends mirrored. */
function averaged(values: Float64Array, width: number): Float64Array {
  const n = values.length;
  const at = (i: number) =>
    values[i < 0 ? Math.min(n - 1, -1 - i) : i >= n ? Math.max(0, 2 * n - 1 - i) : i]!;
  const half = width >> 1;
  return values.map((_, i) => {
    let sum = 0;
    for (let k = i - half; k < i - half + width; k++) sum += at(k);
    return sum / width;
  });
}

/** A row of complex numbers. */
interface Row {
  readonly re: Float64Array;
  readonly im: Float64Array;
}
const emptyRow = (length: number): Row => ({ re: new Float64Array(length), im: new Float64Array(length) });

/** Each partial turned back by the middle of its swing, a value for every frame. @param middle Hz. @param first its first frame. */
function partialsAlong(
  sound: Float32Array,
  rate: Hertz,
  middle: Float64Array,
  first: number,
  hop: Seconds,
): Row[] {
  const f0 = middle[middle.length >> 1]!;
  const half = Math.max(2, Math.round((PERIODS * rate) / f0 / 2));
  const count = Math.min(PARTIALS, Math.floor((0.42 * rate) / f0));
  const start = Math.round(first * hop * rate) - half;
  const samples = Math.round(middle.length * hop * rate) + 2 * half;
  const turned = Array.from({ length: count }, () => emptyRow(samples));
  let phase = 0;
  for (let i = 0; i < samples; i++) {
    const frame = Math.floor((i - half) / (hop * rate));
    phase += (2 * Math.PI * middle[clamp(frame, 0, middle.length - 1)]!) / rate;
    const x = sound[start + i] ?? 0;
    const [cos, sin] = [Math.cos(phase), -Math.sin(phase)];
    let [re, im] = [x, 0];
    for (const row of turned) {
      [re, im] = [re * cos - im * sin, re * sin + im * cos];
      row.re[i] = re;
      row.im[i] = im;
    }
  }
  const window = hann(2 * half);
  return turned.map(({ re, im }) => {
    const row = emptyRow(middle.length);
    for (let frame = 0; frame < middle.length; frame++) {
      const from = Math.round(frame * hop * rate);
      let [a, b] = [0, 0];
      for (let i = 0; i < 2 * half; i++) {
        a += window[i]! * re[from + i]!;
        b += window[i]! * im[from + i]!;
      }
      row.re[frame] = a;
      row.im[frame] = b;
    }
    return row;
  });
}

/** The lines −n … n of partial h, of unit power together. */
export interface Lines extends Row {
  readonly h: number;
}

/**
 * What a swing makes of each partial that is heard: lines at multiples of its rate on both sides.
 * @param middle pitch that the swing goes about, Hz, for each frame from `first` on. Echoes make it waver: the straight line
 * through it is tried too, and what gathers more in the lines is taken.
 * @returns readings: the lines counted from each place where the middle may be.
 */
export function linesOf(frames: Frames, middle: Float64Array, first: number, vibrato: Vibrato): Lines[][] {
  const [wavering, straight] = [middle, straightened(middle)].map((path) =>
    linesAlong(frames, path, first, vibrato),
  );
  return straight!.held > wavering!.held ? straight!.readings : wavering!.readings;
}

function straightened(path: Float64Array): Float64Array {
  const slope = robustSlope(path);
  const middle = median(path);
  return path.map((_, i) => middle + slope * (i - (path.length - 1) / 2));
}

function linesAlong(
  { sound, hopSeconds: hop, settings }: Frames,
  middle: Float64Array,
  first: number,
  { rateHz, extentCents }: Vibrato,
): { readonly readings: Lines[][]; readonly held: number } {
  const f0 = middle[middle.length >> 1]!;
  const index = indexOf({ rateHz, extentCents }, f0);
  const count = clamp(Math.ceil(WIDER * index) + 4, LINES.fewest, LINES.most);
  const partials = partialsAlong(sound, settings.pitch.rate, middle, first, hop);
  const powers = partials.map(powerOf);
  const strongest = Math.max(...powers);
  const window = hann(middle.length);
  const heard = partials.flatMap(({ re, im }, i) =>
    powers[i]! > FAINT * strongest
      ? [{ row: { re: times(re, window), im: times(im, window) }, h: i + 1, power: powers[i]! }]
      : [],
  );
  const seen = Math.min(count, Math.max(FEWEST_LINES, Math.ceil(index) + 2));
  /** How much of the sound lies in the lines. */
  const held = (at: Hertz, aside: Hertz) =>
    heard.reduce(
      (sum, { row, h, power }) => sum + powerOf(linesAt(row, seen, at, h * aside, hop)) / power,
      0,
    );
  const most = Math.min(ASIDE.share * f0, ASIDE.ofRate * rateHz);
  const aside = likeliest(steps(ASIDE.steps, most), (by) => held(rateHz, by));
  const rate = rateHz + likeliest(steps(RATE_OFF.steps, RATE_OFF.hertz), (by) => held(rateHz + by, aside));
  return {
    held: held(rate, aside),
    readings: [-rate, 0, rate]
      .map((by) => aside + by)
      .filter((by) => by === aside || Math.abs(by) < ASIDE.share * f0)
      .map((by) =>
        heard.map(({ row, h }) => {
          const found = linesAt(row, count, rate, h * by, hop);
          const scale = 1 / Math.sqrt(powerOf(found) + 1e-30);
          return { h, re: found.re.map((x) => scale * x), im: found.im.map((x) => scale * x) };
        }),
      ),
  };
}

const powerOf = ({ re, im }: Row): number => re.reduce((sum, x, i) => sum + x * x + im[i]! * im[i]!, 0);

/** Values from −most to most. */
const steps = (each: number, most: number): number[] =>
  Array.from({ length: 2 * each + 1 }, (_, i) => (most * (i - each)) / each);

const likeliest = (values: readonly number[], howLikely: (value: number) => number): number => {
  const likelihoods = values.map(howLikely);
  return values[likelihoods.indexOf(Math.max(...likelihoods))]!;
};

const hann = (length: number) =>
  Float64Array.from({ length }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / length));

const times = (a: Float64Array, b: Float64Array) => a.map((x, i) => x * b[i]!);

/** Complex amplitudes at kΩ + aside for k = −lines … lines, phases counted from the middle. */
function linesAt({ re, im }: Row, lines: number, rate: Hertz, aside: Hertz, hop: Seconds): Row {
  const n = re.length;
  const found = emptyRow(2 * lines + 1);
  for (let k = -lines; k <= lines; k++) {
    const turn = -2 * Math.PI * (k * rate + aside) * hop;
    let [a, b] = [0, 0];
    let [cos, sin] = [Math.cos((-turn * n) / 2), Math.sin((-turn * n) / 2)];
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    for (let i = 0; i < n; i++) {
      a += re[i]! * cos - im[i]! * sin;
      b += re[i]! * sin + im[i]! * cos;
      [cos, sin] = [cos * c - sin * s, cos * s + sin * c];
    }
    found.re[k + lines] = a;
    found.im[k + lines] = b;
  }
  return found;
}
