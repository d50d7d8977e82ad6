import type { Bar } from '@/core/music';
import { spell, type Spelling } from '@/core/tuning';

/** Major keys by the number of their sharps, from seven flats to seven sharps, as the engraver calls them. */
const KEYS = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'] as const;
export const keyName = (fifths: number): string => KEYS[fifths + 7] ?? 'C';

const SHARPS = ['F', 'C', 'G', 'D', 'A', 'E', 'B'] as const;

/** Alteration that the key signature gives to a letter. */
function inKey(step: Spelling['step'], fifths: number): number {
  const place = SHARPS.indexOf(step);
  if (fifths > 0) return place < fifths ? 1 : 0;
  return 6 - place < -fifths ? -1 : 0;
}

/** Signs for alterations, as the engraver calls them; quarter-tones have signs of their own. */
const SIGNS: Readonly<Record<string, string>> = {
  '-1.5': 'db',
  '-1': 'b',
  '-0.5': 'd',
  '0': 'n',
  '0.5': '+',
  '1': '#',
  '1.5': '++',
  '2': '##',
  '-2': 'bb',
};

/** The sign to be set before each token of a bar, null where the key or an earlier sign of the bar says it already. */
export function accidentalsOf(
  bar: Bar,
  written: (note: number) => number,
  fifths: number,
): (string | null)[] {
  const now = new Map<string, number>();
  return bar.tokens.map((token) => {
    if (token.note === null) return null;
    const { step, alter, octave } = spell(written(token.note), fifths);
    const place = `${step}${octave}`;
    const current = now.get(place) ?? inKey(step, fifths);
    if (!token.first && !now.has(place)) return null;
    if (current === alter) return null;
    now.set(place, alter);
    return SIGNS[String(alter)] ?? null;
  });
}

/** Fills lines with bars, each as many as fit. @param head width of clef, key and (first line only) time. */
export function linesOf(
  widths: readonly number[],
  available: number,
  head: (line: number) => number,
): number[][] {
  const lines: number[][] = [];
  let used = Infinity;
  widths.forEach((width, i) => {
    if (used + width > available) {
      lines.push([]);
      used = head(lines.length - 1);
    }
    lines[lines.length - 1]!.push(i);
    used += width;
  });
  return lines;
}
