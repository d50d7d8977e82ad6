import type { Midi } from '@/core/base';
import { useNoteName } from '../naming';
import { useState } from 'react';
import { StyleSheet, View, type GestureResponderEvent } from 'react-native';
import { G, Rect, Text as SvgText } from 'react-native-svg';
import { registerOf, type Instrument } from '@/core/instruments';
import { spokenName } from '@/core/tuning';
import { keyHandler } from '../controls';
import { fonts, usePalette } from '../theme';
import { BORE_WIDTH, boreKey, boreScale, BoreTube, TUBE } from './BoreTube';

interface BoreProps {
  readonly instrument: Instrument;
  readonly value: Midi;
  readonly onChange: (written: Midi) => void;
  readonly height: number;
  readonly label?: string;
}

/** One note, chosen on the bore. */
export function Bore({ instrument, value, onChange, height, label = 'Note' }: BoreProps) {
  const nameOf = useNoteName();
  const palette = usePalette();
  const [focused, setFocused] = useState(false);
  const { low, high, y, noteAt } = boreScale(instrument, height);
  const choose = (event: GestureResponderEvent) => onChange(noteAt(event.nativeEvent.locationY));
  const centre = (TUBE.left + TUBE.right) / 2;
  return (
    <View
      role="slider"
      aria-label={label}
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
        const to = boreKey(key, instrument.step);
        if (to === null) return false;
        const wanted = to === 'low' ? low : to === 'high' ? high : value + to;
        onChange(Math.min(high, Math.max(low, wanted)));
        return true;
      })}
      style={[
        styles.bore,
        { width: BORE_WIDTH, height, borderColor: focused ? palette.gold : 'transparent' },
      ]}
    >
      <BoreTube instrument={instrument} height={height} chosen={(note) => note === value}>
        <G>
          <Rect x={centre - 18} y={y(value) - 4} width={36} height={8} rx={3} fill={palette.gold} />
          <SvgText
            x={TUBE.right + 5}
            y={y(value) + 6}
            fill={palette.goldText}
            fontFamily={fonts.bold}
            fontSize={18}
          >
            {nameOf(value)}
          </SvgText>
        </G>
      </BoreTube>
    </View>
  );
}

const styles = StyleSheet.create({
  bore: { borderWidth: 2, borderRadius: 6, cursor: 'pointer' },
});
