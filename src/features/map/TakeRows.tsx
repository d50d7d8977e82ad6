import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Played } from '@/core/ledger';
import { Body, Button, Heading, momentText, RowLink, Soft, usePalette } from '@/ui';

interface TakeRowsProps {
  readonly title: string;
  /** Newest first. */
  readonly rows: readonly { readonly take: Played; readonly text: string }[];
}

const FIRST = 5;
const MORE = 30;

/** Takes that something is known from, each leading to its page and its sound. */
export function TakeRows({ title, rows }: TakeRowsProps) {
  const palette = usePalette();
  const [shown, setShown] = useState(FIRST);
  if (rows.length === 0) return null;
  return (
    <View>
      <Heading>{title}</Heading>
      {rows.slice(0, shown).map(({ take: { entry }, text }) => (
        <RowLink
          key={entry.id}
          href={`/log/${entry.id}`}
          testID="memory-take"
          style={[styles.row, { borderBottomColor: palette.hairline }]}
        >
          <View style={styles.words}>
            <Body>{entry.title}</Body>
            <Soft>{[momentText(new Date(entry.createdAt)), entry.remark].filter(Boolean).join(' · ')}</Soft>
          </View>
          <Body>{text}</Body>
        </RowLink>
      ))}
      {rows.length > shown ? (
        <Button
          look="quiet"
          label={`Older ones (${rows.length - shown})`}
          onPress={() => setShown(shown + MORE)}
        />
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 12, borderBottomWidth: 1, paddingVertical: 8 },
  words: { flex: 1, minWidth: 0 },
});
