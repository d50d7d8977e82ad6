import type { Cents, Hertz, Midi } from '@/core/base';

/** Frequency of a MIDI pitch in equal temperament. @param a4 the pitch standard in Hz. */
export function midiToHertz(midi: Midi, a4: Hertz = 440): Hertz {
  return a4 * 2 ** ((midi - 69) / 12);
}

/** MIDI pitch (with its fraction) of a frequency. NaN where the frequency is not positive. */
export function hertzToMidi(frequency: Hertz, a4: Hertz = 440): Midi {
  return frequency > 0 ? 69 + 12 * Math.log2(frequency / a4) : NaN;
}

/** Signed distance from `reference` up to `frequency`. */
export function centsBetween(frequency: Hertz, reference: Hertz): Cents {
  return 1200 * Math.log2(frequency / reference);
}
