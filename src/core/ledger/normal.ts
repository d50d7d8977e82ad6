import type { Cents, Midi } from '@/core/base';
import { loweredBy, soundingLength, warmedBy, type Instrument } from '@/core/instruments';
import type { Played } from './played';

/** What pitches are brought to before notes are compared. Null: it was never told, and is taken to have been alike. */
export interface Usual {
  readonly slideMm: number | null;
  readonly temperatureC: number | null;
  readonly a4: number;
}

const USUAL_A4 = 440;

/** Where slide and temperature were last told to be. */
export function usualOf(played: readonly Played[]): Usual {
  const last = <T>(of: (take: Played) => T | null): T | null => {
    for (let i = played.length - 1; i >= 0; i--) {
      const told = of(played[i]!);
      if (told !== null) return told;
    }
    return null;
  };
  return {
    slideMm: last(({ entry }) => entry.slideMm),
    temperatureC: last(({ entry }) => entry.temperatureC),
    a4: last(({ entry }) => entry.a4) ?? USUAL_A4,
  };
}

/** A sounding length for each written note, looked up once. */
export function lengthsOf(instrument: Instrument, { a4, temperatureC }: Usual): (written: Midi) => number {
  const known = new Map<Midi, number>();
  return (written) => {
    const before = known.get(written);
    if (before !== undefined) return before;
    const length = soundingLength(instrument, written, a4, temperatureC ?? undefined);
    known.set(written, length);
    return length;
  };
}

/** What a take’s own slide, temperature and pitch standard put on top of the usual ones, for a note of some length. */
export function shiftOf(take: Played, usual: Usual, length: number): Cents {
  const { slideMm, temperatureC, a4 } = take.entry;
  const slide =
    slideMm === null || usual.slideMm === null
      ? 0
      : loweredBy(usual.slideMm, length) - loweredBy(slideMm, length);
  const warmth =
    temperatureC === null || usual.temperatureC === null ? 0 : warmedBy(usual.temperatureC, temperatureC);
  // The instrument stays as it is when one plays to another standard: its notes are off by so much more.
  const standard = a4 === null ? 0 : 1200 * Math.log2(usual.a4 / a4);
  return slide + warmth + standard;
}
