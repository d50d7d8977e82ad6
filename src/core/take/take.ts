import * as z from 'zod';
import { instrumentSchema, type Instrument } from '@/core/instruments';
import { storedScoreSchema, type Score } from '@/core/music';
import { roomSchema } from '@/core/hearing/room';
import { eventSchema, noteSchema, transitionSchema } from '@/core/hearing/notes';
import type { HeardTake } from './heardTake';
import { timingSchema } from './timing';
import { traceSchema } from './trace';

export const TAKE_VERSION = 3;

export const warmthSchema = z.enum(['cold', 'warming', 'warm']);

/** What the player can tell of the instrument and the day. Null or empty: not told. */
export const setupSchema = z.object({
  /** Position of slide, joint or barrel: how far it was pulled out. */
  slideMm: z.number().min(0).max(60).nullable(),
  temperatureC: z.number().min(-10).max(50).nullable(),
  warmth: warmthSchema.nullable(),
  reed: z.string().max(80),
  room: z.string().max(80),
  water: z.boolean().nullable(),
});
export type Setup = z.infer<typeof setupSchema>;

export const UNTOLD: Setup = {
  slideMm: null,
  temperatureC: null,
  warmth: null,
  reed: '',
  room: '',
  water: null,
};

/** What was so when the take was played. Null: not told. */
export const conditionsSchema = z.object({
  source: z.enum(['microphone', 'simulated', 'file', 'none']),
  /** Name of the device or the file. */
  sourceName: z.string(),
  sampleRate: z.number(),
  a4: z.number(),
  /** Name of the temperament that pitch was told in. */
  temperament: z.string().default('Equal'),
  /** Cents of each of the 128 notes from equal temperament in it; null: equal, or of a time when only its name was kept. */
  offsets: z.array(z.number().nullable()).length(128).nullable(),
  /** Processing that stayed on although it was asked off. */
  processing: z.array(z.enum(['gain-control', 'noise-suppression', 'echo-cancellation'])),
  clipped: z.boolean(),
  /** Sound that the device lost, in all. */
  lostSeconds: z.number().default(0),
  /** What sounded all along although nobody told of it, Hz: a drone, a hum. It was taken out. */
  steadyHz: z.array(z.number()).default([]),
  floorDb: z.number(),
  /** How the room answers; null: it was not looked at. */
  room: roomSchema.nullable().default(null),
  /** What cut the take short, if anything did. */
  interruption: z.string().nullable(),
  /** Nothing of metronome and drone could reach the microphone. */
  headphones: z.boolean().default(false),
  setup: setupSchema.default(UNTOLD),
  /** School whose advice was followed. */
  school: z.string().nullable().default(null),
});
export type Conditions = z.infer<typeof conditionsSchema>;

/** What came back from a Score. */
export const takeSchema = z.object({
  version: z.literal(TAKE_VERSION),
  id: z.string().min(1),
  /** ISO 8601. */
  createdAt: z.string(),
  durationSeconds: z.number(),
  score: storedScoreSchema(),
  /** What it was played on, as it was then; null: a take from elsewhere, on an instrument that is not known here. */
  instrument: instrumentSchema.nullable(),
  conditions: conditionsSchema,
  timing: timingSchema,
  notes: z.array(noteSchema),
  events: z.array(eventSchema),
  transitions: z.array(transitionSchema).default([]),
  trace: traceSchema,
  /** What a partner was found to hold, Hz. */
  heldHz: z.number().nullable().default(null),
  /** The player's own words. */
  remark: z.string(),
  /** Present when the sound was kept too. */
  audio: z.object({ bytes: z.number() }).nullable(),
});
export type Take = z.infer<typeof takeSchema>;

/** Conditions as far as they are known before a take has been heard; what is not told is left out. */
export type ToldConditions = Omit<
  z.input<typeof conditionsSchema>,
  'clipped' | 'lostSeconds' | 'steadyHz' | 'floorDb' | 'room'
>;

/** A take from what was heard and what was so while it was played. */
export function takeOf(
  id: string,
  now: Date,
  score: Score,
  instrument: Instrument,
  heard: HeardTake,
  conditions: ToldConditions,
): Take {
  const {
    durationSeconds,
    timing,
    notes,
    events,
    transitions,
    trace,
    heldHz,
    steadyHz,
    clipped,
    lostSeconds,
    floorDb,
    room,
    audio,
  } = heard;
  return {
    version: TAKE_VERSION,
    id,
    createdAt: now.toISOString(),
    durationSeconds,
    score,
    instrument,
    conditions: conditionsSchema.parse({ ...conditions, clipped, lostSeconds, steadyHz, floorDb, room }),
    timing,
    notes,
    events,
    transitions,
    trace,
    heldHz,
    remark: '',
    audio: { bytes: audio.byteLength },
  };
}
