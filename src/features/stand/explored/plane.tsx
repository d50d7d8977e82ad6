import { Line, Text as SvgText } from 'react-native-svg';
import { fonts, usePalette } from '@/ui';

/** Room that a drawing of what is explored stands in, CSS pixels. */
export interface Room {
  readonly width: number;
  readonly height: number;
}

/** From a span of values to a span of the drawing, going on straight outside of it. */
export const scaled =
  ([from, to]: readonly [number, number], [start, end]: readonly [number, number]) =>
  (value: number): number =>
    start + ((end - start) * (value - from)) / (to - from);

/** Read from a metre away. */
export const TEXT = 17;

interface MarkProps {
  readonly x: number;
  readonly y: number;
  readonly text: string;
  readonly anchor?: 'start' | 'middle' | 'end';
  /** What is found, and not only where it stands. */
  readonly found?: boolean;
}

export function Mark({ x, y, text, anchor = 'start', found = false }: MarkProps) {
  const palette = usePalette();
  return (
    <SvgText
      x={x}
      y={y}
      textAnchor={anchor}
      fontSize={TEXT}
      fontFamily={found ? fonts.bold : fonts.text}
      fill={found ? palette.goldText : palette.softInk}
    >
      {text}
    </SvgText>
  );
}

interface RuleProps {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly found?: boolean;
}

/** A line that something is held against: plain where it is asked, gold and broken where it was found. */
export function Rule({ from, to, found = false }: RuleProps) {
  const palette = usePalette();
  return (
    <Line
      x1={from[0]}
      y1={from[1]}
      x2={to[0]}
      y2={to[1]}
      stroke={found ? palette.gold : palette.softInk}
      {...(found && { strokeDasharray: '14 4 2 4' })}
      strokeWidth={found ? 1.6 : 1}
    />
  );
}
