import * as z from 'zod';
import { timingSchema } from '@/core/assess';
import { scoreSchema } from '@/core/exercises';
import { traceSchema } from '@/core/take';
import { eventSchema, noteSchema } from '@/core/notes';
import { instrumentSchema } from '@/core/instruments';
import { faultRatesSchema, playerSchema } from '@/core/simulate';

/** Page → worker. A `listen` message is a TakeRequest and carries the port on which the samples arrive. */
export const requestSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('listen'),
    /** The worker has a catalogue of its own; these are the player's. */
    ownInstruments: z.array(instrumentSchema),
    sampleRate: z.number(),
    a4: z.number(),
    score: scoreSchema,
    gainControlled: z.boolean(),
    silenceSeconds: z.number().positive().nullable(),
    longestSeconds: z.number().positive(),
    firstBeat: z.number().nullable(),
    offsets: z.array(z.number().nullable()).optional(),
    drone: z.array(z.number().positive()).optional(),
    company: z.boolean().optional(),
    roundTrip: timingSchema.shape.roundTrip,
  }),
  /** Clicks that have been scheduled, on the audio clock. */
  z.object({
    kind: z.literal('clicks'),
    clicks: z.array(z.object({ seconds: z.number(), accent: z.boolean() })),
  }),
  z.object({ kind: z.literal('finish'), interruption: z.string().nullable() }),
  z.object({
    kind: z.literal('simulate'),
    ownInstruments: z.array(instrumentSchema),
    score: scoreSchema,
    player: playerSchema,
    faults: faultRatesSchema.optional(),
    seed: z.number(),
    sampleRate: z.number(),
    a4: z.number(),
    leadSeconds: z.number(),
    tailSeconds: z.number(),
  }),
]);
export type Request = z.infer<typeof requestSchema>;
export type ListenRequest = Extract<Request, { kind: 'listen' }>;
export type SimulateRequest = Extract<Request, { kind: 'simulate' }>;

/** Capture worklet → worker. */
export const samplesSchema = z.object({
  frame: z.number(),
  rate: z.number(),
  samples: z.instanceof(Float32Array),
});

/** Values a live frame takes in a `live` message: seconds into the take, f0 in Hz, level in dB, airiness in dB. */
export const LIVE_STRIDE = 4;

const resultSchema = z.object({
  kind: z.literal('result'),
  durationSeconds: z.number(),
  notes: z.array(noteSchema),
  events: z.array(eventSchema),
  floorDb: z.number(),
  clipped: z.boolean(),
  trace: traceSchema,
  timing: timingSchema,
  interruption: z.string().nullable(),
  audio: z.instanceof(Int16Array),
});
export type Result = z.infer<typeof resultSchema>;

/** Worker → page. */
export const replySchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('live'),
    frames: z.instanceof(Float32Array),
    sounding: z.boolean(),
    /** Audio-clock time at which the take began. */
    origin: z.number(),
  }),
  resultSchema,
  z.object({ kind: z.literal('simulated'), audio: z.instanceof(Float32Array) }),
  z.object({ kind: z.literal('failed'), problem: z.string() }),
]);
export type Reply = z.infer<typeof replySchema>;
