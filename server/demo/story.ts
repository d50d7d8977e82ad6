import type { Random } from '@/core/base';
import type { FaultRates, Player } from '@/core/lab';

/** The demo's story: eight weeks of one invented player, each take played by the simulated player and really measured. */
export const STORY =
  'Odile Farrant, alto recorder and bassoon, gets ready for the Lantern Night at Hollin Weir.';

/** Share of the eight weeks after which the bassoon has a new reed. */
export const NEW_REED_AT = 0.6;

export interface Day {
  readonly instrumentId: string;
  readonly note: string;
  readonly remark: string;
  readonly player: Partial<Player>;
  /** How worn the reed is, 0 … 1. */
  readonly worn: number;
}

/** What was played on practice day number `day` of `days`: a low note that comes right, a bassoon reed that dies. */
export function dayOf(day: number, days: number, random: Random): Day {
  const progress = day / (days - 1);
  const chance = (spread: number) => spread * random.normal();
  if (day % 3 === 2) {
    // The old reed goes down until the fifth week; the new one is better at once.
    const old = progress < NEW_REED_AT;
    const worn = old ? progress / NEW_REED_AT : 0.1;
    return {
      instrumentId: 'bassoon',
      note: 'F2',
      worn,
      remark:
        day === days - 1
          ? 'New reed, third week: settled.'
          : old && worn > 0.8
            ? 'The old reed is done.'
            : '',
      player: {
        offsetCents: -3 - 11 * worn + chance(1),
        driftCentsPerSecond: -0.3 - 1.6 * worn,
        wobbleCents: 1.8 + 3.2 * worn,
        levelDriftDbPerSecond: -0.2 - 0.6 * worn,
        airinessDb: -42 + 16 * worn,
        levelDb: -19 + chance(1),
        riseSeconds: 0.06 + 0.1 * worn,
      },
    };
  }
  return {
    instrumentId: 'recorder-alto',
    worn: 0,
    note: day % 3 === 0 ? 'F4' : 'D5',
    remark:
      day === 0
        ? 'First try with the metronome.'
        : day === days - 2
          ? 'Breathed lower, before the beat.'
          : '',
    player: {
      offsetCents: -14 + 10 * progress + chance(1.5),
      driftCentsPerSecond: -2.2 + 1.9 * progress + chance(0.1),
      wobbleCents: Math.max(0.8, 4 - 2.6 * progress + chance(0.3)),
      levelDriftDbPerSecond: -1 + 0.8 * progress,
      levelDb: -22 + chance(1),
      vibrato: day % 6 === 1 && progress < 0.5 ? { rateHz: 5.2, extentCents: 9 } : null,
      latenessSeconds: Math.max(0, 0.09 - 0.07 * progress + chance(0.012)),
      scoopCents: -22 + 12 * progress,
    },
  };
}

export interface Block {
  readonly daysAgo: number;
  readonly instrumentId: string;
  readonly family: string;
  readonly values: Readonly<Record<string, unknown>>;
  readonly player: Partial<Player>;
  readonly faults: Partial<FaultRates>;
  readonly remark: string;
}

/** Blocks of other exercises within the eight weeks: a seam that is mended, one that stays weak, a trend that stalls. */
export const BLOCKS: readonly Block[] = [
  {
    daysAgo: 52,
    instrumentId: 'recorder-alto',
    family: 'octave-slurs',
    values: { range: { low: 67, high: 70 } },
    player: { offsetCents: -9 },
    faults: { blip: 0.3, gap: 0.3, break: 0.1 },
    remark: 'The leap is a lottery.',
  },
  {
    daysAgo: 44,
    instrumentId: 'bassoon',
    family: 'vent-flick',
    values: {},
    player: { offsetCents: -4 },
    faults: { blip: 0.25 },
    remark: '',
  },
  {
    daysAgo: 37,
    instrumentId: 'recorder-alto',
    family: 'breath-sweep',
    values: { note: 69 },
    player: { offsetCents: -18, centsPer10Db: 16, ringAboveDb: 5, levelDb: -10 },
    faults: {},
    remark: 'In tune only when nearly loud.',
  },
  {
    daysAgo: 30,
    instrumentId: 'recorder-alto',
    family: 'octave-slurs',
    values: { range: { low: 67, high: 70 } },
    player: { offsetCents: -7 },
    faults: { blip: 0.12, gap: 0.15 },
    remark: '',
  },
  {
    daysAgo: 24,
    instrumentId: 'bassoon',
    family: 'subdivision-ladder',
    values: { top: '12' },
    player: { latenessSeconds: 0.02, timingSpreadSeconds: 0.026, tempoRatio: 1.012 },
    faults: {},
    remark: 'Triplets run away.',
  },
  {
    daysAgo: 19,
    instrumentId: 'recorder-alto',
    family: 'tapers',
    values: { range: { low: 69, high: 76 }, beats: 5 },
    player: { centsPer10Db: 11, offsetCents: -2 },
    faults: {},
    remark: '',
  },
  {
    daysAgo: 15,
    instrumentId: 'bassoon',
    family: 'drone-work',
    values: { interval: 'all', drone: 41 },
    player: { offsetCents: 7, wobbleCents: 2 },
    faults: {},
    remark: '',
  },
  {
    daysAgo: 12,
    instrumentId: 'recorder-alto',
    family: 'blind-tuning',
    values: { notes: 6 },
    player: { offsetCents: 9, wobbleCents: 2.5 },
    faults: {},
    remark: '',
  },
  {
    daysAgo: 9,
    instrumentId: 'bassoon',
    family: 'harmonic-climb',
    values: { range: { low: 34, high: 35 }, modes: 4 },
    player: { offsetCents: -2 },
    faults: { break: 0.06 },
    remark: '',
  },
  {
    daysAgo: 6,
    instrumentId: 'bassoon',
    family: 'vent-flick',
    values: {},
    player: { offsetCents: -3 },
    faults: { blip: 0.22 },
    remark: 'B3 still cracks.',
  },
  {
    daysAgo: 4,
    instrumentId: 'recorder-alto',
    family: 'reference-travel',
    values: { range: { low: 65, high: 76 } },
    player: { offsetCents: -4 },
    faults: {},
    remark: '',
  },
  {
    daysAgo: 1,
    instrumentId: 'recorder-alto',
    family: 'octave-slurs',
    values: { range: { low: 67, high: 70 } },
    player: { offsetCents: -5 },
    faults: { blip: 0.12 },
    remark: 'Five in a row.',
  },
  {
    daysAgo: 20,
    instrumentId: 'recorder-alto',
    family: 'room-check',
    values: {},
    player: { offsetCents: -5 },
    faults: {},
    remark: '',
  },
  {
    daysAgo: 5,
    instrumentId: 'recorder-alto',
    family: 'room-check',
    values: {},
    player: { offsetCents: -4, levelDb: -20 },
    faults: {},
    remark: '',
  },
  {
    daysAgo: 3,
    instrumentId: 'bassoon',
    family: 'room-check',
    values: {},
    player: { offsetCents: -3 },
    faults: {},
    remark: '',
  },
];
