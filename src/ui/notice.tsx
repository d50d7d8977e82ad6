import { View, StyleSheet } from 'react-native';
import { Button } from './button';
import { Body } from './text';
import { usePalette } from './theme';

interface NoticeProps {
  readonly text: string;
  readonly action?: { readonly label: string; readonly onPress: () => void };
  /** Something went wrong: it is announced at once and marked with a word. */
  readonly problem?: boolean;
  readonly testID?: string;
}

/** One thing the player should know, with at most one thing to do about it. */
export function Notice({ text, action, problem, testID }: NoticeProps) {
  const palette = usePalette();
  return (
    <View
      role={problem ? 'alert' : 'status'}
      testID={testID}
      style={[styles.box, { backgroundColor: palette.leaf, borderColor: palette.hairline }]}
    >
      <Body style={styles.text}>{text}</Body>
      {action ? <Button look="quiet" label={action.label} onPress={action.onPress} /> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  box: { borderWidth: 1, borderRadius: 16, paddingHorizontal: 16, paddingVertical: 10, gap: 2 },
  text: { flexShrink: 1 },
});
