import { useState } from 'react';
import { Pressable, StyleSheet, Text, View } from 'react-native';
import { radioGroupProps, radioProps } from './radios';
import { Soft } from './text';
import { fonts, usePalette } from './theme';

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly options: readonly { readonly value: T; readonly label: string }[];
  readonly value: T;
  readonly onChange: (value: T) => void;
}

/** One of a few. The chosen one is underlined in gold and bold, not only coloured. */
export function Choice<T extends string>({ label, options, value, onChange }: ChoiceProps<T>) {
  const palette = usePalette();
  const values = options.map((option) => option.value);
  return (
    <View {...radioGroupProps(label, values, onChange)} style={styles.group}>
      <Soft>{label}</Soft>
      <View style={styles.options}>
        {options.map((option) => {
          const chosen = option.value === value;
          return (
            <Pressable
              key={option.value}
              {...radioProps(values, value, option.value, onChange)}
              aria-label={option.label}
              style={[styles.option, { borderBottomColor: chosen ? palette.gold : 'transparent' }]}
            >
              <Text
                style={[
                  styles.optionLabel,
                  chosen && styles.bold,
                  { color: chosen ? palette.ink : palette.softInk },
                ]}
              >
                {option.label}
              </Text>
            </Pressable>
          );
        })}
      </View>
    </View>
  );
}

interface StepperProps {
  readonly label: string;
  readonly value: number;
  readonly low: number;
  readonly high: number;
  readonly step?: number;
  /** How the value reads: `8 beats`. */
  readonly text: string;
  readonly onChange: (value: number) => void;
}

/** A number with a key on each side; arrow keys work too. */
export function Stepper({ label, value, low, high, step = 1, text, onChange }: StepperProps) {
  const palette = usePalette();
  const [focused, setFocused] = useState(false);
  const move = (by: number) => onChange(Math.min(high, Math.max(low, value + by)));
  const key = (sign: string, by: number, spoken: string, disabled: boolean) => (
    <Pressable
      role="button"
      aria-label={`${label}: ${spoken}`}
      disabled={disabled}
      tabIndex={-1}
      onPress={() => move(by)}
      style={({ pressed }) => [
        styles.key,
        { borderColor: palette.hairline, opacity: disabled ? 0.35 : pressed ? 0.6 : 1 },
      ]}
    >
      <Text style={[styles.sign, { color: palette.ink }]}>{sign}</Text>
    </Pressable>
  );
  return (
    <View style={styles.group}>
      <Soft>{label}</Soft>
      <View style={styles.stepper}>
        {key('−', -step, 'less', value <= low)}
        <View
          role="spinbutton"
          aria-label={label}
          aria-valuenow={value}
          aria-valuemin={low}
          aria-valuemax={high}
          aria-valuetext={text}
          tabIndex={0}
          onFocus={() => setFocused(true)}
          onBlur={() => setFocused(false)}
          {...keyHandler((name) => {
            if (name === 'ArrowUp' || name === 'ArrowRight') move(step);
            else if (name === 'ArrowDown' || name === 'ArrowLeft') move(-step);
            else return false;
            return true;
          })}
          style={[styles.reading, { borderBottomColor: focused ? palette.gold : 'transparent' }]}
        >
          <Text style={[styles.value, { color: palette.ink }]}>{text}</Text>
        </View>
        {key('+', step, 'more', value >= high)}
      </View>
    </View>
  );
}

interface KeyPress {
  readonly key: string;
  preventDefault(): void;
}

/** A key handler as a prop; React Native's types do not know it on views, the web does. */
export function keyHandler(handle: (key: string) => boolean): object {
  return {
    onKeyDown: (event: KeyPress) => {
      if (handle(event.key)) event.preventDefault();
    },
  };
}

const styles = StyleSheet.create({
  group: { gap: 2 },
  options: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 18 },
  option: { minHeight: 44, justifyContent: 'center', borderBottomWidth: 3 },
  optionLabel: { fontFamily: fonts.text, fontSize: 17 },
  bold: { fontFamily: fonts.bold },
  stepper: { flexDirection: 'row', alignItems: 'center', gap: 4 },
  key: {
    width: 44,
    height: 44,
    borderRadius: 14,
    borderWidth: 1,
    alignItems: 'center',
    justifyContent: 'center',
  },
  sign: { fontFamily: fonts.medium, fontSize: 22, lineHeight: 26 },
  reading: {
    minWidth: 88,
    minHeight: 44,
    alignItems: 'center',
    justifyContent: 'center',
    borderBottomWidth: 2,
  },
  value: { fontFamily: fonts.bold, fontSize: 18, fontVariant: ['lining-nums', 'tabular-nums'] },
});
