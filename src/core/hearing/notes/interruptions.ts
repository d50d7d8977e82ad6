import { median, quantile } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import { midiToHertz, type Decibels, type Hertz } from '@/core/tuning';
import { hopMean } from './gaps';
import { balances, strongestPartial } from './hiddenModes';
import type { Plateau } from './plateaus';

/** Between these frames a tone of one pitch did not carry on: it was stopped and begun again, or something else sounded. */
export interface Interruption {
  readonly from: number;
  readonly to: number;
}

/** A pause lets the level fall by this even in a room that rings. */
const PAUSE_DB: Decibels = 4;
/** A mode above has every second or third partial of the note: the others fall against them by this. */
const SHIFT_DB: Decibels = 8;
const MODES_ABOVE = [2, 3] as const;
/** Nearer than this to a partial it is that partial. */
const PARTIAL_CENTS = 40;

/**
 * What sounded in the place of a tone while it was interrupted, in MIDI numbers; null when nothing did. In a room the tone's echo
 * goes on, so that its pitch is still found: what took its place is the strongest that sounds and no partial of the tone, or
 * strengthens those partials that the two share.
 */
export function soundInPlace(
  { from, to }: Interruption,
  note: Plateau,
  modes: readonly number[],
  frames: Frames,
  a4: Hertz,
): number | null {
  if (fallDuring(from, to, note, frames) > PAUSE_DB) return null;
  const strongest = median(frames.strongestHz.subarray(from + 1, to));
  const f0 = midiToHertz(note.pitch, a4);
  if (!isPartialOf(strongest, f0)) {
    const mode = modes.find((pitch) => isPartialOf(strongest, midiToHertz(pitch, a4)));
    if (mode !== undefined) return mode;
  }
  const above = MODES_ABOVE.find((m) => shiftTo(m, from, to, note, frames) >= SHIFT_DB);
  if (above === undefined) return null;
  return note.pitch + 12 * Math.log2(Math.max(above, strongestPartial(frames, from + 2, to)));
}

function isPartialOf(hertz: Hertz, f0: Hertz): boolean {
  const k = Math.max(1, Math.round(hertz / f0));
  return Math.abs(1200 * Math.log2(hertz / (k * f0))) < PARTIAL_CENTS;
}

function fallDuring(from: number, to: number, note: Plateau, { hopDb }: Frames): Decibels {
  const before = Array.from({ length: 8 }, (_, k) => hopMean(hopDb, Math.max(note.from, from - 2 - k), 3));
  const during = Array.from({ length: Math.max(1, to - from - 2) }, (_, k) =>
    hopMean(hopDb, from + 2 + k, 3),
  );
  return median(before) - quantile(during, 0.3);
}

/** How far the partials that are multiples of m gain on the others, dB. */
function shiftTo(m: number, from: number, to: number, note: Plateau, frames: Frames): Decibels {
  const balance = (a: number, b: number) =>
    median(balances(frames, Math.max(note.from, a), Math.min(note.to, b), m).balance);
  return balance(from + 2, to) - balance(from - 12, from - 2);
}
