import type { Bar } from '@/core/music';
import type { Spelling } from '@/core/tuning';

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

/**
 * The signs to be set before each token of a bar, one a head; null where the key or an earlier sign of the bar says it already.
 * @param spelled the heads of a note, from the lowest.
 */
export function accidentalsOf(
  bar: Bar,
  spelled: (note: number) => readonly Spelling[],
  fifths: number,
): (string | null)[][] {
  const now = new Map<string, number>();
  return bar.tokens.map((token) =>
    token.note === null
      ? []
      : spelled(token.note).map(({ step, alter, octave }) => {
          const place = `${step}${octave}`;
          const current = now.get(place) ?? inKey(step, fifths);
          if ((!token.first && !now.has(place)) || current === alter) return null;
          now.set(place, alter);
          return SIGNS[String(alter)] ?? null;
        }),
  );
}

/** Fills lines with bars, each as many as fit. @param widthOf what a bar takes, first of its line or not. */
export function linesOf(
  bars: number,
  available: number,
  widthOf: (bar: number, isFirst: boolean) => number,
): number[][] {
  const lines: number[][] = [];
  let used = Infinity;
  for (let bar = 0; bar < bars; bar++) {
    if (used + widthOf(bar, false) > available) {
      lines.push([]);
      used = 0;
    }
    const line = lines[lines.length - 1]!;
    used += widthOf(bar, line.length === 0);
    line.push(bar);
  }
  return lines;
}
