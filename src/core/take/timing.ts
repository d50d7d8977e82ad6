import * as z from 'zod';
import type { Seconds } from '@/core/base';
import type { Beats } from '@/core/hearing/matching';
import { secondsAt, type Score } from '@/core/music';

const stretchSchema = z.object({
  /** Take time from which on this holds. */
  fromSeconds: z.number(),
  /** Take time of `beat`, as the metronome was told; null when nothing beat. */
  firstBeatSeconds: z.number().nullable(),
  /** Beat of the music that the stretch began with. */
  beat: z.number(),
});

/** How the take's time line hangs together with the metronome's. */
export const timingSchema = z.object({
  /** Take time of the first beat of the music, as the metronome was told; null when nothing beat. */
  firstBeatSeconds: z.number().nullable(),
  /** Loudspeaker to microphone, and how that is known. */
  roundTrip: z.object({
    seconds: z.number(),
    how: z.enum(['measured', 'device', 'exact', 'assumed']),
  }),
  /** Where the take was interrupted and gone on with, from a beat of the music. */
  resumed: z.array(stretchSchema).default([]),
});
export type Timing = z.infer<typeof timingSchema>;

export const NO_BEAT: Timing = {
  firstBeatSeconds: null,
  roundTrip: { seconds: 0, how: 'exact' },
  resumed: [],
};

/** Take time at which a beat was to be heard; null in free time. A beat that was come back to counts where it was played last. */
export function beatSeconds(
  timing: Timing,
  score: Pick<Score, 'tempo' | 'swing'>,
  beat: number,
): Seconds | null {
  const { firstBeatSeconds, roundTrip, resumed } = timing;
  const first = { firstBeatSeconds, beat: 0 };
  const stretch = resumed.findLast((each) => each.beat <= beat + 1e-6) ?? first;
  if (stretch.firstBeatSeconds === null || score.tempo === null) return null;
  return (
    stretch.firstBeatSeconds + secondsAt(score, beat) - secondsAt(score, stretch.beat) + roundTrip.seconds
  );
}

/** A note that is begun no earlier than this share of a beat before the first one is music already. */
const EARLY_BEATS = 0.6;

/** When the beats fell, for whoever lays a take beside its music. */
export function beatsOf(timing: Timing, score: Pick<Score, 'tempo' | 'swing'>): Beats {
  const beat = 60 / (score.tempo ?? 60);
  const first = beatSeconds(timing, score, 0);
  return {
    secondsOf: first === null ? null : (at) => beatSeconds(timing, score, at)!,
    beatSeconds: beat,
    musicFrom: first === null ? -Infinity : first - EARLY_BEATS * beat,
  };
}
