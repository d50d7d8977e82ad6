import * as z from 'zod';
import { timingSchema } from '@/core/assess';
import { scoreSchema, type Score } from '@/core/exercises';
import { eventSchema, noteSchema } from '@/core/notes';
import type { HeardTake } from './takeListener';

export const TAKE_VERSION = 1;

/** What was so when the take was played. Null: not told. */
export const conditionsSchema = z.object({
  source: z.enum(['microphone', 'simulated', 'file']),
  /** Name of the device or the file. */
  sourceName: z.string(),
  sampleRate: z.number(),
  a4: z.number(),
  /** Name of the temperament that pitch was told in. */
  temperament: z.string().default('Equal'),
  /** Processing that stayed on although it was asked off. */
  processing: z.array(z.enum(['gain-control', 'noise-suppression', 'echo-cancellation'])),
  clipped: z.boolean(),
  floorDb: z.number(),
  /** What cut the take short, if anything did. */
  interruption: z.string().nullable(),
});
export type Conditions = z.infer<typeof conditionsSchema>;

/** The thread of a take, thinned for drawing: equal steps, null where there was no pitch. */
export const traceSchema = z.object({
  stepSeconds: z.number().positive(),
  pitchMidi: z.array(z.number().nullable()),
  levelDb: z.array(z.number()),
  airinessDb: z.array(z.number().nullable()),
});
export type Trace = z.infer<typeof traceSchema>;

/** What came back from a Score. */
export const takeSchema = z.object({
  version: z.literal(TAKE_VERSION),
  id: z.string().min(1),
  /** ISO 8601. */
  createdAt: z.string(),
  durationSeconds: z.number(),
  score: scoreSchema,
  conditions: conditionsSchema,
  timing: timingSchema,
  notes: z.array(noteSchema),
  events: z.array(eventSchema),
  trace: traceSchema,
  /** The player's own words. */
  remark: z.string(),
  /** Present when the sound was kept too. */
  audio: z.object({ bytes: z.number() }).nullable(),
});
export type Take = z.infer<typeof takeSchema>;

/** A take from what was heard and what was so while it was played. */
export function takeOf(
  id: string,
  now: Date,
  score: Score,
  heard: HeardTake,
  conditions: Omit<Conditions, 'clipped' | 'floorDb'>,
): Take {
  const { durationSeconds, timing, notes, events, trace, clipped, floorDb, audio } = heard;
  return {
    version: TAKE_VERSION,
    id,
    createdAt: now.toISOString(),
    durationSeconds,
    score,
    conditions: { ...conditions, clipped, floorDb },
    timing,
    notes,
    events,
    trace,
    remark: '',
    audio: { bytes: audio.byteLength },
  };
}
