import Svg, { Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import type { ReactNode } from 'react';
import type { Midi } from '@/core/base';
import { seamsOf, writtenRange, type Instrument } from '@/core/instruments';
import { fonts, usePalette } from '../theme';

export const BORE_WIDTH = 158;
export const TUBE = { left: 62, right: 118, flare: 7 };
const PAD = 12;
const OCTAVE = 12;

/** Where notes lie along an upright bore, lowest at the bottom, and which note lies where. */
export function boreScale(instrument: Instrument, height: number) {
  const { low, high } = writtenRange(instrument);
  const semitone = (height - 2 * PAD) / (high - low);
  const snap = (note: number) => low + Math.round((note - low) / instrument.step) * instrument.step;
  return {
    low,
    high,
    y: (note: Midi) => height - PAD - (note - low) * semitone,
    noteAt: (y: number) => Math.min(high, Math.max(low, snap(low + (height - PAD - y) / semitone))),
  };
}

/** Keys that move along a bore: by how much, or to which end. */
export function boreKey(key: string, step: number): number | 'low' | 'high' | null {
  const by = {
    ArrowUp: step,
    ArrowRight: step,
    ArrowDown: -step,
    ArrowLeft: -step,
    PageUp: OCTAVE,
    PageDown: -OCTAVE,
  }[key];
  return by ?? (key === 'Home' ? 'low' : key === 'End' ? 'high' : null);
}

interface BoreTubeProps {
  readonly instrument: Instrument;
  readonly height: number;
  /** Notes that are set in gold. */
  readonly chosen: (note: Midi) => boolean;
  readonly children?: ReactNode;
}

/** The instrument's range as one upright column: registers as lengths of it, seams as lines across, notes as marks. */
export function BoreTube({ instrument, height, chosen, children }: BoreTubeProps) {
  const palette = usePalette();
  const { low, high, y } = boreScale(instrument, height);
  const centre = (TUBE.left + TUBE.right) / 2;
  return (
    <Svg width={BORE_WIDTH} height={height} pointerEvents="none">
      <Path
        d={`M${TUBE.left + TUBE.flare} 1 H${TUBE.right - TUBE.flare} L${TUBE.right} ${height - 1} H${TUBE.left} Z`}
        fill={palette.leaf}
        stroke={palette.hairline}
      />
      {instrument.registers.map((register) => (
        <SvgText
          key={register.id}
          x={0}
          y={(y(register.low) + y(register.high)) / 2 + 5}
          fill={palette.softInk}
          fontFamily={fonts.text}
          fontSize={13}
        >
          {register.name}
        </SvgText>
      ))}
      {Array.from({ length: Math.floor(high - low) + 1 }, (_, i) => low + i).map((note) => (
        <Rect
          key={note}
          x={centre - (isNatural(note) ? 9 : 5)}
          y={y(note) - 1.25}
          width={isNatural(note) ? 18 : 10}
          height={2.5}
          rx={1}
          fill={chosen(note) ? palette.gold : palette.softInk}
        />
      ))}
      {seamsOf(instrument).map(({ below, above }) => (
        <Line
          key={below}
          x1={TUBE.left - 6}
          x2={TUBE.right + 6}
          y1={(y(below) + y(above)) / 2}
          y2={(y(below) + y(above)) / 2}
          stroke={palette.gold}
          strokeWidth={1.5}
          strokeDasharray="5 4"
        />
      ))}
      {children}
    </Svg>
  );
}

const isNatural = (note: Midi) => [0, 2, 4, 5, 7, 9, 11].includes(Math.floor(note) % OCTAVE);
