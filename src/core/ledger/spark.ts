import * as z from 'zod';
import { greatest } from 'd3-array';
import type { Midi } from '@/core/base';
import { lengthOf } from '@/core/hearing/notes';
import type { Take, Trace } from '@/core/take';

/** The longest note of a take, thinned to a small drawing. */
export const sparkSchema = z.object({
  stepSeconds: z.number().positive(),
  /** Pitch that it is drawn about. */
  midi: z.number(),
  /** Whole cents from it; null where there was no pitch. */
  cents: z.custom<(number | null)[]>(
    (row) => Array.isArray(row) && row.every((each) => each === null || typeof each === 'number'),
    { error: 'must be cents or nothing' },
  ),
  /** Whole dB. */
  levelDb: z.custom<number[]>((row) => Array.isArray(row) && row.every((each) => typeof each === 'number'), {
    error: 'must be levels',
  }),
});
export type Spark = z.infer<typeof sparkSchema>;

const POINTS = 48;

/** @returns null when nothing was heard. */
export function sparkOf({ notes, trace }: Pick<Take, 'notes' | 'trace'>): Spark | null {
  const note = greatest(notes, lengthOf);
  if (!note) return null;
  const from = Math.max(0, Math.round(note.startSeconds / trace.stepSeconds));
  const to = Math.min(trace.pitchMidi.length, Math.round(note.endSeconds / trace.stepSeconds));
  const stride = Math.max(1, Math.ceil((to - from) / POINTS));
  const spark: Spark = {
    stepSeconds: stride * trace.stepSeconds,
    midi: note.soundingMidi,
    cents: [],
    levelDb: [],
  };
  for (let i = from; i < to; i += stride) {
    const pitch = trace.pitchMidi[i] ?? null;
    spark.cents.push(pitch === null ? null : Math.round(100 * (pitch - note.soundingMidi)));
    spark.levelDb.push(Math.round(trace.levelDb[i] ?? -120));
  }
  return spark;
}

/** The drawing as a piece of a trace that begins with the note. */
export function sparkTrace({
  stepSeconds,
  midi,
  cents,
  levelDb,
}: Spark): Pick<Trace, 'stepSeconds' | 'pitchMidi' | 'levelDb'> & { midi: Midi; seconds: number } {
  return {
    stepSeconds,
    midi,
    seconds: cents.length * stepSeconds,
    pitchMidi: cents.map((each) => (each === null ? null : midi + each / 100)),
    levelDb,
  };
}
