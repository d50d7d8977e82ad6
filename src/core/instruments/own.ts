import { checked, failure, type Midi, type Outcome, success } from '@/core/base';
import { displayName, midiToHertz, type Naming } from '@/core/tuning';
import { instrumentSchema, type Instrument } from './instrument';

/** A third under the lowest shipped instrument and a third over the highest: further away the ear was never tried. */
const LOWEST_HEARD: Midi = 18;
const HIGHEST_HEARD: Midi = 112;

/** Checks an instrument that a player has edited; a problem names the field and the remedy. */
export function checkInstrument(candidate: unknown, naming: Naming): Outcome<Instrument> {
  const read = checked(instrumentSchema, candidate, 'instrument');
  if (!read.ok) return read;
  const { registers, series, home } = read.value;
  for (const [i, register] of registers.entries()) {
    const field = `registers.${i}`;
    const next = registers[i + 1];
    if (register.high < register.low)
      return failure(`${field}: the highest note of “${register.name}” lies below its lowest`);
    if (next && next.low !== register.high + read.value.step)
      return failure(
        `registers.${i + 1}.low: “${next.name}” has to begin right above ${displayName(register.high, naming)}`,
      );
    let mode = 0;
    for (const step of register.modes) {
      if (series === 'odd' && step.mode % 2 === 0)
        return failure(`${field}.modes: a tube closed by its reed has odd modes only, not ${step.mode}`);
      if (step.mode < mode) return failure(`${field}.modes: modes rise with the notes`);
      mode = step.mode;
    }
    if (register.modes[0]?.from !== register.low)
      return failure(`${field}.modes: the first mode has to begin at ${displayName(register.low, naming)}`);
  }
  const low = registers[0]!.low;
  const high = registers.at(-1)!.high;
  if (high - low < 5) return failure('registers: an instrument has a range of five semitones or more');
  if (home < low || home > high)
    return failure(`home: must lie between ${displayName(low, naming)} and ${displayName(high, naming)}`);
  const { transposition } = read.value;
  if (low + transposition < LOWEST_HEARD)
    return failure(
      `transposition: ${displayName(low, naming)} would sound at ${hertz(low + transposition)}; Gold Reed hears from ${hertz(LOWEST_HEARD)} up`,
    );
  if (high + transposition > HIGHEST_HEARD)
    return failure(
      `transposition: ${displayName(high, naming)} would sound at ${hertz(high + transposition)}; Gold Reed hears up to ${hertz(HIGHEST_HEARD)}`,
    );
  return success(read.value);
}

const hertz = (sounding: Midi) => `${Math.round(midiToHertz(sounding))} Hz`;

/** A copy that the player can change. */
export function copyOf(instrument: Instrument, id: string, name = `${instrument.name}, mine`): Instrument {
  return {
    ...instrumentSchema.parse(instrument),
    id,
    name,
    copiedFrom: instrument.copiedFrom ?? instrument.id,
  };
}

/**
 * The same instrument with its registers' borders moved: `lows[i]` is the lowest note of register i, `top` the highest of all.
 * Modes move along with their register.
 */
export function withRange(instrument: Instrument, lows: readonly number[], top: number): Instrument {
  const registers = instrument.registers.map((register, i) => {
    const low = lows[i] ?? register.low;
    const next = lows[i + 1];
    const high = next === undefined ? top : next - instrument.step;
    const modes = register.modes
      .map((step, k) => ({ ...step, from: k === 0 ? low : Math.max(low, step.from) }))
      .filter((step) => step.from <= high || step.from === low);
    return { ...register, low, high, modes };
  });
  return { ...instrument, registers };
}
