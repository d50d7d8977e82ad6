import type { Midi } from '@/core/base';
import { writtenRange, type Instrument } from '@/core/instruments';
import type { Line } from '@/core/music';

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
