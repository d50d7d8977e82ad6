import * as z from 'zod';

export const dynamicSchema = z.enum(['pp', 'p', 'mp', 'mf', 'f', 'ff']);
export type Dynamic = z.infer<typeof dynamicSchema>;

export const attackSchema = z.enum(['tongued', 'back-of-tongue', 'breath', 'none']);
/** How a note begins; `none` is slurred to from the note before. */
export type Attack = z.infer<typeof attackSchema>;

export const hairpinSchema = z.enum(['grow', 'fade', 'swell']);
/** What the level does over a note; neighbours with the same hairpin share one. `swell` grows to the middle and fades. */
export type Hairpin = z.infer<typeof hairpinSchema>;

/** What a note is for in its exercise. Measures and the stand go by this, never by the word over the note. */
export const roleSchema = z.enum([
  // Tone: what others are held against, what is held.
  'reference',
  'problem',
  'neighbour',
  'anchor',
  'hold',
  'edge',
  'whisper',
  'full',
  'test',
  // Breath, level, angle.
  'sweep',
  'softest',
  'loudest',
  'smaller',
  'longer',
  'reversed',
  'as-written',
  'one-way',
  'and-back',
  'richest',
  // Pitch.
  'ordinary',
  'harmonic',
  'plain',
  'bend-down',
  'bend-back-up',
  'bend-up',
  'bend-back-down',
  'tuning',
  'entry',
  // The two sides of a comparison.
  'first',
  'second',
  // The same row in eight ways.
  'tongued',
  'back-of-tongue',
  'breath-only',
  'slurred-up',
  'slurred-down',
  'up-softer',
  'down-louder',
  'triplets',
]);
export type Role = z.infer<typeof roleSchema>;

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
  /** A word over the note, for reading only. */
  label: z.string().nullable().default(null),
  role: roleSchema.nullable().default(null),
  /** Sharps of the key that it is written in, negative for flats; null where the music around it tells. */
  key: z.number().int().min(-7).max(7).nullable().default(null),
  /** Lasts as long as the player holds it, however long it is written. */
  open: z.boolean().default(false),
  /** A voice or a partner sounds along. */
  company: z.boolean().default(false),
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

/** What can be measured of a take: see core/verdict/measures, which has one of each. */
export const measureSchema = z.enum([
  'held',
  'pitch',
  'steadiness',
  'level',
  'air',
  'attack',
  'rhythm',
  'ladder',
  'seam',
  'interval',
  'sameness',
  'anchor',
  'ways',
  'line',
  'both-ways',
  'pulses',
  'window',
  'hold',
  'octaves',
  'just',
  'leaning',
  'scan',
  'slide',
  'room',
  'climb',
  'register-test',
  'bend',
  'sweep',
  'edge',
  'angle',
  'compare',
  'colours',
  'model',
  'played',
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

export const metreSchema = z.object({
  /** Where it begins to hold: at a bar line. */
  startBeat: z.number().min(0),
  beats: z.number().int().min(1).max(32),
  unit: z.union([z.literal(1), z.literal(2), z.literal(4), z.literal(8), z.literal(16), z.literal(32)]),
  /** Crotchets of its first bar where that is no full one: a pickup, a bar that a repeat parts. */
  length: z.number().positive().nullable().default(null),
});
/** A time signature from a bar line on. */
export type Metre = z.infer<typeof metreSchema>;

const feedsSchema = z.object({ map: z.boolean(), seams: z.boolean(), trends: z.boolean() });

/** Which measures and events are valid for a score, and what its takes may change in what is remembered. */
export const countsSchema = z.object({
  /** The first is what the exercise is about. */
  measures: z.array(measureSchema),
  events: z.array(eventKindSchema),
  feeds: feedsSchema,
  /** Explores: judged only on what it explores, never scolded for what it means to do. */
  exploring: z.boolean(),
  /** When the tempo goes up by notches: after a clean take, or after five clean slurs in a row; null: never by itself. */
  notches: z.enum(['clean', 'five-in-a-row']).nullable(),
  /** Whose beginnings are told against the beat: of what is begun anew, or of slurred notes too. */
  timed: z.enum(['attacks', 'all']),
});
export type Counts = z.infer<typeof countsSchema>;
export type MeasureId = z.infer<typeof measureSchema>;

export const EVERYTHING_COUNTS: Counts = {
  measures: ['seam', 'pitch', 'rhythm', 'steadiness', 'level', 'air', 'attack'],
  events: [...eventKindSchema.options],
  feeds: { map: true, seams: true, trends: true },
  exploring: false,
  notches: null,
  timed: 'attacks',
};

/** Stored with every score; what was stored by an earlier one is read by `storedScoreSchema`. */
export const SCORE_VERSION = 2;

/** Written music before it is played, with all that the stand, the judge and the simulated player need to know. */
export const scoreSchema = z
  .object({
    version: z.literal(SCORE_VERSION).default(SCORE_VERSION),
    family: z.string().min(1),
    title: z.string(),
    instrumentId: z.string(),
    /** Beats per minute; null is free, without a metronome. */
    tempo: z.number().min(20).max(300).nullable(),
    /** Crotchets a bar, where there are no metres. */
    beatsPerBar: z.number().int().min(1).max(12),
    /** Metres in order, for music that has others than so many crotchets a bar throughout. */
    metres: z.array(metreSchema).default([]),
    /** Crotchets that are counted before the music. */
    countInBeats: z.number().min(0).max(16),
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
    /** The player takes the drone's notes in turn, and the drone leaves out the one that is theirs. */
    droneLeavesOut: z.boolean().default(false),
    /** Names of the two sides of a comparison. */
    sides: z.tuple([z.string(), z.string()]).nullable().default(null),
    /** The reading is hidden while playing. */
    blind: z.boolean().default(false),
    /** Its first phrase is shown; of the others the names only, and they are played by ear. */
    byEar: z.boolean().default(false),
    /** Another pitch is expected beside the player's (a voice, a partner). */
    company: z.boolean().default(false),
    /** Times that the whole is played. */
    repeats: z.number().int().min(1).max(20).default(1),
    /** Nothing is asked: what is played becomes the notes. */
    free: z.boolean().default(false),
    /** A dose: the block ends by itself after this long. */
    longestSeconds: z.number().positive().nullable().default(null),
    /** The one thing to attend to. */
    cue: z.string().nullable().default(null),
    counts: countsSchema.default(EVERYTHING_COUNTS),
    /** What the generator was asked for, so that the score can be made again, changed. */
    parameters: z.record(z.string(), z.unknown()).default({}),
  })
  .meta({ id: 'score' });
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

/** Beats from the beginning to the end of the last note or picture; the count-in is not in it. */
export function scoreBeats({ notes, pictures }: Pick<Score, 'notes' | 'pictures'>): number {
  return Math.max(0, ...[...notes, ...pictures].map((each) => each.startBeat + each.beats));
}
