import { barSpans, countInOf, lengthOf } from './metres';
import { scoreBeats, type Score } from './score';
import { barsBetween } from './stretch';

/** A part of a piece, and how it is practised. */
export interface Passage {
  /** First and last bar, as musicians count: a pickup is bar 0. */
  readonly fromBar: number;
  readonly toBar: number;
  /** Crotchets a minute; null: free. */
  readonly tempo: number | null;
  readonly times: number;
}

/** A bar by its number, from line to line. */
interface Numbered {
  readonly number: number;
  readonly startBeat: number;
  readonly endBeat: number;
}

const NEAR = 1e-6;

/** The bars of a piece as musicians count them. */
export function numberedBars(score: Score): Numbered[] {
  const spans = barSpans(score, scoreBeats(score));
  const [first] = spans;
  const isPickup = spans.length > 1 && first!.beats < lengthOf(first!.metre) - NEAR;
  return spans.map(({ startBeat, beats }, i) => ({
    number: i + (isPickup ? 0 : 1),
    startBeat,
    endBeat: startBeat + beats,
  }));
}

/** All of a piece, once, at its own tempo. */
export function wholeOf(score: Score): Passage {
  const bars = numberedBars(score);
  return {
    fromBar: bars[0]!.number,
    toBar: bars[bars.length - 1]!.number,
    tempo: score.tempo,
    times: 1,
  };
}

/** A passage as music of its own: what is slurred or held into it is begun. */
export function passageOf(score: Score, { fromBar, toBar, tempo, times }: Passage): Score {
  const all = numberedBars(score);
  const bars = all.filter(({ number }) => number >= fromBar && number <= toBar);
  const [from, to] = [bars[0] ?? all[0]!, bars[bars.length - 1] ?? all[all.length - 1]!];
  const isWhole = from === all[0] && to === all[all.length - 1];
  const part = isWhole ? score : barsBetween(score, from.startBeat, to.endBeat).score;
  const notes = part.notes.map((note, i) =>
    i === 0 && note.attack === 'none' ? { ...note, attack: 'tongued' as const } : note,
  );
  const where = from === to ? `bar ${from.number}` : `bars ${from.number}–${to.number}`;
  return {
    ...part,
    title: isWhole ? score.title : `${score.title}, ${where}`,
    notes,
    tempo,
    countInBeats: tempo === null ? 0 : countInOf(part),
    repeats: times,
  };
}
