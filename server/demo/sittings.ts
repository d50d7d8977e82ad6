import {
  tendenciesOf,
  findInstrument,
  loweredBy,
  soundingLength,
  warmedBy,
  writtenRange,
} from '@/core/instruments';
import type { Random } from '@/core/base';
import type { FaultRates, Player } from '@/core/lab';
import { NEW_REED_AT } from './story';

/** One exercise of a sitting, as it was played that day. */
export interface Exercise {
  readonly family: string;
  readonly values: Readonly<Record<string, unknown>>;
  readonly player: Partial<Player>;
  readonly faults: Partial<FaultRates>;
  readonly slideMm: number;
  readonly temperatureC: number;
  readonly reed: string;
}

/** What is true of the player’s instruments besides what is usual for them, by written note. */
const OWN: Readonly<Record<string, Readonly<Record<number, number>>>> = {
  'recorder-alto': { 67: -6, 74: 12, 79: 7, 84: 14 },
  bassoon: { 41: 11, 50: -12, 55: 13, 57: -8 },
};
const USUAL_CELSIUS = 20;
const USUAL_SLIDE = 1;
/** A cold instrument is this low; it is warm after twenty minutes. */
const COLD_CENTS = -7;
const WARM_MINUTES = 20;
const SOFT_CENTS = -6;
/** Minutes from one exercise to the next. */
const APART = 4;

/** How a player’s notes lie on an ordinary warm day. */
export const usualLeanings = (instrumentId: string): Record<string, number> =>
  leanings(instrumentId, {
    slideMm: USUAL_SLIDE,
    temperatureC: USUAL_CELSIUS,
    minutes: WARM_MINUTES,
    cents: 0,
  });

/** The same at the beginning of a sitting. */
export const coldLeanings = (instrumentId: string): Record<string, number> =>
  leanings(instrumentId, {
    slideMm: USUAL_SLIDE,
    temperatureC: USUAL_CELSIUS,
    minutes: 0,
    cents: 0,
  });

/** Where each note lies on a day: the instrument’s way and the player’s, with slide, temperature and warmth as they were. */
function leanings(
  instrumentId: string,
  {
    slideMm,
    temperatureC,
    minutes,
    cents,
  }: { slideMm: number; temperatureC: number; minutes: number; cents: number },
): Record<string, number> {
  const instrument = findInstrument(instrumentId)!;
  const { low, high } = writtenRange(instrument);
  const today =
    warmedBy(USUAL_CELSIUS, temperatureC) + COLD_CENTS * Math.max(0, 1 - minutes / WARM_MINUTES) + cents;
  const found: Record<string, number> = {};
  for (let written = low; written <= high; written++) {
    const length = soundingLength(instrument, written);
    const usual = tendenciesOf(instrument, written).reduce((sum, each) => sum + each.cents, 0);
    found[written] =
      0.7 * usual +
      (OWN[instrumentId]?.[written] ?? 0) +
      loweredBy(USUAL_SLIDE, length) -
      loweredBy(slideMm, length) +
      today;
  }
  return found;
}

interface Asked {
  readonly family: string;
  readonly values: Readonly<Record<string, unknown>>;
  readonly faults?: Partial<FaultRates>;
  readonly player?: Partial<Player>;
}

const seam = (
  from: number,
  to: number,
  times: number,
  faults: Partial<FaultRates>,
  more: object = {},
): Asked => ({
  family: 'just-this-seam',
  values: { from, to, times, beats: 1, tempo: 92, ...more },
  faults,
});

/** The thumb seam of the recorder is mended within two weeks; the one above it stays weak, softly above all. */
function ofRecorder(day: number, progress: number): Asked[] {
  const opens = Math.max(0, 0.8 - 5 * progress);
  const soft = day % 2 === 1;
  return [
    // One day a half of the instrument, the next day blind.
    ...(day % 2 === 0
      ? [
          {
            family: 'tendency-scan',
            values: {
              range: day % 4 === 0 ? { low: 65, high: 77 } : { low: 76, high: 89 },
              beats: 2,
              tempo: 112,
            },
          },
        ]
      : [
          {
            family: 'blind-tuning',
            values: { notes: 4, beats: 3, seed: 1 + (day % 9), tempo: 120 },
            player: { wobbleCents: 2.5 },
          },
        ]),
    seam(
      80,
      81,
      7,
      { blip: opens / 2, gap: opens / 2 },
      { cue: progress > 0.2 ? 'air before the note' : '' },
    ),
    seam(86, 87, 4, { blip: soft ? 0.45 : 0.22, break: 0.04 }, { dynamic: soft ? 'p' : 'mf' }),
    ...(day % 2 === 0
      ? [
          {
            family: 'tapers',
            values: { range: { low: 69, high: 72 }, beats: 4, tempo: 84 },
            player: { centsPer10Db: 11 - 5 * progress },
          },
        ]
      : [seam(77, 81, 4, { gap: opens / 2 }, { dynamic: 'p' })]),
  ];
}

/** The bassoon’s first break holds better with a new reed; its flicked notes stay a lottery. */
function ofBassoon(progress: number, worn: number): Asked[] {
  return [
    { family: 'tendency-scan', values: { range: { low: 40, high: 53 }, beats: 2, tempo: 108 } },
    seam(53, 54, 5, { gap: 0.1 + 0.25 * worn, blip: 0.05 }),
    seam(56, 57, 4, { blip: 0.35 - 0.1 * progress }),
    {
      family: 'low-chromatics',
      values: { range: { low: 34, high: 40 }, beats: 1, tempo: 92 },
      faults: { lateSpeech: 0.25 * worn },
    },
    {
      family: 'tapers',
      values: { range: { low: 45, high: 47 }, beats: 4, tempo: 84 },
      player: { centsPer10Db: 7 },
    },
  ];
}

/** What was played besides the long tone on practice day number `day` of `days`. @param worn 0 … 1, of the reed. */
export function sittingOf(
  instrumentId: string,
  day: number,
  days: number,
  worn: number,
  random: Random,
): Exercise[] {
  const progress = day / (days - 1);
  const slideMm = instrumentId === 'bassoon' ? USUAL_SLIDE : USUAL_SLIDE + (day % 5 === 0 ? 1.5 : 0);
  const temperatureC = 18 + Math.round(5 * random.next());
  const cents = 2 * random.normal();
  const asked = instrumentId === 'bassoon' ? ofBassoon(progress, worn) : ofRecorder(day, progress);
  return asked.map(({ family, values, faults = {}, player = {} }, i) => ({
    family,
    values,
    faults,
    player: {
      offsetCents: values['dynamic'] === 'p' ? SOFT_CENTS : 0,
      wobbleCents: instrumentId === 'bassoon' ? 1.8 + 2.6 * worn : Math.max(1, 3.4 - 2.2 * progress),
      latenessSeconds: 0.02,
      ...player,
      leanings: leanings(instrumentId, { slideMm, temperatureC, minutes: APART * (i + 1), cents }),
    },
    slideMm,
    temperatureC,
    reed: instrumentId !== 'bassoon' ? '' : progress < NEW_REED_AT ? 'the old reed' : 'the new reed',
  }));
}

/** Minutes after the long tone that the exercise was begun. */
export const minuteOf = (index: number): number => APART * (index + 1);
