import { tendenciesOf, writtenOf, writtenRange, type Instrument } from '@/core/instruments';
import type { Cents, Midi } from '@/core/tuning';
import { median } from 'd3-array';
import type { Take } from './take';

/** A note that sits further off than this is called weak. */
const WEAK_CENTS: Cents = 10;

/**
 * Written notes that sit far from where they ought to: by what was heard of the player on this instrument, and, for notes
 * not yet heard, by the instrument's shipped guesses.
 */
export function weakNotes(takes: readonly Take[], instrument: Instrument): Midi[] {
  const heard = new Map<Midi, Cents[]>();
  for (const take of takes) {
    if (take.score.instrumentId !== instrument.id || !take.score.counts.feeds.map) continue;
    for (const { soundingMidi, centreCents } of take.notes) {
      if (centreCents === null) continue;
      const written = writtenOf(instrument, soundingMidi);
      heard.set(written, [...(heard.get(written) ?? []), centreCents]);
    }
  }
  const { low, high } = writtenRange(instrument);
  const weak: Midi[] = [];
  for (let written = low; written <= high; written += instrument.step) {
    const guess = tendenciesOf(instrument, written).reduce((sum, each) => sum + each.cents, 0);
    if (Math.abs(median(heard.get(written) ?? []) ?? guess) > WEAK_CENTS) weak.push(written);
  }
  return weak;
}
