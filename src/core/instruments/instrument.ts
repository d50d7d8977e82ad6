import * as z from 'zod';

export const kindSchema = z.enum(['edge', 'ducted', 'single-reed', 'double-reed']);
/** What makes the sound; decides which causes a fault can have. */
export type Kind = z.infer<typeof kindSchema>;

export const clefSchema = z.enum(['treble', 'bass', 'tenor']);
export type Clef = z.infer<typeof clefSchema>;

const written = z.number().min(0).max(127).multipleOf(0.5, { error: 'must be a semitone or a quarter-tone' });
const name = z
  .string()
  .trim()
  .min(1, { error: 'must not be empty' })
  .max(60, { error: 'must be 60 letters or fewer' });

export const registerSchema = z.object({
  id: z.string(),
  name,
  /** Lowest and highest written note, both included. */
  low: written,
  high: written,
  /** Acoustic mode from the given written note upward, in rising order; the first starts at `low`. */
  modes: z.array(z.object({ from: written, mode: z.number().int().min(1).max(16) })).min(1),
});
/** A practical register: the stretch of written notes that a player works in as one. */
export type Register = z.infer<typeof registerSchema>;

export const handRuleSchema = z.object({
  id: z.string(),
  /** Written notes it applies to. */
  low: written,
  high: written,
  /** A few letters, set under the note. */
  mark: z.string().max(14),
  /** What the hand does. */
  text: z.string(),
  /** Always, or only for an instant when the note is tongued or slurred to from `from` or below. */
  when: z.enum(['always', 'flick']),
  from: written.optional(),
  /** A way out rather than a fingering: exercises leave these notes out until they are asked for. */
  aside: z.boolean().optional(),
});
/** What the hand does for some notes, besides their fingering: vents, half-holes, keys touched for an instant. */
export type HandRule = z.infer<typeof handRuleSchema>;

export const tendencySchema = z.object({
  low: written,
  high: written,
  loudness: z.enum(['any', 'soft', 'loud']),
  cents: z.number().min(-100).max(100),
  about: z.string(),
});
/** A guess about where notes of this instrument sit before the player has been heard. */
export type Tendency = z.infer<typeof tendencySchema>;

/** How the pitch follows the length: open or closed cylinders by their length, cones by a figure in cents per mm at a note. */
export const tubeSchema = z.discriminatedUnion('model', [
  z.object({ model: z.literal('open') }),
  z.object({ model: z.literal('closed') }),
  z.object({ model: z.literal('cone'), centsPerMm: z.number().positive().max(20), at: written }),
]);
export type Tube = z.infer<typeof tubeSchema>;

/** An instrument as data. All note numbers are written pitches. */
export const instrumentSchema = z.object({
  id: z.string().min(1),
  name,
  kind: kindSchema,
  /** Which modes the tube has: every multiple of the fundamental, or the odd ones (cylinder closed by a reed). */
  series: z.enum(['harmonic', 'odd']),
  clef: clefSchema,
  /** Clef that notes from here up are written in, where the instrument uses two. */
  upperClef: z.object({ clef: clefSchema, from: written }).optional(),
  /** Sounding pitch minus written pitch. */
  transposition: z.number().int().min(-36).max(36),
  /** A written note that most players can hold well: where one starts. */
  home: written,
  /** Registers from low to high, without holes or overlap. */
  registers: z.array(registerSchema).min(1).max(8),
  tube: tubeSchema,
  hands: z.array(handRuleSchema),
  tendencies: z.array(tendencySchema),
  /** Seconds of mf that one breath comfortably lasts in the middle of the range. */
  breathSeconds: z
    .number()
    .min(2, { error: 'must be 2 s or more' })
    .max(60, { error: 'must be 60 s or less' }),
  cautions: z.array(z.string()),
  /** Smallest step between written notes: a semitone, or a quarter-tone. */
  step: z.union([z.literal(1), z.literal(0.5)]),
  /** An instrument built for another pitch standard than the usual one, Hz. */
  pitchStandard: z.number().min(380).max(500).optional(),
  /** Lowest note that most of these instruments have; what lies under it is for those that reach further down. */
  usualLow: written.optional(),
  /** Last comfortable note under the highest register; where nothing is said, the one right under that. */
  altissimoFrom: written.optional(),
  /** Note with an unstable fingering that shows what air and lips do. */
  testNote: written.optional(),
  /** Where the hand changes most, seen as the first seam by some: the other view of it. */
  handBreak: z.object({ below: written, above: written }).optional(),
  /** Keys that its holes are made for, as sharps of their signatures, the first of them first; where there are none, any will do. */
  plainKeys: z.array(z.number().int().min(-5).max(6)).min(1).optional(),
  /** Instruments of the player's own: what they were copied from. */
  copiedFrom: z.string().optional(),
});
export type Instrument = z.infer<typeof instrumentSchema>;
