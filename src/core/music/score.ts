import * as z from 'zod';

export const dynamicSchema = z.enum(['pp', 'p', 'mp', 'mf', 'f', 'ff']);
export type Dynamic = z.infer<typeof dynamicSchema>;

export const attackSchema = z.enum(['tongued', 'back-of-tongue', 'breath', 'none']);
/** How a note begins; `none` is slurred to from the note before. */
export type Attack = z.infer<typeof attackSchema>;

export const hairpinSchema = z.enum(['grow', 'fade', 'swell']);
/** What the level does over a note; neighbours with the same hairpin share one. `swell` grows to the middle and fades. */
export type Hairpin = z.infer<typeof hairpinSchema>;

export const scoreNoteSchema = z.object({
  /** Written pitch that is to sound; halves are quarter-tones. */
  written: z.number().min(0).max(127).multipleOf(0.5),
  startBeat: z.number().min(0),
  beats: z.number().positive(),
  attack: attackSchema,
  dynamic: dynamicSchema,
  hairpin: hairpinSchema.nullable().default(null),
  breathAfter: z.boolean().default(false),
  /** A harmonic: written note that is fingered, sounded in another mode. */
  fingered: z.number().nullable().default(null),
  /** Acoustic mode that is to sound; null where the instrument's ordinary one is meant. */
  mode: z.number().int().positive().nullable().default(null),
  /** What the hand does besides, in a few letters. */
  hand: z.string().nullable().default(null),
  /** A word over the note. */
  label: z.string().nullable().default(null),
});
export type ScoreNote = z.infer<typeof scoreNoteSchema>;

export const pictureSchema = z.object({
  startBeat: z.number().min(0),
  beats: z.number().positive(),
  /** What the breath does, and its strength at the two ends, 0 … 1. */
  shape: z.enum(['out', 'in', 'burst', 'rest']),
  from: z.number().min(0).max(1),
  to: z.number().min(0).max(1),
  text: z.string(),
});
/** A moment of an exercise without the instrument: something to follow with the eyes. */
export type Picture = z.infer<typeof pictureSchema>;

export const measureSchema = z.enum([
  'pitch',
  'steadiness',
  'level',
  'colour',
  'attack',
  'seam',
  'rhythm',
  'interval',
  'bend',
  'window',
  'purity',
  'sameness',
]);
/** What can happen in a note besides what was asked. */
export const eventKindSchema = z.enum([
  'break',
  'blip',
  'squeak',
  'undertone',
  'gap',
  'late-speech',
  'wrong-note',
  'vibrato-unwanted',
]);
export type EventKind = z.infer<typeof eventKindSchema>;

const feedsSchema = z.object({ map: z.boolean(), seams: z.boolean(), trends: z.boolean() });

/** Which measures and events are valid for a score, and what its takes may change in what is remembered. */
export const countsSchema = z.object({
  measures: z.array(measureSchema),
  events: z.array(eventKindSchema),
  feeds: feedsSchema,
  /** Explores: judged only on what it explores, never scolded for what it means to do. */
  exploring: z.boolean(),
});
export type Counts = z.infer<typeof countsSchema>;
export type Measure = z.infer<typeof measureSchema>;

export const EVERYTHING_COUNTS: Counts = {
  measures: ['pitch', 'steadiness', 'level', 'colour', 'attack', 'seam', 'rhythm'],
  events: [...eventKindSchema.options],
  feeds: { map: true, seams: true, trends: true },
  exploring: false,
};

/** Written music before it is played, with all that the stand, the judge and the simulated player need to know. */
export const scoreSchema = z.object({
  family: z.string().min(1),
  title: z.string(),
  instrumentId: z.string(),
  /** Beats per minute; null is free, without a metronome. */
  tempo: z.number().min(20).max(300).nullable(),
  beatsPerBar: z.number().int().min(1).max(12),
  countInBeats: z.number().int().min(0).max(16),
  vibrato: z.enum(['free', 'wanted', 'none']),
  /** Sharps of the written key signature, negative for flats. */
  fifths: z.number().int().min(-7).max(7).default(0),
  /** Pairs of quavers are played long–short. */
  swing: z.boolean().default(false),
  notes: z.array(scoreNoteSchema),
  /** For exercises without the instrument. */
  pictures: z.array(pictureSchema).default([]),
  /** Sounding notes of a drone to play against. */
  drone: z.array(z.number()).default([]),
  /** The reading is hidden while playing. */
  blind: z.boolean().default(false),
  /** Another pitch is expected beside the player's (a voice, a partner). */
  company: z.boolean().default(false),
  /** Times that the whole is played. */
  repeats: z.number().int().min(1).max(20).default(1),
  /** A dose: the block ends by itself after this long. */
  longestSeconds: z.number().positive().nullable().default(null),
  /** The one thing to attend to. */
  cue: z.string().nullable().default(null),
  counts: countsSchema.default(EVERYTHING_COUNTS),
  /** What the generator was asked for, so that the score can be made again, changed. */
  parameters: z.record(z.string(), z.unknown()).default({}),
});
export type Score = z.infer<typeof scoreSchema>;
export type VibratoWish = Score['vibrato'];

/** A score from its necessary parts, the rest as usual. For data written in code. @throws when it is not one. */
export function scoreOf(parts: z.input<typeof scoreSchema>): Score {
  return scoreSchema.parse(parts);
}

/** Whether someone else holds a pitch to tune to, and sounds it alone first. */
export const expectsPartner = ({ company, parameters }: Pick<Score, 'company' | 'parameters'>): boolean =>
  company && parameters['partner'] === true;

/** Length in seconds of a number of beats. A free score is read at 60 beats a minute. */
export function beatsToSeconds(score: Pick<Score, 'tempo'>, beats: number): number {
  return (beats * 60) / (score.tempo ?? 60);
}

/** Where in a beat its second half begins when quavers are swung. */
const SWUNG_HALF = 2 / 3;

/** Seconds from the start of the music at which a beat falls, swing included. */
export function secondsAt(score: Pick<Score, 'tempo' | 'swing'>, beat: number): number {
  if (!score.swing) return beatsToSeconds(score, beat);
  const whole = Math.floor(beat + 1e-9);
  const part = Math.max(0, beat - whole);
  const swung = part < 0.5 ? 2 * part * SWUNG_HALF : 1 - 2 * (1 - part) * (1 - SWUNG_HALF);
  return beatsToSeconds(score, whole + swung);
}

export function scoreBeats({ notes, pictures }: Pick<Score, 'notes' | 'pictures'>): number {
  return Math.max(0, ...[...notes, ...pictures].map((each) => each.startBeat + each.beats));
}
