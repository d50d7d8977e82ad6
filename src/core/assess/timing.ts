import * as z from 'zod';

/** How the take's time line hangs together with the metronome's. */
export const timingSchema = z.object({
  /** Take time of the first beat of the music, as the metronome was told; null when nothing beat. */
  firstBeatSeconds: z.number().nullable(),
  /** Loudspeaker to microphone, and how that is known. */
  roundTrip: z.object({ seconds: z.number(), how: z.enum(['measured', 'exact', 'assumed']) }),
});
export type Timing = z.infer<typeof timingSchema>;

export const NO_BEAT: Timing = { firstBeatSeconds: null, roundTrip: { seconds: 0, how: 'exact' } };
