import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import type { Finding } from '@/core/verdict';
import { Body, Soft } from '@/ui';
import { fonts, usePalette } from '@/ui';

/** What was measured, a line each: what it is, the sentence, the figure with its unit. A tap tells what it means. */
export function Findings({ findings }: { findings: readonly Finding[] }) {
  const [open, setOpen] = useState<string | null>(null);
  return (
    <View role="list">
      {findings.map((finding) => (
        <FindingRow
          key={finding.id}
          finding={finding}
          open={open === finding.id}
          onPress={() => setOpen(open === finding.id ? null : finding.id)}
        />
      ))}
    </View>
  );
}

function FindingRow({ finding, open, onPress }: { finding: Finding; open: boolean; onPress: () => void }) {
  const palette = usePalette();
  return (
    <View role="listitem">
      <Pressable
        role="button"
        aria-expanded={open}
        testID={`finding-${finding.id}`}
        onPress={onPress}
        style={[styles.row, { borderBottomColor: palette.hairline }]}
      >
        <View style={styles.line}>
          <View style={styles.words}>
            <Soft>{finding.label}</Soft>
            <Body>{finding.sentence}</Body>
          </View>
          {finding.value === null ? null : (
            <View style={styles.figure}>
              <Body style={styles.value} testID={`value-${finding.id}`}>
                {finding.value}
              </Body>
              <Soft style={styles.unit}>{finding.unit}</Soft>
            </View>
          )}
        </View>
        {open ? <Soft>{finding.meaning}</Soft> : null}
      </Pressable>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { borderBottomWidth: 1, paddingVertical: 9, gap: 4 },
  line: { flexDirection: 'row', gap: 14, alignItems: 'flex-end' },
  words: { flex: 1 },
  figure: { alignItems: 'flex-end', maxWidth: 130 },
  value: { fontFamily: fonts.bold, fontSize: 19 },
  unit: { textAlign: 'right' },
});
