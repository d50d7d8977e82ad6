import { useMemo } from 'react';
import Svg, { Path } from 'react-native-svg';
import type { Dynamic, Score } from '@/core/music';
import { usePalette } from '@/ui';

const WIDTH = 76;
const HEIGHT = 40;
const MOST_BEATS = 24;
/** A note lies no higher over another than this a semitone, so that a hold beside a neighbour stays nearly level. */
const MOST_RISE = 4;
const THICK: Readonly<Record<Dynamic, number>> = { pp: 1.2, p: 1.8, mp: 2.4, mf: 3, f: 4, ff: 5.2 };
const GROWN = 4.6;
const FADED = 0.7;
const GAP = 1.2;

interface Strip {
  readonly x: number;
  readonly width: number;
  readonly y: number;
  /** At its beginning, its middle and its end. */
  readonly thick: readonly [number, number, number];
}

/** What of a row falls into its first beats, counted from its own beginning. */
function beginningOf<T extends { readonly startBeat: number; readonly beats: number }>(row: readonly T[]) {
  const from = row[0]?.startBeat ?? 0;
  const end = Math.max(...row.map(({ startBeat, beats }) => startBeat + beats)) - from;
  const beats = Math.max(1, Math.min(MOST_BEATS, end));
  const shown = row.filter(({ startBeat }) => startBeat - from < beats);
  const x = (beat: number) => (WIDTH * Math.min(beats, beat - from)) / beats;
  return { shown, x };
}

const airStrips = (pictures: Score['pictures']): Strip[] => {
  const { shown, x } = beginningOf(pictures);
  return shown.map(({ startBeat, beats, shape, from, to }) => ({
    x: x(startBeat),
    width: x(startBeat + beats) - x(startBeat) - GAP,
    y: shape === 'in' ? 0.7 * HEIGHT : 0.4 * HEIGHT,
    thick: shape === 'rest' ? [0.4, 0.4, 0.4] : [1 + 8 * from, 1 + 4 * (from + to), 1 + 8 * to],
  }));
};

/** The beginning of a score as strokes: as long as notes are, as high as they lie, as thick as they are loud. */
function stripsOf({ notes, pictures }: Score): Strip[] {
  if (notes.length === 0) return airStrips(pictures);
  const { shown, x } = beginningOf(notes);
  const pitches = shown.map(({ written }) => written);
  const [low, high] = [Math.min(...pitches), Math.max(...pitches)];
  const rise = Math.min(MOST_RISE, (HEIGHT - 8) / Math.max(1, high - low));
  const middle = (low + high) / 2;
  return shown.map(({ written, startBeat, beats, dynamic, hairpin }, i) => {
    const loud = THICK[dynamic];
    const shapes = {
      grow: [FADED, loud, GROWN],
      fade: [loud, loud / 2, FADED],
      swell: [FADED, GROWN, FADED],
    } as const;
    const gap = shown[i + 1]?.attack === 'none' ? 0 : GAP;
    return {
      x: x(startBeat),
      width: Math.max(1, x(startBeat + beats) - x(startBeat) - gap),
      y: HEIGHT / 2 - rise * (written - middle),
      thick: hairpin ? shapes[hairpin] : [loud, loud, loud],
    };
  });
}

const outline = ({ x, width, y, thick: [from, mid, to] }: Strip): string =>
  `M${x} ${y - from / 2}L${x + width / 2} ${y - mid / 2}L${x + width} ${y - to / 2}V${y + to / 2}L${x + width / 2} ${y + mid / 2}L${x} ${y + from / 2}Z`;

/** What an exercise looks like, for the eye that knows it again; its name stands beside it. */
export function ScoreSketch({ score }: { score: Score }) {
  const palette = usePalette();
  const path = useMemo(() => stripsOf(score).map(outline).join(''), [score]);
  return (
    <Svg width={WIDTH} height={HEIGHT} aria-hidden>
      <Path d={path} fill={palette.goldText} />
    </Svg>
  );
}
