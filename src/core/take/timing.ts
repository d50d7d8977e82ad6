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
  { firstBeatSeconds, roundTrip, resumed }: Timing,
  score: Pick<Score, 'tempo' | 'swing'>,
  beat: number,
): Seconds | null {
  const first = { firstBeatSeconds, beat: 0 };
  const stretch = resumed.findLast((each) => each.beat <= beat + 1e-6) ?? first;
  if (stretch.firstBeatSeconds === null || score.tempo === null) return null;
  return (
    stretch.firstBeatSeconds + secondsAt(score, beat) - secondsAt(score, stretch.beat) + roundTrip.seconds
  );
}

/** A note that is begun no earlier than this share of a beat before the first one is music already. */
const EARLY_BEATS = 0.6;
/** Where a beat is come back to, what was begun so much before it at the earlier playing, in beats, was that beat's note. */
const COME_BACK_TO = 0.25;

/** When the beats fell, for whoever lays a take beside its music. */
export function beatsOf(timing: Timing, score: Pick<Score, 'tempo' | 'swing'>): Beats {
  const beat = 60 / (score.tempo ?? 60);
  const first = beatSeconds(timing, score, 0);
  if (first === null) return { secondsOf: null, beatSeconds: beat, notMusic: [] };
  const breaks = timing.resumed.flatMap((each, k) => {
    const before = beatSeconds({ ...timing, resumed: timing.resumed.slice(0, k) }, score, each.beat);
    const again = beatSeconds({ ...timing, resumed: [each] }, score, each.beat);
    return before === null || again === null
      ? []
      : [{ from: before - COME_BACK_TO * beat, to: again - EARLY_BEATS * beat }];
  });
  return {
    secondsOf: (at) => beatSeconds(timing, score, at)!,
    beatSeconds: beat,
    notMusic: [{ from: -Infinity, to: first - EARLY_BEATS * beat }, ...breaks],
  };
}
