import type { Cents, Midi } from '@/core/base';
import { loweredBy, slideAdvice, warmedBy, type Instrument, type SlideAdvice } from '@/core/instruments';
import { lengthsOf, type Usual } from './normal';
import type { NoteMap } from './noteMap';

/** Fewer heard notes, or notes that lie closer together, say nothing of a slide. */
const LEAST_NOTES = 4;
const LEAST_SPAN = 5;
const USUAL_CELSIUS = 20;

/** What is asked of the instrument other than what it was heard at. */
export interface Elsewise {
  /** From where it usually is: out is positive. */
  readonly slideMm: number;
  readonly temperatureC: number;
  readonly a4: number;
}

/** Where the map was made: nothing changed. */
export const asHeard = ({ temperatureC, a4 }: Usual): Elsewise => ({
  slideMm: 0,
  temperatureC: temperatureC ?? USUAL_CELSIUS,
  a4,
});

/** What a change of slide, temperature and standard adds to a note. Octaves shrink: a pull counts for more in a short tube. */
export function shiftBy(instrument: Instrument, usual: Usual, elsewise: Elsewise): (written: Midi) => Cents {
  const lengthOf = lengthsOf(instrument, usual);
  const warmth = warmedBy(usual.temperatureC ?? USUAL_CELSIUS, elsewise.temperatureC);
  const standard = 1200 * Math.log2(usual.a4 / elsewise.a4);
  return (written) => warmth + standard - loweredBy(elsewise.slideMm, lengthOf(written));
}

/** What pulling or pushing would do, note by note. */
export interface MapSlide extends SlideAdvice {
  /** Notes beyond the limit now that would be within, and the other way round. */
  readonly mends: readonly Midi[];
  readonly spoils: readonly Midi[];
}

/**
 * The best pull (or push) for what was heard, at a temperature and to a standard.
 * @returns null while too little of the instrument was heard.
 */
export function mapSlide(
  { notes, usual }: NoteMap,
  instrument: Instrument,
  limit: Cents,
  elsewise: Elsewise = asHeard(usual),
): MapSlide | null {
  const heard = notes.filter((note) => note.heard !== null);
  if (heard.length < LEAST_NOTES) return null;
  if (heard[heard.length - 1]!.written - heard[0]!.written < LEAST_SPAN) return null;
  const shift = shiftBy(instrument, usual, { ...elsewise, slideMm: 0 });
  const readings = heard.map(({ written, heard: found, certainty }) => ({
    written,
    cents: found!.value + shift(written),
    weight: certainty,
  }));
  const advice = slideAdvice(
    instrument,
    readings,
    usual.a4,
    usual.temperatureC ?? USUAL_CELSIUS,
    usual.slideMm,
  )!;
  const beyond = (cents: Cents) => Math.abs(cents) > limit;
  const pairs = readings.map(({ written, cents }, i) => ({
    written,
    now: beyond(cents),
    then: beyond(advice.left[i]!.cents),
  }));
  return {
    ...advice,
    mends: pairs.flatMap(({ written, now, then }) => (now && !then ? [written] : [])),
    spoils: pairs.flatMap(({ written, now, then }) => (!now && then ? [written] : [])),
  };
}
