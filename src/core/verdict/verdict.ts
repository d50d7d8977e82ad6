import * as z from 'zod';

/** One figure as the player reads it. `value` is null when it is not known; the sentence then says why. */
export const findingSchema = z.object({
  id: z.string(),
  label: z.string(),
  value: z.string().nullable(),
  unit: z.string(),
  /** What was heard, in a plain sentence. */
  sentence: z.string(),
  /** What the figure means and how sure it is. */
  meaning: z.string(),
});
export type Finding = z.infer<typeof findingSchema>;

/** What is said about a take: sentences first, then numbers. */
export interface Verdict {
  readonly headline: string;
  readonly summary: string;
  readonly findings: readonly Finding[];
}
