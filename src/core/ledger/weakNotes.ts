import { median } from 'd3-array';
import type { Cents, Midi } from '@/core/base';
import { tendenciesOf, writtenRange, type Instrument } from '@/core/instruments';
import { unpacked, type PackedCells } from './cells';

/** A note that sits further off than this is called weak. */
const WEAK_CENTS: Cents = 10;

/**
 * Written notes that sit far from where they ought to: by what was heard of the player on this instrument, and, for notes
 * not yet heard, by the instrument's shipped guesses. @param cells one for each take on it.
 */
export function weakNotes(cells: readonly PackedCells[], instrument: Instrument): Midi[] {
  const heard = new Map<Midi, Cents[]>();
  for (const { written, cents } of cells.flatMap((packed) => unpacked(packed).notes))
    heard.set(written, [...(heard.get(written) ?? []), cents]);
  const { low, high } = writtenRange(instrument);
  const weak: Midi[] = [];
  for (let written = low; written <= high; written += instrument.step) {
    const guess = tendenciesOf(instrument, written).reduce((sum, each) => sum + each.cents, 0);
    if (Math.abs(median(heard.get(written) ?? []) ?? guess) > WEAK_CENTS) weak.push(written);
  }
  return weak;
}
