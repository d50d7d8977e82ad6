import type { ReactNode } from 'react';
import { StyleSheet, Text, type StyleProp, type TextStyle } from 'react-native';
import { fonts, usePalette } from './theme';

interface WordsProps {
  readonly children: ReactNode;
  readonly style?: StyleProp<TextStyle>;
  readonly testID?: string;
}

/** The screen's one heading. */
export function Title({ children, style, testID }: WordsProps) {
  const palette = usePalette();
  return (
    <Text role="heading" aria-level={1} testID={testID} style={[styles.title, { color: palette.ink }, style]}>
      {children}
    </Text>
  );
}

export function Heading({ children, style, testID }: WordsProps) {
  const palette = usePalette();
  return (
    <Text
      role="heading"
      aria-level={2}
      testID={testID}
      style={[styles.heading, { color: palette.ink }, style]}
    >
      {children}
    </Text>
  );
}

/** @param lines after so many it ends in an ellipsis. */
export function Body({ children, style, testID, lines }: WordsProps & { readonly lines?: number }) {
  const palette = usePalette();
  return (
    <Text testID={testID} numberOfLines={lines} style={[styles.body, { color: palette.ink }, style]}>
      {children}
    </Text>
  );
}

/** Captions, units and labels. */
export function Soft({ children, style, testID }: WordsProps) {
  const palette = usePalette();
  return (
    <Text testID={testID} style={[styles.soft, { color: palette.softInk }, style]}>
      {children}
    </Text>
  );
}

const styles = StyleSheet.create({
  title: { fontFamily: fonts.display, fontSize: 28, lineHeight: 34, fontVariant: ['lining-nums'] },
  heading: { fontFamily: fonts.display, fontSize: 19, lineHeight: 25, fontVariant: ['lining-nums'] },
  body: {
    fontFamily: fonts.text,
    fontSize: 17,
    lineHeight: 23,
    fontVariant: ['lining-nums', 'tabular-nums'],
  },
  soft: {
    fontFamily: fonts.text,
    fontSize: 15,
    lineHeight: 20,
    fontVariant: ['lining-nums', 'tabular-nums'],
  },
});
