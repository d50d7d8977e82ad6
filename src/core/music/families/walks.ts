import type { Midi } from '@/core/base';
import { isUsual, type Instrument } from '@/core/instruments';
import { choice } from '../parameters';
import { semitonesOf, stepwise } from './rows';

/** Semitones within which every instrument has a usual note. */
const REACH = 3;

/** What a walk from note to note goes through. */
export type Through = 'usual' | 'every' | 'quarters';

const offered = (through: Through, { step, hands }: Instrument): boolean =>
  through === 'usual' || (through === 'quarters' ? step === 0.5 : hands.some(({ aside }) => aside === true));

/** The parameter of a family that walks; an instrument all of whose notes lie well has nothing to choose. */
export const through = () =>
  choice(
    'Goes through',
    [
      ['usual', 'its usual notes'],
      ['every', 'every semitone'],
      ['quarters', 'quarter-tones'],
    ],
    offered,
  );

/** Whether a walk goes through a note. */
export const goesThrough = (instrument: Instrument, by: Through, written: Midi): boolean =>
  by === 'usual' ? isUsual(instrument, written) : by === 'quarters' || Number.isInteger(written);

/** Notes of an instrument from one to another, up or down; where a walk goes through none of them, all. */
export function walk(instrument: Instrument, by: Through, from: Midi, to: Midi): Midi[] {
  const all = stepwise(from, to, instrument.step);
  const chosen = all.filter((written) => goesThrough(instrument, by, written));
  return chosen.length > 0 ? chosen : all;
}

/** Each so many semitones from one note up to another, moved down to the next note that the walk goes through. */
export const strides = (instrument: Instrument, by: Through, from: Midi, to: Midi, size: number): Midi[] => [
  ...new Set(stepwise(from, to, size).map((written) => walk(instrument, by, from, written).at(-1)!)),
];

/** The note of a walk next to another: over it, or under it with −1. */
export const nextTo = (instrument: Instrument, by: Through, written: Midi, way: 1 | -1): Midi =>
  walk(instrument, by, written + way * instrument.step, written + way * REACH)[0]!;

/** So many notes of a major scale from its lowest; where only some notes lie well, of those. */
export function scaleFrom(instrument: Instrument, by: Through, bottom: Midi, notes: number): Midi[] {
  return by === 'usual' && instrument.plainKeys
    ? walk(instrument, by, bottom, bottom + 12).slice(0, notes)
    : Array.from({ length: notes }, (_, i) => bottom + semitonesOf(i + 1, 'major'));
}

/** A note that a walk goes through: itself, or the next one under it. */
export const usualAt = (instrument: Instrument, written: Midi): Midi =>
  walk(instrument, 'usual', written, written - REACH)[0]!;
