import type { Midi } from '@/core/base';
import { isUsual, writtenRange } from './lookup';
import type { Instrument } from './instrument';

/** The place between two registers: the highest note of the one and the lowest of the other. */
export interface Break {
  readonly below: Midi;
  readonly above: Midi;
}

/** Two notes on the two sides of a break, with a direction. */
export interface Seam {
  readonly from: Midi;
  readonly to: Midi;
  readonly direction: 'up' | 'down';
  /** Semitones. */
  readonly width: number;
  /** How many breaks lie between them. */
  readonly breaks: number;
}

/** Semitones under a break within which its lower note is looked for. */
const REACH = 3;

/** Written notes on the two sides of each register break, from low to high. */
export function seamsOf(instrument: Instrument): Break[] {
  return instrument.registers.slice(1).map(({ low: above }) => {
    const under = Array.from(
      { length: REACH / instrument.step },
      (_, i) => above - (i + 1) * instrument.step,
    );
    // Quarter-tones lie between the notes that a player crosses with.
    return { below: under.find((written) => isUsual(instrument, written)) ?? under[0]!, above };
  });
}

/** The break that players mean: the first at which the tube changes its mode, and not only its fingering. */
export function mainBreakOf(instrument: Instrument): Break | undefined {
  const { registers } = instrument;
  const place = registers.findIndex(
    ({ modes }, i) => i > 0 && modes[0]!.mode !== registers[i - 1]!.modes.at(-1)!.mode,
  );
  return seamsOf(instrument)[place - 1] ?? seamsOf(instrument)[0];
}

/**
 * Where the registers meet, by the mode of the tube, or with the first of them by the hand where there are two views of it.
 */
export function breaksBy(instrument: Instrument, view: 'mode' | 'hand'): Break[] {
  const byMode = seamsOf(instrument);
  return view === 'hand' && instrument.handBreak ? [instrument.handBreak, ...byMode.slice(1)] : byMode;
}

/** The seam between two written notes; null when they lie in one register. */
export function seamBetween(instrument: Instrument, from: Midi, to: Midi): Seam | null {
  const low = Math.min(from, to);
  const high = Math.max(from, to);
  const breaks = seamsOf(instrument).filter(({ above }) => low < above && high >= above).length;
  if (breaks === 0) return null;
  return { from, to, direction: to > from ? 'up' : 'down', width: high - low, breaks };
}

/**
 * All pairs of adjacent registers that practice meets, both ways.
 * @param widest semitones between the two notes at most; the octave by default, since octaves are what is slurred most.
 */
export function crossingsOf(instrument: Instrument, widest = 12): Seam[] {
  const { low, high } = writtenRange(instrument);
  const seams: Seam[] = [];
  for (const { below, above } of seamsOf(instrument)) {
    for (let from = Math.max(low, above - widest); from <= below; from += instrument.step) {
      for (let to = above; to <= Math.min(high, from + widest); to += instrument.step) {
        for (const seam of [seamBetween(instrument, from, to), seamBetween(instrument, to, from)])
          if (seam?.breaks === 1) seams.push(seam);
      }
    }
  }
  return seams;
}
