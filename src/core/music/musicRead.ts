import * as z from 'zod';
import { scoreSchema } from './score';

const lineSchema = z.object({
  /** What it is asked for by. */
  id: z.string(),
  name: z.string(),
  notes: z.number(),
  /** Its written compass for the instrument. */
  low: z.number(),
  high: z.number(),
  /** Share of its notes that the instrument has. */
  fits: z.number(),
});
/** One of the voices of a file that can be practised from. */
export type Line = z.infer<typeof lineSchema>;

export const musicReadSchema = z.object({
  score: scoreSchema,
  /** The fitting ones first. */
  lines: z.array(lineSchema),
  /** Which of them the score is. */
  line: z.string(),
  /** What was in that line and is not in the score, or was changed; null: nothing. */
  remark: z.string().nullable(),
});
/** A file that has been read: one of its lines as music, and which others there are. */
export type MusicRead = z.infer<typeof musicReadSchema>;
