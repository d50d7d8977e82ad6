import { useState } from 'react';
import { StyleSheet, View, type GestureResponderEvent } from 'react-native';
import Svg, { G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { registerOf, seamsOf, writtenRange, type Instrument } from '@/core/instruments';
import { displayName, spokenName, type Midi } from '@/core/tuning';
import { keyHandler } from '../controls';
import { fonts, usePalette } from '../theme';

interface BoreProps {
  readonly instrument: Instrument;
  readonly value: Midi;
  readonly onChange: (written: Midi) => void;
  readonly height: number;
}

const WIDTH = 158;
const TUBE = { left: 62, right: 118, flare: 7 };
const PAD = 12;
const OCTAVE = 12;

/** The instrument's range as one upright column, lowest note at the bottom; drawn to choose a note on. */
export function Bore({ instrument, value, onChange, height }: BoreProps) {
  const palette = usePalette();
  const [focused, setFocused] = useState(false);
  const { low, high } = writtenRange(instrument);
  const step = (height - 2 * PAD) / (high - low);
  const y = (note: Midi) => height - PAD - (note - low) * step;
  const choose = (event: GestureResponderEvent) => {
    const note = Math.round(low + (height - PAD - event.nativeEvent.locationY) / step);
    onChange(Math.min(high, Math.max(low, note)));
  };
  const move = (by: number) => onChange(Math.min(high, Math.max(low, value + by)));
  const centre = (TUBE.left + TUBE.right) / 2;
  return (
    <View
      role="slider"
      aria-label="Note"
      aria-orientation="vertical"
      aria-valuemin={low}
      aria-valuemax={high}
      aria-valuenow={value}
      aria-valuetext={`${spokenName(value)}, ${registerOf(instrument, value).name} register`}
      tabIndex={0}
      testID="bore"
      onFocus={() => setFocused(true)}
      onBlur={() => setFocused(false)}
      onStartShouldSetResponder={() => true}
      onMoveShouldSetResponder={() => true}
      onResponderGrant={choose}
      onResponderMove={choose}
      {...keyHandler((key) => {
        const by = {
          ArrowUp: 1,
          ArrowRight: 1,
          ArrowDown: -1,
          ArrowLeft: -1,
          PageUp: OCTAVE,
          PageDown: -OCTAVE,
        }[key];
        if (by !== undefined) move(by);
        else if (key === 'Home') onChange(low);
        else if (key === 'End') onChange(high);
        else return false;
        return true;
      })}
      style={[styles.bore, { width: WIDTH, height, borderColor: focused ? palette.gold : 'transparent' }]}
    >
      <Svg width={WIDTH} height={height} pointerEvents="none">
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
        {Array.from({ length: high - low + 1 }, (_, i) => low + i).map((note) => (
          <Rect
            key={note}
            x={centre - (isNatural(note) ? 9 : 5)}
            y={y(note) - 1.25}
            width={isNatural(note) ? 18 : 10}
            height={2.5}
            rx={1}
            fill={note === value ? palette.gold : palette.softInk}
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
        <G>
          <Rect x={centre - 18} y={y(value) - 4} width={36} height={8} rx={3} fill={palette.gold} />
          <SvgText
            x={TUBE.right + 5}
            y={y(value) + 6}
            fill={palette.goldText}
            fontFamily={fonts.bold}
            fontSize={18}
          >
            {displayName(value)}
          </SvgText>
        </G>
      </Svg>
    </View>
  );
}

const isNatural = (note: Midi) => [0, 2, 4, 5, 7, 9, 11].includes(note % OCTAVE);

const styles = StyleSheet.create({
  bore: { borderWidth: 2, borderRadius: 6, cursor: 'pointer' },
});
