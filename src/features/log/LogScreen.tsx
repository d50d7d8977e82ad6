import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Entry } from '@/core/ledger';
import { plural } from '@/core/verdict';
import { useBin, useEntries, useUnread } from '@/store';
import {
  Body,
  Button,
  clockText,
  dayHeading,
  Heading,
  Notice,
  RowLink,
  Screen,
  Soft,
  usePalette,
} from '@/ui';
import { TakeSpark } from '@/features/take';

/** Rows that are shown at once; more are a tap away. */
const PAGE = 40;

export function LogScreen() {
  const router = useRouter();
  const [shown, setShown] = useState(PAGE);
  const { data: log } = useEntries(shown);
  const { data: bin } = useBin();
  const { data: unread } = useUnread();
  const { entries = [], total = 0 } = log ?? {};
  const toBin = { label: 'Look at them', onPress: () => router.push('/log/bin') };
  return (
    <Screen caption={total > 0 ? plural(total, 'take') : 'Log'} title="What you have played">
      {unread && unread.length > 0 ? (
        <Notice
          problem
          testID="unread"
          text={`${plural(unread.length, 'record')} could not be read. Nothing of them is lost.`}
          action={toBin}
        />
      ) : null}
      {log && total === 0 ? (
        <>
          <Body>
            Every take that you keep is found here again, with its figures, its sound and your remark. Play
            one long tone to begin.
          </Body>
          <Button look="strong" label="Play one" onPress={() => router.push('/practise')} />
        </>
      ) : null}
      {log ? null : <Soft>Opening the log …</Soft>}
      {byDay(entries.slice(0, shown)).map(([day, rows]) => (
        <View key={day}>
          <Soft>{day}</Soft>
          {rows.map((entry) => (
            <EntryRow key={entry.id} entry={entry} />
          ))}
        </View>
      ))}
      {total > shown ? (
        <Button
          label={`Older takes (${total - shown})`}
          testID="older"
          onPress={() => setShown(shown + PAGE)}
        />
      ) : null}
      {bin && bin.length > 0 ? (
        <Button
          look="quiet"
          label={`In the bin (${bin.length})`}
          testID="to-bin"
          onPress={() => router.push('/log/bin')}
        />
      ) : null}
    </Screen>
  );
}

function EntryRow({ entry }: { entry: Entry }) {
  const palette = usePalette();
  const { headline, title, instrumentName, createdAt, remark } = entry;
  return (
    <RowLink
      href={`/log/${entry.id}`}
      label={`${title}, ${instrumentName}, ${headline}`}
      testID="take-row"
      style={[styles.row, { borderBottomColor: palette.hairline }]}
    >
      <View style={styles.words}>
        <Heading>{headline}</Heading>
        <Soft>{`${title} · ${instrumentName} · ${clockText(new Date(createdAt))}`}</Soft>
        {remark ? <Body>{remark}</Body> : null}
      </View>
      <View style={styles.strip}>
        <TakeSpark spark={entry.spark} height={48} />
      </View>
    </RowLink>
  );
}

function byDay(entries: readonly Entry[]): [string, Entry[]][] {
  const days = new Map<string, Entry[]>();
  for (const entry of entries) {
    const day = dayHeading(new Date(entry.createdAt), new Date());
    days.set(day, [...(days.get(day) ?? []), entry]);
  }
  return [...days];
}

const styles = StyleSheet.create({
  row: {
    flexDirection: 'row',
    gap: 14,
    alignItems: 'center',
    borderBottomWidth: 1,
    paddingVertical: 12,
    minHeight: 64,
  },
  words: { flex: 1, gap: 1, minWidth: 0 },
  strip: { width: 110 },
});
