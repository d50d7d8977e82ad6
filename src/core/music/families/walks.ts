import { isUsual, type Instrument } from '@/core/instruments';
import type { Midi } from '@/core/tuning';
import { choice } from '../parameters';
import { stepwise } from './rows';

/** Semitones within which every instrument has a usual note. */
const REACH = 3;

/** What a walk from note to note goes through. */
export type Through = 'usual' | 'every' | 'quarters';

const offered = (through: Through, { step, hands }: Instrument): boolean =>
  through === 'usual' || (through === 'quarters' ? step === 0.5 : hands.some(({ aside }) => aside === true));

/** The parameter of a family that walks; an instrument all of whose notes lie well has nothing to choose. */
export const through = () =>
  choice(
    'Through',
    [
      ['usual', 'its usual notes'],
      ['every', 'every semitone'],
      ['quarters', 'quarter-tones'],
    ],
    offered,
  );

/** Notes of an instrument from one to another, up or down; where none between them is usual, all. */
export function walk(instrument: Instrument, by: Through, from: Midi, to: Midi): Midi[] {
  const all = stepwise(from, to, instrument.step);
  const semitones = all.filter(Number.isInteger);
  const usual = all.filter((written) => isUsual(instrument, written));
  const chosen = { usual, every: semitones, quarters: all }[by];
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
    : [0, 2, 4, 5, 7, 9].slice(0, notes).map((degree) => bottom + degree);
}

/** A note that a walk goes through: itself, or the next one under it. */
export const usualAt = (instrument: Instrument, written: Midi): Midi =>
  walk(instrument, 'usual', written, written - REACH)[0]!;
