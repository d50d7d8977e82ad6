import { midiToHertz, type Hertz, type Midi } from '@/core/tuning';
import { doubleReeds } from './doubleReeds';
import { ducted } from './ducted';
import { flutes } from './flutes';
import type { Instrument, Register } from './instrument';
import { singleReeds } from './singleReeds';

/** Every shipped instrument. */
export const instruments: readonly Instrument[] = [...flutes, ...ducted, ...doubleReeds, ...singleReeds];

const byId = new Map(instruments.map((each) => [each.id, each]));

export function findInstrument(id: string): Instrument | undefined {
  return byId.get(id);
}

export function writtenRange(instrument: Instrument): { low: Midi; high: Midi } {
  const first = instrument.registers[0];
  const last = instrument.registers[instrument.registers.length - 1];
  if (!first || !last) throw new Error(`instrument ${instrument.id} has no registers`);
  return { low: first.low, high: last.high };
}

export function soundingOf(instrument: Instrument, written: Midi): Midi {
  return written + instrument.transposition;
}

export function writtenOf(instrument: Instrument, sounding: Midi): Midi {
  return sounding - instrument.transposition;
}

/** What a listener has to know of an instrument: its sounding range, and a peculiarity of its spectrum. */
export function listeningRange(
  instrument: Instrument,
  a4: Hertz = 440,
): { lowestHz: Hertz; highestHz: Hertz; weakOddPartials: boolean } {
  const { low, high } = writtenRange(instrument);
  return {
    lowestHz: midiToHertz(soundingOf(instrument, low), a4),
    highestHz: midiToHertz(soundingOf(instrument, high), a4),
    // The oboes' formant lies an octave above many of their notes; the bassoons' lies among their lower partials.
    weakOddPartials: instrument.kind === 'double-reed' && instrument.clef === 'treble',
  };
}

/** The practical register of a written note; notes outside the range belong to the nearest register. */
export function registerOf(instrument: Instrument, written: Midi): Register {
  const found = instrument.registers.find((r) => written <= r.high) ?? instrument.registers.at(-1);
  if (!found) throw new Error(`instrument ${instrument.id} has no registers`);
  return found;
}

/** The acoustic mode that the ordinary fingering of a written note sounds. */
export function modeOf(instrument: Instrument, written: Midi): number {
  let mode = 1;
  for (const step of registerOf(instrument, written).modes) if (written >= step.from) mode = step.mode;
  return mode;
}

/** Written notes on the two sides of each register break, from low to high. */
export function seamsOf(instrument: Instrument): { below: Midi; above: Midi }[] {
  return instrument.registers.slice(1).map((upper) => ({ below: upper.low - 1, above: upper.low }));
}
