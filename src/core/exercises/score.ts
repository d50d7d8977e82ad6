import * as z from 'zod';

/** Written music before it is played, with all that the stand, the judge and the simulated player need to know. */
export const scoreNoteSchema = z.object({
  written: z.number().int().min(0).max(127),
  startBeat: z.number().min(0),
  beats: z.number().positive(),
  attack: z.enum(['tongued', 'back-of-tongue', 'breath', 'none']),
  dynamic: z.enum(['pp', 'p', 'mp', 'mf', 'f', 'ff']),
});
export type ScoreNote = z.infer<typeof scoreNoteSchema>;

export const scoreSchema = z.object({
  family: z.enum(['long-tone', 'figure']),
  title: z.string(),
  instrumentId: z.string(),
  /** Beats per minute; null is free, without a metronome. */
  tempo: z.number().min(20).max(300).nullable(),
  beatsPerBar: z.number().int().min(1).max(12),
  countInBeats: z.number().int().min(0).max(16),
  vibrato: z.enum(['free', 'wanted', 'none']),
  notes: z.array(scoreNoteSchema).min(1),
});
export type Score = z.infer<typeof scoreSchema>;
export type Dynamic = ScoreNote['dynamic'];
export type VibratoWish = Score['vibrato'];

/** Length in seconds of a number of beats. A free score is read at 60 beats a minute. */
export function beatsToSeconds(score: Score, beats: number): number {
  return (beats * 60) / (score.tempo ?? 60);
}

export function scoreBeats(score: Score): number {
  return Math.max(...score.notes.map((note) => note.startBeat + note.beats));
}
