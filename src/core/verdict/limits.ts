import * as z from 'zod';

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
  seamSeconds: limit(
    'Time of a slur',
    's',
    'From leaving one pitch to settling on the next.',
    [0.18, 0.14, 0.11, 0.09],
    0.01,
    0.03,
    0.5,
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
  speechSeconds: limit(
    'Late speech',
    's',
    'Silence or air before the note, after the beat.',
    [0.12, 0.09, 0.07, 0.05],
    0.01,
    0.02,
    0.4,
  ),
  rushSeconds: limit(
    'Rush and drag',
    's',
    'Mean distance from the beat.',
    [0.06, 0.045, 0.03, 0.02],
    0.005,
    0.005,
    0.2,
  ),
  timingSpreadSeconds: limit(
    'Evenness of attacks',
    's',
    'Spread about their own mean.',
    [0.045, 0.032, 0.022, 0.015],
    0.001,
    0.004,
    0.1,
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
  windowDb: limit(
    'Dynamic window',
    'dB',
    'The least distance from softest to loudest.',
    [10, 15, 20, 25],
    1,
    4,
    50,
  ),
  holdShare: limit(
    'Holds',
    'share',
    'How much of the asked hold is to be pure.',
    [0.6, 0.75, 0.85, 0.95],
    0.05,
    0.1,
    1,
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
export const LEVELS = ['beginner', 'steady', 'advanced', 'exacting'] as const;
export type PlayerLevel = (typeof LEVELS)[number];
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
export function limitsOf(level: PlayerLevel, own: OwnLimits = {}): Limits {
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
