import type { Score, ScoreNote } from './score';

/** A crotchet in ticks: divisible by triplets and by semiquavers. */
export const TICKS = 48;

export type NoteType = 'whole' | 'half' | 'quarter' | 'eighth' | '16th' | '32nd';

/** One written note value: a note that crosses a bar line, or has no value of its own, is several, tied. */
export interface Token {
  /** Index of the note it belongs to; null is a rest. */
  readonly note: number | null;
  readonly type: NoteType;
  readonly dots: 0 | 1;
  /** Three in the time of two. */
  readonly triplet: boolean;
  readonly startTick: number;
  readonly ticks: number;
  readonly first: boolean;
  readonly last: boolean;
}

export interface Bar {
  readonly startTick: number;
  readonly tokens: readonly Token[];
}

const VALUES: readonly (readonly [ticks: number, NoteType, dots: 0 | 1, triplet: boolean])[] = [
  [192, 'whole', 0, false],
  [144, 'half', 1, false],
  [96, 'half', 0, false],
  [72, 'quarter', 1, false],
  [48, 'quarter', 0, false],
  [36, 'eighth', 1, false],
  [32, 'quarter', 0, true],
  [24, 'eighth', 0, false],
  [18, '16th', 1, false],
  [16, 'eighth', 0, true],
  [12, '16th', 0, false],
  [8, '16th', 0, true],
  [6, '32nd', 0, false],
  [4, '32nd', 0, true],
];

/** Nearest tick that a written value can begin on. */
export function ticksOf(beats: number): number {
  const ticks = beats * TICKS;
  const bySixth = Math.round(ticks / 6) * 6;
  const byFourth = Math.round(ticks / 4) * 4;
  return Math.abs(ticks - bySixth) <= Math.abs(ticks - byFourth) ? bySixth : byFourth;
}

function valuesFor(ticks: number): (typeof VALUES)[number][] {
  const exact = VALUES.find(([length]) => length === ticks);
  if (exact) return [exact];
  const parts: (typeof VALUES)[number][] = [];
  let rest = ticks;
  while (rest >= 4) {
    // Triplets only where nothing else is left over by a plain value.
    const value =
      VALUES.find(
        ([length, , , triplet]) =>
          length <= rest && (!triplet || rest % 6 !== 0) && (rest - length) % 4 === 0,
      ) ?? VALUES.find(([length]) => length <= rest);
    if (!value) break;
    parts.push(value);
    rest -= value[0];
  }
  return parts;
}

/** The music in bars, every gap a rest, as written values that notation and files share. */
export function barsOf(score: Pick<Score, 'notes' | 'beatsPerBar'>): Bar[] {
  const length = score.beatsPerBar * TICKS;
  const bars: { startTick: number; tokens: Token[] }[] = [];
  let at = 0;
  const put = (note: number | null, until: number) => {
    const begin = at;
    while (at < until) {
      const bar = Math.floor(at / length);
      bars[bar] ??= { startTick: bar * length, tokens: [] };
      const part = Math.min(until, (bar + 1) * length) - at;
      const values = valuesFor(part);
      if (values.length === 0) break;
      for (const [ticks, type, dots, triplet] of values) {
        bars[bar].tokens.push({
          note,
          type,
          dots,
          triplet,
          startTick: at,
          ticks,
          first: at === begin,
          last: at + ticks >= until,
        });
        at += ticks;
      }
    }
  };
  score.notes.forEach(({ startBeat, beats }, i) => {
    const start = ticksOf(startBeat);
    if (start > at) put(null, start);
    put(i, Math.max(start + 4, ticksOf(startBeat + beats)));
  });
  if (at % length !== 0) put(null, Math.ceil(at / length) * length);
  return bars;
}

/** Notes that share a hairpin, first and last; a swell has its note to itself. */
export interface HairpinSpan {
  readonly from: number;
  readonly to: number;
  readonly hairpin: NonNullable<ScoreNote['hairpin']>;
}

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

/** Where brackets over triplets begin and end: every three alike within a bar. */
export function tupletEnds(tokens: readonly Token[]): Map<Token, 'start' | 'stop'> {
  const ends = new Map<Token, 'start' | 'stop'>();
  for (let i = 0; i < tokens.length; i++) {
    const group = tokens.slice(i, i + 3);
    if (group.length < 3 || !group.every((token) => token.triplet && token.type === group[0]!.type)) continue;
    ends.set(group[0]!, 'start');
    ends.set(group[2]!, 'stop');
    i += 2;
  }
  return ends;
}
