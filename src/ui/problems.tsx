import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Notice } from './notice';

/**
 * Tells of whatever was asked for and failed without anyone waiting to hear of it: over the page, until it is put away.
 * A failure that a page tells of itself does not come here.
 */
export function Problems() {
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    const tell = ({ reason }: PromiseRejectionEvent) =>
      setProblem(reason instanceof Error ? reason.message : String(reason));
    window.addEventListener('unhandledrejection', tell);
    return () => window.removeEventListener('unhandledrejection', tell);
  }, []);
  return problem === null ? null : (
    <View style={styles.over}>
      <Notice
        problem
        testID="failed"
        text={problem}
        action={{ label: 'Put this away', onPress: () => setProblem(null) }}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  over: { position: 'absolute', left: 12, right: 12, bottom: 84, maxWidth: 640 },
});
