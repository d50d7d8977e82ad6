import { useState } from 'react';
import { Pressable, StyleSheet, Text } from 'react-native';
import { fonts, usePalette } from './theme';

interface ButtonProps {
  readonly label: string;
  readonly onPress: () => void;
  /** `main` is the screen's one golden action; `strong` ink on paper; `plain` an outline; `quiet` a word. */
  readonly look?: 'main' | 'strong' | 'plain' | 'quiet';
  /** On the stand: large enough to be hit at arm's length. */
  readonly large?: boolean;
  readonly disabled?: boolean;
  readonly grow?: number;
  /** One of several that are on or off. */
  readonly pressed?: boolean;
  readonly spoken?: string;
  readonly testID?: string;
}

export function Button({
  label,
  onPress,
  look = 'plain',
  large,
  disabled,
  grow,
  pressed: isOn,
  spoken,
  testID,
}: ButtonProps) {
  const palette = usePalette();
  const [focused, setFocused] = useState(false);
  const fill = { main: palette.gold, strong: palette.ink, plain: 'transparent', quiet: 'transparent' }[look];
  const ink = { main: palette.onGold, strong: palette.paper, plain: palette.ink, quiet: palette.goldText }[
    look
  ];
  return (
    <Pressable
      role="button"
      aria-label={spoken ?? label}
      aria-pressed={isOn}
      testID={testID}
      disabled={disabled}
      onPress={onPress}
      onFocus={() => setFocused(true)}
      onBlur={() => setFocused(false)}
      style={({ pressed }) => [
        styles.base,
        large && styles.large,
        look === 'quiet' && styles.quiet,
        grow !== undefined && { flexGrow: grow, flexBasis: 0 },
        {
          backgroundColor: fill,
          borderColor: focused ? palette.goldText : look === 'plain' ? palette.hairline : 'transparent',
          opacity: disabled ? 0.45 : pressed ? 0.8 : 1,
        },
      ]}
    >
      <Text
        style={[
          styles.label,
          (look === 'main' || look === 'strong') && styles.display,
          look === 'quiet' && styles.bold,
          large && styles.largeLabel,
          { color: ink },
        ]}
      >
        {label}
      </Text>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  base: {
    minHeight: 48,
    maxWidth: '100%',
    paddingHorizontal: 18,
    borderRadius: 16,
    borderWidth: 2,
    alignItems: 'center',
    justifyContent: 'center',
  },
  large: { minHeight: 68, borderRadius: 20 },
  quiet: {
    paddingHorizontal: 0,
    minHeight: 44,
    alignItems: 'flex-start',
    borderWidth: 0,
    borderBottomWidth: 2,
    borderRadius: 0,
    alignSelf: 'flex-start',
  },
  label: { fontFamily: fonts.medium, fontSize: 17, textAlign: 'center' },
  display: { fontFamily: fonts.display, fontSize: 18 },
  bold: { fontFamily: fonts.bold },
  largeLabel: { fontSize: 21 },
});
