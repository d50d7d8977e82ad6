import { StyleSheet, Text, View } from 'react-native';
import type { StandState } from './standState';
import { fonts, Notice, Soft, stage } from '@/ui';

/** Heights of the word and two lines under it, so that nothing moves when a hint is long. */
export const WORDS_ROOM = { low: 116, high: 156 } as const;

interface WordsProps {
  readonly state: StandState;
  readonly caution: string | null;
  /** Where there is little room. */
  readonly small: boolean;
}

/** The one word, to be read from a metre away. */
export function Words({ state, caution, small }: WordsProps) {
  const long = state.word.length > 8;
  return (
    <View style={[styles.words, { minHeight: WORDS_ROOM[small ? 'low' : 'high'] }]} aria-live="polite">
      <Text
        testID="word"
        style={[styles.word, small && styles.lowWord, long && styles.longWord]}
        numberOfLines={1}
      >
        {state.word}
      </Text>
      <Soft style={styles.hint} testID="hint">
        {state.hint}
      </Soft>
      {caution ? (
        <Soft style={styles.caution} testID="caution">
          {caution}
        </Soft>
      ) : null}
      {state.problem ? <Notice problem text={state.problem} testID="problem" /> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  words: { alignItems: 'center', gap: 2, justifyContent: 'center' },
  word: {
    fontFamily: fonts.display,
    fontSize: 76,
    lineHeight: 88,
    color: stage.ink,
    textAlign: 'center',
    fontVariant: ['lining-nums', 'tabular-nums'],
  },
  lowWord: { fontSize: 54, lineHeight: 62 },
  longWord: { fontSize: 46, lineHeight: 56 },
  hint: { fontSize: 20, lineHeight: 26, textAlign: 'center' },
  caution: { fontSize: 16, lineHeight: 20, textAlign: 'center' },
});
