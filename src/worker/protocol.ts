import { roomSchema } from '@/core/hearing/room';
import * as z from 'zod';
import { musicReadSchema, scoreSchema, storedScoreSchema } from '@/core/music';
import { timingSchema, traceSchema } from '@/core/take';
import { eventSchema, noteSchema, transitionSchema } from '@/core/hearing/notes';
import { instrumentSchema } from '@/core/instruments';
import { entrySchema, packedCellsSchema } from '@/core/ledger';
import { LIMIT_IDS } from '@/core/verdict';
import { faultRatesSchema, playerSchema, ROOM_NAMES } from '@/core/lab';

const clickSchema = z.object({ seconds: z.number(), accent: z.boolean() });

/** A TakeRequest. It is also what is kept beside the sound of a take that has not been finished. */
export const takeRequestSchema = z.object({
  sampleRate: z.number(),
  a4: z.number(),
  score: storedScoreSchema(),
  instrument: instrumentSchema,
  gainControlled: z.boolean(),
  longestSeconds: z.number().positive(),
  firstBeat: z.number().nullable(),
  fromBeat: z.number().nonnegative().optional(),
  offsets: z.array(z.number().nullable()).optional(),
  drone: z.array(z.number().positive()).optional(),
  company: z.boolean().optional(),
  partner: z.boolean().optional(),
  purity: z.object({ cents: z.number(), decibels: z.number() }).optional(),
  roundTrip: timingSchema.shape.roundTrip,
});
export type TakeRequestMessage = z.infer<typeof takeRequestSchema>;

/** Every call has a number of its own; whatever answers it, or says why it failed, carries it back. */
const call = { id: z.number().int() };

/** Page → worker. */
export const requestSchema = z.discriminatedUnion('kind', [
  /** Carries the port on which the samples arrive. */
  takeRequestSchema.extend({ ...call, kind: z.literal('listen') }),
  /** Hears a recording at once, as if it had come from a port: its first sample is at `origin` on the audio clock. */
  takeRequestSchema.extend({
    ...call,
    kind: z.literal('measure'),
    origin: z.number(),
    clicks: z.array(clickSchema),
    audio: z.instanceof(Int16Array),
  }),
  /** The metronome was set going: clock time of the first beat of the music. */
  z.object({ kind: z.literal('beat'), firstBeat: z.number() }),
  /** Clicks that have been scheduled, on the audio clock. */
  z.object({
    kind: z.literal('clicks'),
    clicks: z.array(clickSchema),
  }),
  z.object({ kind: z.literal('finish'), interruption: z.string().nullable() }),
  z.object({
    ...call,
    kind: z.literal('simulate'),
    score: scoreSchema,
    instrument: instrumentSchema,
    player: playerSchema,
    faults: faultRatesSchema.optional(),
    /** The room that the player is heard in; a dry sound without one. */
    heardIn: z.enum(ROOM_NAMES).optional(),
    seed: z.number(),
    sampleRate: z.number(),
    a4: z.number(),
    leadSeconds: z.number(),
    tailSeconds: z.number(),
  }),
  /** Reads a file of music. */
  z.object({
    ...call,
    kind: z.literal('read-music'),
    fileName: z.string(),
    bytes: z.instanceof(Uint8Array),
    instrument: instrumentSchema,
    /** Which part and voice; else the one that fits best. */
    line: z.string().optional(),
  }),
  /** Reads stored takes of any version, and judges them. */
  z.object({
    ...call,
    kind: z.literal('digest'),
    takes: z.array(z.object({ take: z.string(), trace: z.string().nullable() })),
    /** Instruments of the player's own, which the oldest takes only named. */
    own: z.array(instrumentSchema),
    limits: z.record(z.enum(LIMIT_IDS), z.number()),
    naming: z.enum(['english', 'german', 'fixed-do']),
  }),
]);
export type Request = z.infer<typeof requestSchema>;
export type ListenRequest = Extract<Request, { kind: 'listen' }>;
export type MeasureRequest = Extract<Request, { kind: 'measure' }>;
export type MusicRequest = Extract<Request, { kind: 'read-music' }>;
export type DigestRequest = Extract<Request, { kind: 'digest' }>;
export type SimulateRequest = Extract<Request, { kind: 'simulate' }>;

/** Capture worklet → worker. */
export const samplesSchema = z.object({
  frame: z.number(),
  rate: z.number(),
  samples: z.instanceof(Float32Array),
});

/** Values a live frame takes in a `live` message: seconds into the take, f0 in Hz, level in dB, airiness in dB, partials that stand out. */
export const LIVE_STRIDE = 5;

export const resultSchema = z.object({
  durationSeconds: z.number(),
  notes: z.array(noteSchema),
  events: z.array(eventSchema),
  transitions: z.array(transitionSchema),
  floorDb: z.number(),
  room: roomSchema,
  clipped: z.boolean(),
  lostSeconds: z.number(),
  trace: traceSchema,
  timing: timingSchema,
  heldHz: z.number().nullable(),
  steadyHz: z.array(z.number()),
  interruption: z.string().nullable(),
  audio: z.instanceof(Int16Array),
});
export type Result = z.infer<typeof resultSchema>;

/** A stored take that was read, in the form of today, with its row and cells; or why not. */
const digestedSchema = z.discriminatedUnion('ok', [
  z.object({
    ok: z.literal(true),
    value: z.object({
      stored: z.object({ take: z.string(), trace: z.string() }),
      entry: entrySchema,
      cells: packedCellsSchema,
    }),
  }),
  z.object({ ok: z.literal(false), problem: z.string() }),
]);
export type DigestedTake = z.infer<typeof digestedSchema>;

/** Worker → page. */
export const replySchema = z.discriminatedUnion('kind', [
  z.object({
    ...call,
    kind: z.literal('live'),
    frames: z.instanceof(Float32Array),
    /** Audio-clock time at which the take began. */
    origin: z.number(),
  }),
  /** Sound of the take that is being heard, in order, for keeping. */
  z.object({ ...call, kind: z.literal('sound'), audio: z.instanceof(Int16Array) }),
  z.object({ ...call, kind: z.literal('result'), result: resultSchema }),
  z.object({ ...call, kind: z.literal('simulated'), audio: z.instanceof(Float32Array) }),
  z.object({
    ...call,
    kind: z.literal('music'),
    read: z.discriminatedUnion('ok', [
      z.object({ ok: z.literal(true), value: musicReadSchema }),
      z.object({ ok: z.literal(false), problem: z.string() }),
    ]),
  }),
  z.object({ ...call, kind: z.literal('digested'), takes: z.array(digestedSchema) }),
  z.object({ ...call, kind: z.literal('failed'), problem: z.string() }),
]);
export type Reply = z.infer<typeof replySchema>;
