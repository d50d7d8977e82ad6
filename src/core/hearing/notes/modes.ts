import type { Midi } from '@/core/base';
import { modeOf, soundingOf, writtenOf, writtenRange, type Instrument } from '@/core/instruments';
import { multipleOf } from './echoes';

/** How near a pitch has to come to a mode of the fingering. */
const MODE_SEMITONES = 0.75;
const LEAST_INTERVAL = 2.6;
/** Higher than the highest note by this it is no note's. */
const ABOVE_ALL = 0.8;
/** Squeaks are looked for in steps of this, so many. */
const SQUEAK_STEP = 0.5;
const SQUEAKS = 14;
/** So many times higher a mode has two of the eight partials that are followed. */
const MOST_TIMES = 4;

/** The mode in which a sounding pitch is played. */
export const modeOfNote = (pitch: Midi, instrument: Instrument): number =>
  modeOf(instrument, writtenOf(instrument, Math.round(pitch)));

/** Pitches of the other modes that the fingering of a note can sound. @param above how many modes over the note's own. */
export function otherModes(pitch: Midi, instrument: Instrument, above = 3): Midi[] {
  const mode = modeOfNote(pitch, instrument);
  const step = instrument.series === 'odd' ? 2 : 1;
  const modes: Midi[] = [];
  for (let other = 1; other <= mode + above * step; other += step)
    // High modes lie so near to each other that a neighbour cannot be told from a neighbouring note.
    if (Math.abs(12 * Math.log2(other / mode)) >= LEAST_INTERVAL)
      modes.push(pitch + 12 * Math.log2(other / mode));
  return modes;
}

/** Whether a pitch over a note is higher than all notes of the instrument. */
export function isAboveAll(pitch: Midi, note: Midi, instrument: Instrument): boolean {
  return pitch > note && pitch > soundingOf(instrument, writtenRange(instrument).high) + ABOVE_ALL;
}

/** The mode of a note's fingering that a pitch is near to; undefined where it is none. */
export const modeNear = (pitch: Midi, note: Midi, instrument: Instrument): Midi | undefined =>
  otherModes(note, instrument).find((mode) => Math.abs(mode - pitch) <= MODE_SEMITONES);

/** Pitches that can sound in a note's place: of the fingering's other modes, and of squeaks above all notes. */
export function othersOf(note: Midi, instrument: Instrument): Midi[] {
  const first = soundingOf(instrument, writtenRange(instrument).high) + ABOVE_ALL;
  const squeaks = Array.from({ length: SQUEAKS }, (_, i) => first + i * SQUEAK_STEP);
  return [...otherModes(note, instrument).filter((mode) => mode < first), ...squeaks];
}

/** How many times as high the modes are that can sound in a note's place and have partials of it, up to four times. */
export function multiplesOf(note: Midi, instrument: Instrument): number[] {
  const multiples = othersOf(note, instrument).flatMap((mode) => multipleOf(mode, note) ?? []);
  return [...new Set(multiples)].filter((multiple) => multiple > 1 && multiple <= MOST_TIMES);
}

/**
 * The pitch to which a strongest component belongs that took a note's place: of a mode that the note's fingering can sound, whose
 * first, second or third partial it is (or any, where it is the note's too), or of a squeak above all notes; null when it is neither.
 * @param holds whether the partials of a mode, but for the strongest component, hold while others of the note fall.
 */
export function soundOf(
  strongest: Midi,
  note: Midi,
  instrument: Instrument,
  holds: (mode: Midi, strongest: Midi) => boolean,
): Midi | null {
  const aboveAll = isAboveAll(strongest, note, instrument);
  const modes = otherModes(note, instrument, aboveAll ? 1 : 3);
  const isAt = (partial: number) => (mode: Midi) =>
    Math.abs(strongest - mode - 12 * Math.log2(partial)) <= MODE_SEMITONES;
  const mode = modes.find(isAt(1));
  if (mode !== undefined) return mode;
  const below = modes.find((m) => m > note && multipleOf(strongest, m) !== null && holds(m, strongest));
  if (aboveAll) return below ?? strongest;
  return modes.find((m) => m > note && (isAt(2)(m) || isAt(3)(m))) ?? null;
}

/** What a brief pitch is to a note: another mode of its fingering, a squeak above all notes, or nothing of the kind. */
export function detourKind(
  brief: Midi,
  note: Midi,
  instrument: Instrument,
  atStart: boolean,
): 'break' | 'squeak' | null {
  const aboveAll = isAboveAll(brief, note, instrument);
  // Inside a note what lies above all others is more likely a squeak near a mode than so high a mode.
  const modes = otherModes(note, instrument, aboveAll ? (atStart ? 2 : 1) : 3);
  if (modes.some((pitch) => Math.abs(brief - pitch) <= MODE_SEMITONES)) return 'break';
  return aboveAll ? 'squeak' : null;
}
