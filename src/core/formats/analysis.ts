import * as z from 'zod';
import { FEATURES, type Hertz, perColour, type Seconds } from '@/core/base';
import { eventSchema, noteSchema, type Heard } from '@/core/hearing/notes';

const column = z.array(z.number().nullable());

/** What the server answers about a recording. */
export const analysisSchema = z.object({
  schema: z.literal('gold-reed/analysis@1'),
  instrument: z.string(),
  pitchStandardHz: z.number(),
  sampleRate: z.number(),
  durationSeconds: z.number(),
  frames: z
    .object({
      hopSeconds: z.number(),
      startSeconds: z.number(),
      f0Hz: column,
      levelDb: z.array(z.number()),
      clarity: z.array(z.number()),
      ...perColour(() => column),
    })
    .optional(),
  /** The room's own level. */
  floorDb: z.number(),
  clipped: z.boolean(),
  /** Samples that were not numbers. */
  badSamples: z.number().int(),
  notes: z.array(noteSchema),
  events: z.array(eventSchema),
});
export type Analysis = z.infer<typeof analysisSchema>;

interface AnalysisParts {
  readonly instrumentId: string;
  readonly a4: Hertz;
  readonly durationSeconds: Seconds;
  readonly heard: Heard;
  readonly withFrames: boolean;
}

const orNull = (values: Float32Array, decimals: number) =>
  Array.from(values, (value) => (Number.isFinite(value) ? Number(value.toFixed(decimals)) : null));

/** What was heard as the open analysis format has it; frames only where they are asked for. */
export function analysisOf({
  instrumentId,
  a4,
  durationSeconds,
  heard,
  withFrames,
}: AnalysisParts): Analysis {
  const { frames } = heard;
  return {
    schema: 'gold-reed/analysis@1',
    instrument: instrumentId,
    pitchStandardHz: a4,
    sampleRate: frames.settings.sampleRate,
    durationSeconds,
    ...(withFrames && {
      frames: {
        hopSeconds: frames.hopSeconds,
        startSeconds: frames.startSeconds,
        f0Hz: orNull(frames.f0, 4),
        levelDb: Array.from(frames.levelDb, (value) => Number(value.toFixed(2))),
        clarity: Array.from(frames.clarity, (value) => Number(value.toFixed(3))),
        // One decimal finer than it is told.
        ...perColour((id) => orNull(frames[id], FEATURES[id].decimals + 1)),
      },
    }),
    floorDb: Number(heard.room.floorDb.toFixed(1)),
    clipped: frames.clipped.some((c) => c === 1),
    badSamples: frames.badSamples,
    notes: heard.notes,
    events: heard.events,
  };
}
