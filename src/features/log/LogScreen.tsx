import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { ANYTHING, asksAnything, blocksIn, isWanted, type Entry, type LogBlock } from '@/core/ledger';
import { plural, sized } from '@/core/verdict';
import { FIRST_ROWS, useBin, useEntries, useUnread } from '@/store';
import {
  Body,
  Button,
  clockText,
  dayHeading,
  dayKey,
  fonts,
  Heading,
  Notice,
  RowLink,
  Screen,
  Soft,
  usePalette,
} from '@/ui';
import { TakeSpark } from '@/features/take';
import { LogFilters } from './LogFilters';
import { lastPlayedMonth, monthAbout } from './months';
import { MonthStrands } from './MonthStrands';

/** Rows that are read when the end of those comes near. */
const MORE = 300;

type Row =
  | { readonly kind: 'day'; readonly key: string; readonly text: string }
  | { readonly kind: 'block'; readonly key: string; readonly block: LogBlock }
  | { readonly kind: 'take'; readonly key: string; readonly entry: Entry; readonly inBlock: boolean };

/** Everything that was kept: by day, by what it was, by words. */
export function LogScreen() {
  const router = useRouter();
  const [enough, setEnough] = useState(FIRST_ROWS);
  const [query, setQuery] = useState(ANYTHING);
  const [day, setDay] = useState<string | null>(null);
  const [now] = useState(() => new Date());
  const [turnedTo, setTurnedTo] = useState<Date | null>(null);
  const looksBack = turnedTo !== null && turnedTo.getTime() < monthAbout(now).getTime();
  const { data: log } = useEntries(asksAnything(query) || day !== null || looksBack ? Infinity : enough);
  const { data: bin } = useBin();
  const { data: unread } = useUnread();
  const { entries, total = 0 } = log ?? {};
  const wanted = useMemo(
    () =>
      (entries ?? []).filter(
        (entry) => isWanted(entry, query) && (day === null || dayKey(new Date(entry.createdAt)) === day),
      ),
    [entries, query, day],
  );
  const rows = useMemo(() => rowsOf(wanted), [wanted]);
  const toBin = { label: 'Look at them', onPress: () => router.push('/log/bin') };
  return (
    <Screen
      caption={total > 0 ? plural(total, 'take') : 'Log'}
      title="What you have played"
      list={{
        rows,
        keyOf: ({ key }) => key,
        render: (row) =>
          row.kind === 'day' ? (
            <Soft style={styles.day}>{row.text}</Soft>
          ) : row.kind === 'block' ? (
            <BlockRow block={row.block} />
          ) : (
            <EntryRow entry={row.entry} inBlock={row.inBlock} />
          ),
        onEnd: () => {
          if (log && log.entries.length < total) setEnough(log.entries.length + MORE);
        },
      }}
      beside={
        <>
          {total > 0 ? (
            <Button
              look="quiet"
              label="A report for a teacher"
              testID="to-report"
              onPress={() => router.push('/report')}
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
        </>
      }
    >
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
      {entries && total > 0 ? (
        <>
          <MonthStrands
            now={now}
            entries={entries}
            month={turnedTo ?? lastPlayedMonth(entries, now)}
            onMonth={setTurnedTo}
            chosen={day}
            onChoose={setDay}
          />
          <LogFilters entries={entries} query={query} onChange={setQuery} />
          {asksAnything(query) || day !== null ? (
            <Soft testID="log-found">
              {wanted.length === 0
                ? 'Nothing in the log is like this.'
                : `${plural(wanted.length, 'take')} of ${total}, ${minutesOf(wanted)} min heard.`}
            </Soft>
          ) : null}
        </>
      ) : null}
    </Screen>
  );
}

const minutesOf = (entries: readonly Entry[]) =>
  Math.round(entries.reduce((sum, { durationSeconds }) => sum + durationSeconds, 0) / 60);

const lengthText = (seconds: number) =>
  seconds < 90 ? sized(seconds, 's', 0) : sized(seconds / 60, 'min', 0);

/** Days, under them their blocks, under these their takes; newest first. A take alone needs no block about it. */
function rowsOf(entries: readonly Entry[]): Row[] {
  const days = new Map<string, Entry[]>();
  for (const entry of entries) {
    const key = dayKey(new Date(entry.createdAt));
    const same = days.get(key);
    if (same) same.push(entry);
    else days.set(key, [entry]);
  }
  const now = new Date();
  return [...days].flatMap(([key, same]): Row[] => [
    {
      kind: 'day',
      key,
      text: `${dayHeading(new Date(same[0]!.createdAt), now)} · ${plural(same.length, 'take')}, ${minutesOf(same)} min`,
    },
    ...blocksIn(same).flatMap((block): Row[] => {
      const inBlock = block.entries.length > 1;
      const takes = block.entries.map((entry): Row => ({ kind: 'take', key: entry.id, entry, inBlock }));
      return inBlock ? [{ kind: 'block', key: `block/${block.entries[0]!.id}`, block }, ...takes] : takes;
    }),
  ]);
}

function BlockRow({ block: { entries, seconds } }: { block: LogBlock }) {
  const { title, instrumentName } = entries[0]!;
  return (
    <View testID="log-block" style={styles.block}>
      <Body style={styles.strong}>{title}</Body>
      <Soft>{`${instrumentName} · ${plural(entries.length, 'take')} one after the other, ${lengthText(seconds)}`}</Soft>
    </View>
  );
}

function EntryRow({ entry, inBlock }: { entry: Entry; inBlock: boolean }) {
  const palette = usePalette();
  const { headline, title, instrumentName, createdAt, remark } = entry;
  return (
    <RowLink
      href={`/log/${entry.id}`}
      testID="take-row"
      style={[styles.row, { borderBottomColor: palette.hairline }, inBlock && styles.inBlock]}
    >
      <View style={styles.words}>
        <Heading>{headline}</Heading>
        <Soft>
          {inBlock
            ? clockText(new Date(createdAt))
            : `${title} · ${instrumentName} · ${clockText(new Date(createdAt))}`}
        </Soft>
        {remark ? <Body>{remark}</Body> : null}
      </View>
      <View style={styles.strip}>
        <TakeSpark spark={entry.spark} height={48} />
      </View>
    </RowLink>
  );
}

const styles = StyleSheet.create({
  day: { paddingTop: 18 },
  block: { paddingTop: 12 },
  strong: { fontFamily: fonts.bold },
  inBlock: { marginLeft: 18 },
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
