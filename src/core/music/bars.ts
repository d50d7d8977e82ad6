import { barSpans, pulseOf, type BarSpan } from './metres';
import { scoreBeats, type Metre, type Score, type ScoreNote } from './score';

/** A crotchet in ticks: divisible by triplets, quintuplets and demisemiquavers. */
export const TICKS = 240;

export type NoteType = 'whole' | 'half' | 'quarter' | 'eighth' | '16th' | '32nd';

/** So many in the time of so many: 3 : 2, 5 : 4. */
export interface Tuplet {
  readonly actual: 3 | 5;
  readonly normal: 2 | 4;
}

/** One written note value: a note that crosses a bar line, or has no value of its own, is several, tied. */
export interface Token {
  /** Index of the note it belongs to; null is a rest. */
  readonly note: number | null;
  readonly type: NoteType;
  readonly dots: 0 | 1;
  readonly tuplet: Tuplet | null;
  readonly startTick: number;
  readonly ticks: number;
  readonly first: boolean;
  readonly last: boolean;
}

export interface Bar extends Pick<BarSpan, 'metre' | 'isNew' | 'number'> {
  readonly startTick: number;
  readonly ticks: number;
  readonly tokens: readonly Token[];
}

interface Value extends Pick<Token, 'ticks' | 'type' | 'dots' | 'tuplet'> {
  /** Places that it may begin at are multiples of this from the bar line. */
  readonly grid: number;
}

const TYPES = ['whole', 'half', 'quarter', 'eighth', '16th', '32nd'] as const;
const TRIPLET: Tuplet = { actual: 3, normal: 2 };
const QUINTUPLET: Tuplet = { actual: 5, normal: 4 };

/** Longest first. A plain value begins on a multiple of half its length, so that the beats of a bar can be seen. */
const VALUES: readonly Value[] = TYPES.flatMap((type, i): Value[] => {
  const ticks = (4 * TICKS) / 2 ** i;
  const plain: Value = { ticks, type, dots: 0, tuplet: null, grid: Math.max(30, ticks / 2) };
  const dotted: Value = { ...plain, ticks: 1.5 * ticks, dots: 1 };
  const parts = [TRIPLET, QUINTUPLET].map((tuplet): Value => {
    const each = (ticks * tuplet.normal) / tuplet.actual;
    return { ...plain, ticks: each, tuplet, grid: i < 2 ? each : each / 4 };
  });
  return i === 0 ? [plain] : i === 5 ? [plain, ...parts] : [dotted, plain, ...parts];
}).sort((a, b) => b.ticks - a.ticks);

/** Grids that values begin on: plain, triplets, quintuplets. */
const GRIDS = [30, 20, 24] as const;

/** Nearest tick that a written value can begin on. */
export function ticksOf(beats: number): number {
  const ticks = beats * TICKS;
  const nearest = GRIDS.map((grid) => Math.round(ticks / grid) * grid);
  const errors = nearest.map((each) => Math.abs(each - ticks) + 1e-6);
  // What is as near without a tuplet is none.
  return nearest[
    errors.findIndex((error, i) => errors.every((other, k) => k <= i || error <= other + 1e-3))
  ]!;
}

const isPlain = (ticks: number) => ticks % GRIDS[0] === 0;

/** What is left between grids that do not meet: no value is so short, but time has to add up. */
const shorterThanAny = (ticks: number): Value => ({ ticks, type: '32nd', dots: 0, tuplet: null, grid: 1 });

/** Values for a length that begins so far into a bar, in order. Rests have no dots, and begin where such a value would. */
function valuesFor(place: number, ticks: number, isRest: boolean, metre: Metre): Value[] {
  const pulse = pulseOf(metre) * TICKS;
  const next = pulse - (place % pulse);
  // Where beats are three quavers long, whatever goes over one is parted there, so that the threes are seen.
  if (pulse > TICKS && pulse % TICKS !== 0 && ticks > next && (place % pulse !== 0 || ticks % pulse !== 0)) {
    const whole = place % pulse === 0 ? Math.floor(ticks / pulse) * pulse : next;
    return [
      ...valuesFor(place, whole, isRest, metre),
      ...valuesFor(place + whole, ticks - whole, isRest, metre),
    ];
  }
  const values: Value[] = [];
  let [at, rest] = [place, ticks];
  while (rest > 0) {
    const fits = (value: Value) => {
      if (isRest) return value.dots === 0 && at % value.ticks === 0;
      return at % value.grid === 0;
    };
    const single = VALUES.find((each) => each.ticks === rest && fits(each));
    if (single) return [...values, single];
    const toBeat = TICKS - (at % TICKS);
    const part = at % TICKS !== 0 && rest > toBeat ? toBeat : rest;
    const plain = isPlain(at) && isPlain(part);
    const leaves = (value: Value) =>
      value.ticks === part || GRIDS.some((grid) => (part - value.ticks) % grid === 0);
    const can = (each: Value) => each.ticks <= part && fits(each) && leaves(each);
    const value =
      VALUES.find((each) => each.ticks === part && fits(each)) ??
      VALUES.find((each) => (each.tuplet === null) === plain && can(each)) ??
      VALUES.find(can) ??
      VALUES.find((each) => each.ticks <= part) ??
      shorterThanAny(part);
    values.push(value);
    at += value.ticks;
    rest -= value.ticks;
  }
  return values;
}

/** The music in bars, every gap a rest, as written values that notation and files share. */
export function barsOf(score: Pick<Score, 'notes' | 'beatsPerBar' | 'metres'>): Bar[] {
  if (score.notes.length === 0) return [];
  const bars = barSpans(score, scoreBeats({ ...score, pictures: [] })).map(
    ({ startBeat, beats, metre, isNew, number }) => ({
      startTick: Math.round(startBeat * TICKS),
      ticks: Math.round(beats * TICKS),
      metre,
      isNew,
      number,
      tokens: [] as Token[],
    }),
  );
  let [at, inBar] = [0, 0];
  const put = (note: number | null, until: number) => {
    const begin = at;
    while (at < until && inBar < bars.length) {
      const { startTick, ticks: length, tokens, metre } = bars[inBar]!;
      const barEnd = startTick + length;
      const part = Math.min(until, barEnd) - at;
      const whole = note === null && part === length && at === startTick;
      const values = whole
        ? [VALUES.find(({ type }) => type === 'whole')!]
        : valuesFor(at - startTick, part, note === null, metre);
      for (const { type, dots, tuplet, ticks } of values) {
        const own = whole ? length : ticks;
        tokens.push({
          note,
          type,
          dots,
          tuplet,
          startTick: at,
          ticks: own,
          first: at === begin,
          last: at + own >= until,
        });
        at += own;
      }
      if (at >= barEnd) inBar++;
    }
  };
  score.notes.forEach(({ startBeat, beats }, i) => {
    const start = ticksOf(startBeat);
    if (start > at) put(null, start);
    put(i, Math.max(at + GRIDS[1], ticksOf(startBeat + beats)));
  });
  const last = bars[bars.length - 1]!;
  put(null, last.startTick + last.ticks);
  return bars;
}

/** Notes that share a hairpin, first and last; a swell has its note to itself. */
export interface HairpinSpan {
  readonly from: number;
  readonly to: number;
  readonly hairpin: NonNullable<ScoreNote['hairpin']>;
}

/** Neighbours with one hairpin share it, unless the level begins anew: after a breath, or on a tone that is written again. */
export function hairpinsOf(notes: readonly ScoreNote[]): HairpinSpan[] {
  const spans: { from: number; to: number; hairpin: HairpinSpan['hairpin'] }[] = [];
  notes.forEach((note, i) => {
    if (!note.hairpin) return;
    const before = notes[i - 1];
    const open = spans[spans.length - 1];
    const continues =
      open?.to === i - 1 &&
      open.hairpin === note.hairpin &&
      note.hairpin !== 'swell' &&
      before?.dynamic === note.dynamic &&
      before.written !== note.written &&
      !before.breathAfter &&
      Math.abs(before.startBeat + before.beats - note.startBeat) < 1e-6;
    if (continues) open.to = i;
    else spans.push({ from: i, to: i, hairpin: note.hairpin });
  });
  return spans;
}

/** Slurs: first and last note of each. */
export function slursOf(notes: readonly ScoreNote[]): { from: number; to: number }[] {
  const slurs: { from: number; to: number }[] = [];
  notes.forEach((note, i) => {
    if (note.attack !== 'none' || i === 0) return;
    const open = slurs[slurs.length - 1];
    if (open?.to === i - 1) open.to = i;
    else slurs.push({ from: i - 1, to: i });
  });
  return slurs;
}

/** A bracket: the tokens under it, first and last included. */
export interface TupletSpan {
  readonly from: number;
  readonly to: number;
  readonly tuplet: Tuplet;
}

/** Tuplets among the tokens of a bar, mixed values included: each ends where its tokens fill plain time again. */
export function tupletsOf(tokens: readonly Token[]): TupletSpan[] {
  const spans: TupletSpan[] = [];
  let from: number | null = null;
  let ticks = 0;
  tokens.forEach(({ tuplet, ticks: own }, i) => {
    const open = from === null ? null : tokens[from]!.tuplet;
    if (tuplet === null || (open && open.actual !== tuplet.actual)) from = null;
    if (tuplet === null) return;
    if (from === null) [from, ticks] = [i, 0];
    ticks += own;
    if (ticks % (TICKS / 2) !== 0) return;
    spans.push({ from, to: i, tuplet });
    from = null;
  });
  return spans;
}
