import * as z from 'zod';
import { warmthSchema } from '@/core/take';
import type { FigureId } from '@/core/verdict';
import { sparkSchema } from './spark';

/**
 * By which version of measuring and judging a row was made. Raise it when a figure changes its meaning or gets better: rows of
 * before are then made again from their takes.
 */
export const MEASURED_BY = 4;

/** A figure of a take as a whole: value, standard deviation, readings, and of how many where it is a count. */
export type RowFigure = readonly [value: number, spread: number | null, n: number, of: number | null];
const isNumber = (each: unknown) => typeof each === 'number' && Number.isFinite(each);
const isNumberOrNull = (each: unknown) => each === null || isNumber(each);
/** A newer version's row may have more than are known here. */
export type RowFigures = Readonly<Partial<Record<FigureId, RowFigure>>>;
/** Looked through by hand: rows are read by the thousand. */
const rowFiguresSchema = z.custom<RowFigures>(
  (figures) =>
    typeof figures === 'object' &&
    figures !== null &&
    Object.values(figures).every(
      (row: unknown) =>
        Array.isArray(row) &&
        row.length === 4 &&
        isNumber(row[0]) &&
        isNumberOrNull(row[1]) &&
        isNumber(row[2]) &&
        isNumberOrNull(row[3]),
    ),
  { error: 'must be a value, its spread, readings and of how many, for each figure' },
);

/** One take as one row: what log, trends and comparisons read in place of the take itself. */
export const entrySchema = z.object({
  id: z.string().min(1),
  /** ISO 8601. */
  createdAt: z.string(),
  durationSeconds: z.number(),
  family: z.string(),
  title: z.string(),
  /** What the exercise was asked for; recordings that it was held against left out. */
  parameters: z.record(z.string(), z.unknown()),
  /** Beats a minute; null: free. */
  tempo: z.number().nullable(),
  instrumentId: z.string(),
  /** As it stands within a sentence. */
  instrumentName: z.string(),
  /** What was said first of it, by the limits and in the names of then. */
  headline: z.string(),
  /** By figure; a row of a newer version may have figures that are not known here. */
  figures: rowFiguresSchema,
  /** How many of each kind. */
  faults: z.record(z.string(), z.number().int()),
  spark: sparkSchema.nullable(),
  /** Sounding pitches that were heard, low to high. */
  heard: z.array(z.number().int()),
  exploring: z.boolean(),
  cue: z.string().nullable(),
  school: z.string().nullable(),
  reed: z.string(),
  room: z.string(),
  /** Pitch standard; null: in a row of a time when it was not written down. */
  a4: z.number().nullable(),
  slideMm: z.number().nullable(),
  temperatureC: z.number().nullable(),
  warmth: warmthSchema.nullable(),
  source: z.enum(['microphone', 'simulated', 'file', 'none']),
  remark: z.string(),
  /** Of the kept sound; 0: none was kept. */
  audioBytes: z.number(),
  measuredBy: z.number().int(),
});
export type Entry = z.infer<typeof entrySchema>;

/** Month that a take is filed under, UTC: `2026-11`. */
export const monthOf = (createdAt: string): string => createdAt.slice(0, 7);
