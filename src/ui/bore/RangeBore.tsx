import { useNoteName } from '../naming';
import { useRef, useState } from 'react';
import { StyleSheet, View, type GestureResponderEvent } from 'react-native';
import { G, Rect, Text as SvgText } from 'react-native-svg';
import type { NoteRange } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import { spokenName } from '@/core/tuning';
import { keyHandler } from '../controls';
import { fonts, usePalette } from '../theme';
import { BORE_WIDTH, boreKey, boreScale, BoreTube, TUBE } from './BoreTube';

interface RangeBoreProps {
  readonly instrument: Instrument;
  readonly value: NoteRange;
  readonly onChange: (range: NoteRange) => void;
  /** Semitones that the range spans at least. */
  readonly least: number;
  readonly height: number;
  readonly label: string;
}

const HANDLE = 44;

/** A stretch of the bore: its two ends are sliders; a finger moves the nearer one. */
export function RangeBore({ instrument, value, onChange, least, height, label }: RangeBoreProps) {
  const nameOf = useNoteName();
  const palette = usePalette();
  const [focused, setFocused] = useState<'low' | 'high' | null>(null);
  const moving = useRef<'low' | 'high'>('low');
  const { low, high, y, noteAt } = boreScale(instrument, height);
  const move = (end: 'low' | 'high', to: number) => {
    const wanted =
      end === 'low'
        ? Math.max(low, Math.min(to, value.high - least))
        : Math.min(high, Math.max(to, value.low + least));
    if (wanted !== value[end]) onChange({ ...value, [end]: wanted });
  };
  const grab = (event: GestureResponderEvent) => {
    const at = event.nativeEvent.locationY;
    moving.current = Math.abs(at - y(value.low)) <= Math.abs(at - y(value.high)) ? 'low' : 'high';
    move(moving.current, noteAt(at));
  };
  const centre = (TUBE.left + TUBE.right) / 2;
  return (
    <View
      role="group"
      aria-label={label}
      style={{ width: BORE_WIDTH, height, cursor: 'pointer' }}
      onStartShouldSetResponder={() => true}
      onMoveShouldSetResponder={() => true}
      onResponderGrant={grab}
      onResponderMove={(event) => move(moving.current, noteAt(event.nativeEvent.locationY))}
      testID="range-bore"
    >
      <BoreTube
        instrument={instrument}
        height={height}
        chosen={(note) => note >= value.low && note <= value.high}
      >
        {(['low', 'high'] as const).map((end) => (
          <G key={end}>
            <Rect x={centre - 18} y={y(value[end]) - 4} width={36} height={8} rx={3} fill={palette.gold} />
            <SvgText
              x={TUBE.right + 5}
              y={y(value[end]) + 6}
              fill={palette.goldText}
              fontFamily={fonts.bold}
              fontSize={18}
            >
              {nameOf(value[end])}
            </SvgText>
          </G>
        ))}
      </BoreTube>
      {(['high', 'low'] as const).map((end) => (
        <View
          key={end}
          role="slider"
          aria-label={`${label}: ${end === 'low' ? 'lowest' : 'highest'} note`}
          aria-orientation="vertical"
          aria-valuemin={low}
          aria-valuemax={high}
          aria-valuenow={value[end]}
          aria-valuetext={spokenName(value[end])}
          tabIndex={0}
          pointerEvents="none"
          onFocus={() => setFocused(end)}
          onBlur={() => setFocused(null)}
          {...keyHandler((key) => {
            const to = boreKey(key, instrument.step);
            if (to === null) return false;
            move(end, to === 'low' ? low : to === 'high' ? high : value[end] + to);
            return true;
          })}
          style={[
            styles.handle,
            { top: y(value[end]) - HANDLE / 2, borderColor: focused === end ? palette.gold : 'transparent' },
          ]}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  handle: {
    position: 'absolute',
    left: TUBE.left - 8,
    width: TUBE.right - TUBE.left + 16,
    height: HANDLE,
    borderWidth: 2,
    borderRadius: 6,
  },
});
