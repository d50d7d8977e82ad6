import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Take } from '@/core/take';
import { useLog } from '@/store';
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
import { instrumentName, TakeSpark, useVerdict } from '@/features/take';

/** Takes that are shown at once: each is judged anew, by the limits of today. */
const PAGE = 40;

export function LogScreen() {
  const router = useRouter();
  const [shown, setShown] = useState(PAGE);
  const { data: log } = useLog();
  if (!log) return null;
  return (
    <Screen caption={log.takes.length > 0 ? `${log.takes.length} takes` : 'Log'} title="What you have played">
      {log.damaged.length > 0 ? (
        <Notice
          problem
          testID="damaged"
          text={`${log.damaged.length === 1 ? 'One record' : `${log.damaged.length} records`} could not be read and ${log.damaged.length === 1 ? 'has' : 'have'} been set aside, not deleted. The first: ${log.damaged[0]?.problem ?? ''}.`}
        />
      ) : null}
      {log.takes.length === 0 ? (
        <>
          <Body>
            Every take that you keep is found here again, with its figures, its sound and your remark. Play
            one long tone to begin.
          </Body>
          <Button look="strong" label="Play one" onPress={() => router.push('/practise')} />
        </>
      ) : null}
      {byDay(log.takes.slice(0, shown)).map(([day, takes]) => (
        <View key={day}>
          <Soft>{day}</Soft>
          {takes.map((take) => (
            <TakeRow key={take.id} take={take} />
          ))}
        </View>
      ))}
      {log.takes.length > shown ? (
        <Button
          label={`Older takes (${log.takes.length - shown})`}
          testID="older"
          onPress={() => setShown(shown + PAGE)}
        />
      ) : null}
    </Screen>
  );
}

function TakeRow({ take }: { take: Take }) {
  const palette = usePalette();
  const { headline } = useVerdict(take).verdict;
  const instrument = instrumentName(take);
  return (
    <RowLink
      href={`/log/${take.id}`}
      label={`${take.score.title}, ${instrument}, ${headline}`}
      testID="take-row"
      style={[styles.row, { borderBottomColor: palette.hairline }]}
    >
      <View style={styles.words}>
        <Heading>{headline}</Heading>
        <Soft>{`${take.score.title} · ${instrument} · ${clockText(new Date(take.createdAt))}`}</Soft>
        {take.remark ? <Body>{take.remark}</Body> : null}
      </View>
      <View style={styles.strip}>
        <TakeSpark take={take} height={48} />
      </View>
    </RowLink>
  );
}

function byDay(takes: readonly Take[]): [string, Take[]][] {
  const days = new Map<string, Take[]>();
  for (const take of takes) {
    const day = dayHeading(new Date(take.createdAt), new Date());
    days.set(day, [...(days.get(day) ?? []), take]);
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
