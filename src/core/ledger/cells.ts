import * as z from 'zod';
import type { Cents, Decibels, Midi, Seconds } from '@/core/base';
import { dynamicSchema, type Dynamic } from '@/core/music';
import { CRACKS, type Crossing } from './crossing';

/** How one written note lay in one take, at one dynamic, come to one way. */
export interface NoteCell {
  readonly written: Midi;
  readonly dynamic: Dynamic;
  /** Come to from below (1) or above (−1); 0: begun anew. */
  readonly from: -1 | 0 | 1;
  readonly slurred: boolean;
  /** How often it was played. */
  readonly n: number;
  readonly seconds: Seconds;
  /** Mean distance from the pitch that was asked. */
  readonly cents: Cents;
  /** Median RMS about its own trend; null: too short to say. */
  readonly wobbleCents: Cents | null;
  /** Null: not known, or the gain was controlled. */
  readonly levelDb: Decibels | null;
}

/** What one take adds to what is known of its instrument. */
export interface TakeCells {
  readonly notes: readonly NoteCell[];
  readonly crossings: readonly Crossing[];
}

const DYNAMICS = dynamicSchema.options;
const NOTE_COLUMNS = 9;
const CROSSING_COLUMNS = 14;
/** Looked through by hand: a schema for each of a million numbers takes longer than reading them. */
const tableOf = (columns: number) =>
  z.custom<(number | null)[]>(
    (flat) =>
      Array.isArray(flat) &&
      flat.length % columns === 0 &&
      flat.every((each) => each === null || typeof each === 'number'),
    { error: `must have ${columns} numbers a row` },
  );

/** A take's cells as they are stored: rows of numbers one after the other, in the order of `NoteCell` and of `Crossing`. */
export const packedCellsSchema = z.object({
  notes: tableOf(NOTE_COLUMNS),
  crossings: tableOf(CROSSING_COLUMNS),
});
export type PackedCells = z.infer<typeof packedCellsSchema>;

const rounded = (value: number | null, decimals = 1) =>
  // The zero is for minus nothing, which is not stored.
  value === null ? null : Math.round(value * 10 ** decimals) / 10 ** decimals + 0;

/** The cells of a take as rows of plain values, which is how they are stored: keys would be most of it. Levels and pitches to 0.1. */
export function packed({ notes, crossings }: TakeCells): PackedCells {
  return {
    notes: notes.flatMap((cell) => [
      cell.written,
      DYNAMICS.indexOf(cell.dynamic),
      cell.from,
      Number(cell.slurred),
      cell.n,
      rounded(cell.seconds),
      rounded(cell.cents),
      rounded(cell.wobbleCents),
      rounded(cell.levelDb),
    ]),
    crossings: crossings.flatMap((each) => [
      each.from,
      each.to,
      DYNAMICS.indexOf(each.dynamic),
      rounded(each.atSeconds, 2),
      Number(each.heard),
      Number(each.cracked),
      rounded(each.spreadDb, 2),
      rounded(each.dipDb, 2),
      rounded(each.bumpDb, 2),
      rounded(each.slurMs),
      rounded(each.overshootCents, 2),
      rounded(each.stepDb, 2),
      rounded(each.intervalCents, 2),
      each.crackedBy === null ? null : CRACKS.indexOf(each.crackedBy),
    ]),
  };
}

/** Crossings as they were stored before it was written down what had cracked. */
export function withoutCracks(packed: { notes: unknown; crossings: readonly unknown[] }): unknown {
  const before = CROSSING_COLUMNS - 1;
  const crossings = packed.crossings.flatMap((each, i) =>
    i % before === before - 1 ? [each, null] : [each],
  );
  return { ...packed, crossings };
}

function* rowsOf(flat: readonly (number | null)[], columns: number) {
  for (let at = 0; at < flat.length; at += columns) yield flat.slice(at, at + columns);
}

/** The cells of a take from the columns that they are stored in. */
export function unpacked({ notes, crossings }: PackedCells): TakeCells {
  const dynamic = (index: number | null | undefined) => DYNAMICS[index ?? -1] ?? 'mf';
  return {
    notes: Array.from(rowsOf(notes, NOTE_COLUMNS), ([written, loud, from, slurred, n, seconds, ...rest]) => ({
      written: written ?? 0,
      dynamic: dynamic(loud),
      from: Math.sign(from ?? 0) as -1 | 0 | 1,
      slurred: slurred === 1,
      n: n ?? 0,
      seconds: seconds ?? 0,
      cents: rest[0] ?? 0,
      wobbleCents: rest[1] ?? null,
      levelDb: rest[2] ?? null,
    })),
    crossings: Array.from(
      rowsOf(crossings, CROSSING_COLUMNS),
      ([from, to, loud, at, heard, cracked, ...rest]) => ({
        from: from ?? 0,
        to: to ?? 0,
        dynamic: dynamic(loud),
        atSeconds: at ?? 0,
        heard: heard === 1,
        cracked: cracked === 1,
        spreadDb: rest[0] ?? 0,
        dipDb: rest[1] ?? null,
        bumpDb: rest[2] ?? null,
        slurMs: rest[3] ?? null,
        overshootCents: rest[4] ?? null,
        stepDb: rest[5] ?? null,
        intervalCents: rest[6] ?? null,
        crackedBy: CRACKS[rest[7] ?? -1] ?? null,
      }),
    ),
  };
}
