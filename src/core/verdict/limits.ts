import * as z from 'zod';
import { LEVELS, type Level } from '@/core/music';

/** One line of the table: what a figure may be before it is remarked upon, for each level of player. */
interface Limit {
  readonly label: string;
  readonly unit: string;
  readonly about: string;
  /** Beginner, steady, advanced, exacting. */
  readonly usual: readonly [number, number, number, number];
  readonly step: number;
  readonly low: number;
  readonly high: number;
}

/** Every threshold that judging uses, in one place. Where they come from: docs/judging.md. */
export const LIMITS = {
  centreCents: limit(
    'Off centre',
    'cents',
    'A note further from its pitch is called high or low.',
    [12, 8, 5, 3],
    1,
    1,
    40,
  ),
  driftCentsPerSecond: limit(
    'Drift',
    'cents a second',
    'A held note that moves faster sinks or rises.',
    [2.5, 1.5, 1, 0.6],
    0.1,
    0.2,
    10,
  ),
  wobbleCents: limit('Wobble', 'cents', 'More than this and the pitch shakes.', [7, 5, 4, 3], 0.5, 0.5, 20),
  levelWobbleDb: limit(
    'Unevenness',
    'dB',
    'More than this and the loudness shakes.',
    [2, 1.5, 1.2, 0.9],
    0.1,
    0.3,
    6,
  ),
  fadeDbPerSecond: limit(
    'Fading',
    'dB a second',
    'A plain note that loses more is fading.',
    [1.5, 1, 0.7, 0.5],
    0.1,
    0.1,
    6,
  ),
  airinessDb: limit(
    'Air',
    'dB against the tone',
    'More air beside the tone than this is remarked on.',
    [-10, -13, -16, -18],
    1,
    -40,
    0,
  ),
  seamDipDb: limit(
    'Hole in a slur',
    'dB',
    'A deeper dip between two slurred notes is a hole.',
    [8, 6, 5, 4],
    0.5,
    1,
    20,
  ),
  seamBumpDb: limit(
    'Bump in a slur',
    'dB',
    'A push between two slurred notes that is greater.',
    [6, 5, 4, 3],
    0.5,
    1,
    20,
  ),
  seamMs: limit(
    'Time of a slur',
    'ms',
    'From leaving one pitch to settling on the next.',
    [180, 140, 110, 90],
    10,
    30,
    500,
  ),
  overshootCents: limit(
    'Overshoot',
    'cents',
    'How far a slur may go beyond its note.',
    [40, 30, 20, 14],
    1,
    4,
    100,
  ),
  levelStepDb: limit(
    'Step of level',
    'dB',
    'How different in level two slurred notes may be.',
    [9, 7, 5, 4],
    0.5,
    1,
    20,
  ),
  intervalCents: limit(
    'Interval',
    'cents',
    'How far an interval may be from its size.',
    [20, 14, 9, 6],
    1,
    2,
    60,
  ),
  beatsHz: limit(
    'Beats',
    'a second',
    'Faster beats against a held note are told, from 5 cents off on.',
    [5, 3, 2, 1.2],
    0.1,
    0.3,
    12,
  ),
  scoopCents: limit(
    'Scoop',
    'cents',
    'A held note that begins further from its pitch.',
    [35, 25, 18, 12],
    1,
    5,
    100,
  ),
  endingCents: limit(
    'Its end',
    'cents',
    'How far the last half second of a held note may lie from its middle.',
    [15, 10, 8, 6],
    1,
    2,
    60,
  ),
  speechMs: limit(
    'Late speech',
    'ms',
    'Air or silence before the note begins to sound.',
    [120, 90, 70, 50],
    10,
    20,
    400,
  ),
  rushMs: limit('Rush and drag', 'ms', 'Middle distance from the beat.', [60, 45, 40, 25], 5, 5, 200),
  attackMs: limit(
    'One attack',
    'ms',
    'A note further from its beat, and from the notes around it, is told by itself.',
    [140, 110, 85, 60],
    5,
    20,
    400,
  ),
  timingSpreadMs: limit(
    'Evenness of attacks',
    'ms',
    'Spread about their own line.',
    [45, 32, 22, 15],
    1,
    4,
    100,
  ),
  samenessSteps: limit(
    'Sameness',
    'steps',
    'Distance of two tones, in steps that are just noticed.',
    [4, 3, 2.4, 1.8],
    0.1,
    0.5,
    10,
  ),
  lineDb: limit(
    'Line of the level',
    'dB',
    'RMS distance from the line that was asked for.',
    [3, 2.3, 1.7, 1.2],
    0.1,
    0.3,
    8,
  ),
  centsPer10Db: limit(
    'Pitch with level',
    'cents per 10 dB',
    'How far the pitch may go with the level.',
    [12, 8, 5, 3],
    0.5,
    1,
    40,
  ),
  topMs: limit(
    'Top of a swell',
    'ms',
    'How far the loudest may lie from the middle of a swell.',
    [600, 450, 350, 250],
    50,
    100,
    2000,
  ),
  rangeDb: limit(
    'Range of a line',
    'dB',
    'The least distance from soft to loud in a taper or a swell.',
    [5, 7, 9, 11],
    1,
    2,
    30,
  ),
  windowDb: limit(
    'Dynamic window',
    'dB',
    'The least distance from softest to loudest.',
    [10, 15, 20, 25],
    1,
    4,
    50,
  ),
  holdPercent: limit(
    'Holds',
    '% pure',
    'How much of the time that it is held a hold is to be pure.',
    [60, 75, 85, 95],
    5,
    10,
    100,
  ),
  purityCents: limit(
    'Pure: pitch',
    'cents',
    'A held tone is pure as long as it stays this near.',
    [15, 10, 8, 6],
    1,
    2,
    40,
  ),
  purityDb: limit(
    'Pure: level',
    'dB',
    'A held tone is pure as long as it loses no more.',
    [8, 6, 5, 4],
    0.5,
    1,
    20,
  ),
} as const;

export type LimitId = keyof typeof LIMITS;
export type Limits = Readonly<Record<LimitId, number>>;
export const LIMIT_IDS = Object.keys(LIMITS) as LimitId[];

/** What a player has set otherwise than is usual for a level. Values outside the table's reach are refused. */
export const ownLimitsSchema = z.partialRecord(z.enum(LIMIT_IDS), z.number()).superRefine((own, context) => {
  for (const id of LIMIT_IDS) {
    const value = own[id];
    const { low, high, label, unit } = LIMITS[id];
    if (value === undefined || (value >= low && value <= high)) continue;
    context.addIssue({
      code: 'custom',
      path: [id],
      message: `${label} must lie between ${low} and ${high} ${unit}`,
    });
  }
});
export type OwnLimits = z.infer<typeof ownLimitsSchema>;

/** The thresholds of a level, with the player's own in their places. */
export function limitsOf(level: Level, own: OwnLimits = {}): Limits {
  const place = LEVELS.indexOf(level);
  const entries = LIMIT_IDS.map((id) => [id, own[id] ?? LIMITS[id].usual[place]] as const);
  return Object.fromEntries(entries) as Record<LimitId, number>;
}

function limit(
  label: string,
  unit: string,
  about: string,
  usual: Limit['usual'],
  step: number,
  low: number,
  high: number,
): Limit {
  return { label, unit, about, usual, step, low, high };
}
