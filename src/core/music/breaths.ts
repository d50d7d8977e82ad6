import { SAME_BEAT, type Seconds } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import { beatsToSeconds, type Dynamic, type Score, type ScoreNote } from './score';

/** How much longer or shorter a breath lasts than at mf. */
const LASTS: Readonly<Record<Dynamic, number>> = { pp: 1.3, p: 1.2, mp: 1.1, mf: 1, f: 0.75, ff: 0.6 };
/** A rest of this length is a breath. */
const REST: Seconds = 0.4;
/** A breath that has lasted this share of its length may be taken early where the music is parted. */
const EARLY = 0.4;

/** A note after which a breath can be taken, how well, and how much of the last breath is used up there. */
interface Chance {
  readonly at: number;
  /** 2 at a bar line, 1 at a beat, 0 within one. */
  readonly rank: 0 | 1 | 2;
  readonly used: number;
}

/** The latest at a bar line, else at a beat, if not far too early; else the latest of all. */
const bestOf = (chances: readonly Chance[]): Chance | undefined =>
  [2, 1]
    .map((rank) => chances.findLast((each) => each.rank >= rank && each.used >= EARLY))
    .find((each) => each !== undefined) ?? chances[chances.length - 1];

/**
 * Puts breath marks where the instrument's breath would otherwise not last: before a tongued note, at a bar line or a beat where
 * there is one; in a slur longer than a breath, wherever it ends, and the note after is tongued then.
 */
export function planBreaths(
  notes: readonly ScoreNote[],
  { tempo, beatsPerBar }: Pick<Score, 'tempo' | 'beatsPerBar'>,
  instrument: Instrument,
): ScoreNote[] {
  const planned = notes.map((note) => ({ ...note }));
  const need = (note: ScoreNote) =>
    beatsToSeconds({ tempo }, note.beats) / LASTS[note.dynamic] / instrument.breathSeconds;
  const isWhole = (number: number) => Math.abs(number - Math.round(number)) < SAME_BEAT;
  const rankAt = (beat: number) => (isWhole(beat / beatsPerBar) ? 2 : isWhole(beat) ? 1 : 0);
  let used = 0;
  let chances: Chance[] = [];
  for (let i = 0; i < planned.length; i++) {
    const note = planned[i]!;
    const before = planned[i - 1];
    const rest = before
      ? beatsToSeconds({ tempo }, note.startBeat - before.startBeat - before.beats)
      : Infinity;
    if (before?.breathAfter || rest >= REST) {
      used = 0;
      chances = [];
    } else if (note.attack !== 'none') chances.push({ at: i - 1, rank: rankAt(note.startBeat), used });
    if (before && used > 0 && used + need(note) > 1) {
      const best = bestOf(chances);
      const at = best?.at ?? i - 1;
      planned[at]!.breathAfter = true;
      const next = planned[at + 1]!;
      if (next.attack === 'none') next.attack = 'tongued';
      used = planned.slice(at + 1, i).reduce((sum, each) => sum + need(each), 0);
      chances = chances
        .filter((each) => each.at > at)
        .map((each) => ({ ...each, used: each.used - (best?.used ?? 0) }));
    }
    used += need(note);
  }
  return planned;
}
