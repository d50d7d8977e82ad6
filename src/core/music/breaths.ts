import type { Instrument } from '@/core/instruments';
import type { Seconds } from '@/core/tuning';
import { beatsToSeconds, type Dynamic, type Score, type ScoreNote } from './score';

/** How much longer or shorter a breath lasts than at mf. */
const LASTS: Readonly<Record<Dynamic, number>> = { pp: 1.3, p: 1.2, mp: 1.1, mf: 1, f: 0.75, ff: 0.6 };
/** A rest of this length is a breath. */
const REST: Seconds = 0.4;

/**
 * Puts breath marks where the instrument's breath would otherwise not last: after the last note before a tongued one, or,
 * in a slur longer than a breath, wherever it ends; the note after is tongued then.
 */
export function planBreaths(
  notes: readonly ScoreNote[],
  tempo: Score['tempo'],
  instrument: Instrument,
): ScoreNote[] {
  const planned = notes.map((note) => ({ ...note }));
  const need = (note: ScoreNote) =>
    beatsToSeconds({ tempo }, note.beats) / LASTS[note.dynamic] / instrument.breathSeconds;
  let used = 0;
  let place = -1;
  for (let i = 0; i < planned.length; i++) {
    const note = planned[i]!;
    const before = planned[i - 1];
    const rest = before
      ? beatsToSeconds({ tempo }, note.startBeat - before.startBeat - before.beats)
      : Infinity;
    if (before?.breathAfter || rest >= REST) {
      used = 0;
      place = -1;
    } else if (note.attack !== 'none') place = i - 1;
    if (before && used > 0 && used + need(note) > 1) {
      const at = place >= 0 ? place : i - 1;
      planned[at]!.breathAfter = true;
      const next = planned[at + 1]!;
      if (next.attack === 'none') next.attack = 'tongued';
      used = planned.slice(at + 1, i).reduce((sum, each) => sum + need(each), 0);
      place = -1;
    }
    used += need(note);
  }
  return planned;
}
