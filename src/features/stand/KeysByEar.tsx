import { StyleSheet, View } from 'react-native';
import type { KeyPhrase } from '@/core/music';
import { Soft, Title, usePalette } from '@/ui';

interface KeysByEarProps {
  readonly phrase: KeyPhrase;
  readonly next: KeyPhrase | null;
}

/** Instead of the notes: the key that the phrase is to be played in now, and the next one to be heard inwardly. */
export function KeysByEar({ phrase, next }: KeysByEarProps) {
  const palette = usePalette();
  return (
    <View style={styles.whole} testID="by-ear">
      <Soft>The same phrase, by ear, in</Soft>
      <Title style={{ fontSize: 40, lineHeight: 48, color: palette.goldText }}>{phrase.name}</Title>
      {next ? <Soft>{`then ${next.name}`}</Soft> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  whole: { alignItems: 'center', justifyContent: 'center', gap: 6, padding: 16 },
});
