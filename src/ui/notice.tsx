import { View, StyleSheet } from 'react-native';
import { Button } from './button';
import { Body } from './text';
import { usePalette } from './theme';

interface NoticeProps {
  readonly text: string;
  readonly action?: { readonly label: string; readonly onPress: () => void };
  /** A second way on. */
  readonly other?: { readonly label: string; readonly onPress: () => void };
  /** Something went wrong: it is announced at once and marked with a word. */
  readonly problem?: boolean;
  readonly testID?: string;
}

/** One thing the player should know, and what can be done about it. */
export function Notice({ text, action, other, problem, testID }: NoticeProps) {
  const palette = usePalette();
  return (
    <View
      role={problem ? 'alert' : 'status'}
      testID={testID}
      style={[styles.box, { backgroundColor: palette.leaf, borderColor: palette.hairline }]}
    >
      <Body style={styles.text}>{text}</Body>
      {[action, other].map((each) =>
        each ? <Button key={each.label} look="quiet" label={each.label} onPress={each.onPress} /> : null,
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  box: { borderWidth: 1, borderRadius: 16, paddingHorizontal: 16, paddingVertical: 10, gap: 2 },
  text: { flexShrink: 1 },
});
