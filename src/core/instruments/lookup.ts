import type { Hertz, Midi } from '@/core/base';
import { hertzToMidi, midiToHertz } from '@/core/tuning';
import { doubleReeds } from './doubleReeds';
import { ducted } from './ducted';
import { flutes } from './flutes';
import type { HandRule, Instrument, Register, Tendency } from './instrument';
import { singleReeds } from './singleReeds';

/** Every shipped instrument. */
export const instruments: readonly Instrument[] = [...flutes, ...ducted, ...doubleReeds, ...singleReeds];

/** Modes that are met in practice, and how near a pitch has to come to one. */
const LOWER_MODES = 8;
const MODE_SEMITONES = 0.6;

const shipped = new Map(instruments.map((each) => [each.id, each]));
/** A shipped instrument, or one of the player's own that are given. */
export function findInstrument(id: string, own: readonly Instrument[] = []): Instrument | undefined {
  return own.find((each) => each.id === id) ?? shipped.get(id);
}

/** Its name within a sentence: `flute`, but `B♭ clarinet`, and one of one’s own as its player wrote it. */
export const nameWithin = ({ name, copiedFrom }: Pick<Instrument, 'name' | 'copiedFrom'>): string =>
  copiedFrom !== undefined
    ? name
    : /^[A-H]♭? /.test(name)
      ? name
      : name.charAt(0).toLowerCase() + name.slice(1);

/**
 * From the lowest written note of the first register to the highest of the last.
 * @throws when the instrument has no registers.
 */
export function writtenRange(instrument: Instrument): { low: Midi; high: Midi } {
  const first = instrument.registers[0];
  const last = instrument.registers[instrument.registers.length - 1];
  if (!first || !last) throw new Error(`instrument ${instrument.id} has no registers`);
  return { low: first.low, high: last.high };
}

/** The pitch that sounds where a note is written for an instrument. */
export function soundingOf(instrument: Instrument, written: Midi): Midi {
  return written + instrument.transposition;
}

/** The note to be written for a pitch to sound. */
export function writtenOf(instrument: Instrument, sounding: Midi): Midi {
  return sounding - instrument.transposition;
}

/** The nearest pitch that the instrument has a note for: a semitone, or a quarter-tone where it plays those. */
export function nearestPitch({ step }: Pick<Instrument, 'step'>, sounding: Midi): Midi {
  return step * Math.round(sounding / step);
}

/** Written; its second partial is on the formant, near 500 Hz for the bassoon. */
const HIGHEST_UNDER_BASSOONS_FORMANT: Midi = 60;

/** What a listener has to know of an instrument: its sounding range, and a peculiarity of its spectrum. */
export function listeningRange(
  instrument: Instrument,
  a4: Hertz = 440,
): { lowestHz: Hertz; highestHz: Hertz; weakOddUpToHz: Hertz } {
  const { low, high } = writtenRange(instrument);
  const hertz = (written: Midi) => midiToHertz(soundingOf(instrument, written), a4);
  // The oboes' formant lies an octave above many of their notes; the bassoons', above some of their lower ones.
  const weakOddUpTo = instrument.clef === 'treble' ? high : HIGHEST_UNDER_BASSOONS_FORMANT;
  return {
    lowestHz: hertz(low),
    highestHz: hertz(high),
    weakOddUpToHz: instrument.kind === 'double-reed' ? hertz(weakOddUpTo) : 0,
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

/** Written note of the fundamental that a note's fingering would give in mode 1, to the nearest cent of a semitone. */
export function fundamentalOf(instrument: Instrument, written: Midi): Midi {
  return hertzToMidi(midiToHertz(written) / modeOf(instrument, written));
}

/** Modes that the tube has, up to the sixteenth. */
export function modesOf(instrument: Instrument): number[] {
  const step = instrument.series === 'odd' ? 2 : 1;
  return Array.from({ length: 16 }, (_, i) => 1 + i * step).filter((mode) => mode <= 16);
}

/** Whether two pitches are as far apart as two of the lower modes of one fingering, however small the difference of modes. */
export function areModesApart(instrument: Instrument, semitones: number): boolean {
  const modes = modesOf(instrument).slice(0, LOWER_MODES);
  return modes.some((a) =>
    modes.some((b) => a !== b && Math.abs(semitones - 12 * Math.log2(a / b)) < MODE_SEMITONES),
  );
}

/** Written pitch of a mode of a fingering, nearest semitone. @param fingered its fundamental, written. */
export function modePitch(fingered: Midi, mode: number): Midi {
  return fingered + 12 * Math.log2(mode);
}

/** The standing rule about what the hand does for a note, if there is one. */
export function ventOf(instrument: Instrument, written: Midi): HandRule | undefined {
  return instrument.hands.find(
    (rule) => rule.when === 'always' && written >= rule.low && written <= rule.high,
  );
}

/** Whether exercises go through a note unless told otherwise: no quarter-tone, and nothing that the hand has only a way out for. */
export const isUsual = (instrument: Instrument, written: Midi): boolean =>
  Number.isInteger(written) && ventOf(instrument, written)?.aside !== true;

/**
 * What the hand does besides the fingering when a note is begun.
 * @param slurredFrom written note that it is slurred from; null when it is tongued.
 */
export function handAt(
  instrument: Instrument,
  written: Midi,
  slurredFrom: Midi | null,
): HandRule | undefined {
  return (
    instrument.hands.find(
      (rule) =>
        rule.when === 'flick' &&
        written >= rule.low &&
        written <= rule.high &&
        (slurredFrom === null || slurredFrom <= (rule.from ?? -1)),
    ) ?? ventOf(instrument, written)
  );
}

/** Shipped guesses about a note at a loudness; the player's own measurements replace them. */
export function tendenciesOf(
  instrument: Instrument,
  written: Midi,
  loudness: Tendency['loudness'] = 'any',
): Tendency[] {
  return instrument.tendencies.filter(
    (each) =>
      written >= each.low && written <= each.high && (each.loudness === 'any' || each.loudness === loudness),
  );
}
