import { writtenRange, type Instrument } from '@/core/instruments';
import type { Midi } from '@/core/tuning';
import { scoreSchema } from '@/core/music';
import * as z from 'zod';

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

/** A line by its notes as the instrument would have them written. */
export function lineOf(id: string, name: string, written: readonly Midi[], instrument: Instrument): Line {
  const { low, high } = writtenRange(instrument);
  const within = written.filter((note) => note >= low && note <= high).length;
  return {
    id,
    name,
    notes: written.length,
    low: Math.min(...written),
    high: Math.max(...written),
    fits: within / Math.max(1, written.length),
  };
}

/** Words of an instrument's name that a part may be called by: "alto saxophone" is found in "Alto Sax". */
const wordsOf = (text: string) =>
  text
    .toLowerCase()
    .split(/[^a-zà-ÿ]+/)
    .filter((word) => word.length > 2)
    .map((word) => word.slice(0, 4));

function calledLike(name: string, instrument: Instrument): number {
  const own = wordsOf(instrument.name);
  const theirs = wordsOf(name);
  return own.filter((word) => theirs.includes(word)).length / Math.max(1, own.length);
}

/** The best line for an instrument first: by its name, by what the instrument has of it, by how much there is to play. */
export function inOrder(lines: readonly Line[], instrument: Instrument): Line[] {
  const most = Math.max(1, ...lines.map(({ notes }) => notes));
  const worth = (line: Line) => 2 * calledLike(line.name, instrument) + line.fits + 0.5 * (line.notes / most);
  return [...lines].sort((a, b) => worth(b) - worth(a));
}

/** "2 grace notes", "one voice". */
const counted = (count: number, one: string, many: string) =>
  count === 1 ? `one ${one}` : `${count} ${many}`;

/** Things that were left out, as one sentence. */
export function leftOut(
  parts: readonly (readonly [count: number, one: string, many: string])[],
): string | null {
  const said = parts.filter(([count]) => count > 0).map(([count, one, many]) => counted(count, one, many));
  if (said.length === 0) return null;
  const last = said.pop()!;
  return `Left out: ${said.length > 0 ? `${said.join(', ')} and ${last}` : last}.`;
}
