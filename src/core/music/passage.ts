import { barSpans, countInOf, type BarSpan } from './metres';
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

/** The bars of a piece; two with one number are the parts of a bar that a repeat cuts. */
export const numberedBars = (score: Score): BarSpan[] => barSpans(score, scoreBeats(score));

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
  const part = isWhole ? score : barsBetween(score, from.startBeat, to.startBeat + to.beats).score;
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
