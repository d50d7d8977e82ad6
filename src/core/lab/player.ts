import * as z from 'zod';

/** How a simulated player holds a note: what is asked of a performance, and so what is true of it. */
export const playerSchema = z.object({
  /** Centre against the asked pitch. */
  offsetCents: z.number(),
  /** What single notes add to it, by their written pitch. */
  leanings: z.record(z.string(), z.number()),
  driftCentsPerSecond: z.number(),
  /** RMS of an irregular wander of the pitch. */
  wobbleCents: z.number().min(0),
  /** It may swing the level and the colour too, and come only when the tone has stood for a while. */
  vibrato: z
    .object({
      rateHz: z.number().positive(),
      extentCents: z.number().min(0),
      levelDb: z.number().min(0).optional(),
      darkerDb: z.number().min(0).optional(),
      afterSeconds: z.number().min(0).optional(),
    })
    .nullable(),
  /** RMS level of the body, dBFS. */
  levelDb: z.number(),
  levelDriftDbPerSecond: z.number(),
  levelWobbleDb: z.number().min(0),
  /** How the pitch goes with the level: louder by 10 dB is sharper by this. */
  centsPer10Db: z.number(),
  /** The breath at which the tone rings most, against the written dynamic: away from it partials weaken and air grows. */
  ringAboveDb: z.number().nullable(),
  /** How far the pitch is moved where the score asks for a bend. */
  bends: z.object({ downCents: z.number().min(0), upCents: z.number().min(0) }),
  /** Pitch at the very start against the centre, gone after about 150 ms. */
  scoopCents: z.number(),
  /** Against the beat. */
  latenessSeconds: z.number(),
  /** Played tempo over the asked one: above 1 rushes. */
  tempoRatio: z.number().positive(),
  /** Standard deviation of each attack about its time. */
  timingSpreadSeconds: z.number().min(0),
  riseSeconds: z.number().positive(),
  /** Breath noise against the tone, in place of the instrument's ordinary one. */
  airinessDb: z.number().nullable(),
  /** The room. */
  roomNoiseDb: z.number(),
});
export type Player = z.infer<typeof playerSchema>;

export const steadyPlayer: Player = {
  offsetCents: -4,
  leanings: {},
  driftCentsPerSecond: 0.3,
  wobbleCents: 1.5,
  vibrato: null,
  levelDb: -20,
  levelDriftDbPerSecond: -0.2,
  levelWobbleDb: 0.3,
  centsPer10Db: 0,
  ringAboveDb: null,
  bends: { downCents: 45, upCents: 25 },
  scoopCents: -12,
  latenessSeconds: 0.03,
  tempoRatio: 1,
  timingSpreadSeconds: 0,
  riseSeconds: 0.05,
  airinessDb: null,
  roomNoiseDb: -72,
};
