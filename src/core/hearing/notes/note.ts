import * as z from 'zod';
import { perColour, type Seconds } from '@/core/base';
import { eventKindSchema } from '@/core/music';

/** Why a figure is missing; shown to the player in place of a number. */
export const unknownReason = z.enum([
  'too-short',
  'too-noisy',
  'gain-control',
  'masked',
  'clipped',
  'no-beat',
  'out-of-band',
  'partial',
  'company',
  'drone',
  'steady-level',
  'room',
  'vibrato',
]);
export type UnknownReason = z.infer<typeof unknownReason>;

const figure = z.number().nullable();

export const vibratoSchema = z.object({
  rateHz: z.number(),
  /** Half of peak to peak. */
  extentCents: z.number(),
});
export type Vibrato = z.infer<typeof vibratoSchema>;

/** One heard note. A figure that cannot be trusted is null, with its reason under the same name in `unknown`. */
export const noteSchema = z.object({
  startSeconds: z.number(),
  endSeconds: z.number(),
  /** Nearest semitone of the sounding pitch. */
  soundingMidi: z.number().multipleOf(0.5),
  writtenName: z.string(),
  mode: z.number().int(),
  register: z.string(),
  /** Median distance from `soundingMidi` in the chosen temperament. */
  centreCents: figure,
  /** Robust slope of the pitch. */
  driftCentsPerSecond: figure,
  /** RMS of the pitch about its trend, vibrato taken out. */
  wobbleCents: figure,
  vibrato: vibratoSchema.nullable(),
  levelDb: figure,
  levelDriftDbPerSecond: figure,
  levelWobbleDb: figure,
  /** How the pitch goes with the level (Theil–Sen), where the level moved far enough to tell. */
  centsPer10Db: figure.default(null),
  ...perColour(() => figure.default(null)),
  /** Medians of partials 1 … 16 over the body, dBFS; null above the recording's band. */
  partialsDb: z.array(z.number().nullable()).default([]),
  puritySeconds: figure,
  attack: z.object({
    /** 10–90 % of the amplitude. */
    riseSeconds: figure,
    /** Pitch over the first 150 ms against the centre. */
    scoopCents: figure,
    /** From the first sound energy to the pitch. */
    speechSeconds: figure,
  }),
  unknown: z.record(z.string(), unknownReason),
});
export type Note = z.infer<typeof noteSchema>;

/** How long a note or an event lasts. */
export const lengthOf = ({ startSeconds, endSeconds }: Pick<Note, 'startSeconds' | 'endSeconds'>): Seconds =>
  endSeconds - startSeconds;

export const eventSchema = z.object({
  kind: eventKindSchema,
  startSeconds: z.number(),
  endSeconds: z.number(),
  soundingMidi: z.number().multipleOf(0.5).nullable(),
  noteIndex: z.number().int().nullable(),
  confidence: z.number().min(0).max(1),
});
export type NoteEvent = z.infer<typeof eventSchema>;

export const transitionSchema = z.object({
  /** Indices of the two notes. */
  from: z.number().int(),
  to: z.number().int(),
  /** Leaving the one pitch, and having settled on the other. */
  startSeconds: z.number(),
  endSeconds: z.number(),
  /** The time between, less what the measuring itself takes; null when the new note never settled. */
  seconds: figure,
  /** How far the pitch went beyond the new note. */
  overshootCents: figure,
  /** Hole in the level, below the softer of the two notes. */
  dipDb: figure,
  /** Push in the level, above the louder of the two. */
  bumpDb: figure,
  /** Level of the new note against the old. */
  levelStepDb: figure,
  /** Another mode that was heard faint when the new note began: where the two are slurred it is a blip, tongued tones often begin so. */
  faintBlip: eventSchema.nullable().default(null),
});
/** How one note went over into the next without a stop. */
export type Transition = z.infer<typeof transitionSchema>;

/** How far pitch and level may move before a tone no longer counts as pure. */
export interface PurityLimits {
  readonly cents: number;
  readonly decibels: number;
  /** When none was asked for, a tone is not pure while vibrato lasts. */
  readonly vibratoAllowed: boolean;
}
export const ORDINARY_PURITY: PurityLimits = { cents: 10, decibels: 6, vibratoAllowed: true };
