import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { changesIn, followedTrends, OTHERS, type FollowedTrend, type Played } from '@/core/ledger';
import { fixed } from '@/core/verdict';
import { Body, Button, Heading, Screen, Soft, usePalette, useShape, shortDay } from '@/ui';
import { TimeChart } from '@/features/take';
import { TakeRows } from './TakeRows';
import { useMemory } from './useMemory';

/** What became of each figure over the weeks: what moved, what did not, what is too young to say. */
export function TrendsScreen() {
  const { instrument } = useLocalSearchParams<{ instrument?: string }>();
  const { memory } = useMemory(instrument ?? null);
  const { wide } = useShape();
  const [chosen, setChosen] = useState<string | null>(null);
  const [withOthers, setWithOthers] = useState(false);
  const trends = useMemo(() => (memory ? followedTrends(memory.played) : null), [memory]);
  const others = useMemo(
    () => (memory && withOthers ? followedTrends(memory.played, OTHERS) : []),
    [memory, withOthers],
  );
  if (!memory || !trends)
    return (
      <Screen caption="Map" title="What has changed">
        <Soft>Reading the log …</Soft>
      </Screen>
    );
  const isChosen = (each: FollowedTrend) => keyOf(each) === chosen;
  // On a wide screen what is followed stands beside the list; the others open where they are, far down in it.
  const beside = wide ? (trends.find(isChosen) ?? trends[0]) : undefined;
  const inline = (wide ? others : [...trends, ...others]).find(isChosen);
  const paneOf = (found: FollowedTrend) => (
    <TrendPane key={keyOf(found)} found={found} played={memory.played} />
  );
  const parts = [
    ['Moved', trends.filter(hasMoved)],
    ['No change yet', trends.filter(({ verdict }) => verdict === 'no-change')],
    ['Too young to say', trends.filter(({ verdict }) => verdict === 'unknown')],
    ['Other figures', others],
  ] as const;
  return (
    <Screen
      caption={`Map · ${memory.instrument.name}`}
      title="What has changed"
      beside={beside ? paneOf(beside) : null}
    >
      {trends.length === 0 ? (
        <Body>
          Nothing can be followed yet. Play an exercise on two days or more, and what is measured of it is
          followed here; after five days it is said whether it moves.
        </Body>
      ) : null}
      {parts.map(([title, rows]) =>
        rows.length === 0 ? null : (
          <View key={title} testID={`trends-${title.split(' ')[0]!.toLowerCase()}`}>
            <Heading>{title}</Heading>
            {rows.map((each) => (
              <View key={keyOf(each)}>
                <TrendRow
                  found={each}
                  open={each === beside || each === inline}
                  onPress={() => setChosen(chosen === keyOf(each) ? null : keyOf(each))}
                />
                {each === inline ? paneOf(each) : null}
              </View>
            ))}
          </View>
        ),
      )}
      {withOthers ? (
        <Soft>
          {others.length === 0
            ? 'Nothing else was measured on two days or more.'
            : 'These come along with what an exercise is about. Whether they moved is told, and not whether that is better.'}
        </Soft>
      ) : (
        <Button
          label="Everything else that was measured"
          testID="other-figures"
          onPress={() => setWithOthers(true)}
        />
      )}
    </Screen>
  );
}

const hasMoved = ({ verdict }: FollowedTrend) =>
  verdict === 'better' || verdict === 'worse' || verdict === 'moved';
const keyOf = ({ family, followed }: FollowedTrend) => `${family}/${followed.id}`;

/** `from 9.1 to 13.4 s`; of what did not move, where it lies. */
function amountOf(
  { followed: { decimals, unit }, trend: { line, points } }: FollowedTrend,
  moved: boolean,
): string {
  if (line && moved) return `from ${fixed(line[0], decimals)} to ${fixed(line[1], decimals)} ${unit}`;
  const last = points.at(-1)!.value;
  return `last ${fixed(last, decimals)} ${unit}`;
}

const VERDICTS = { better: 'better', worse: 'worse', moved: '', 'no-change': '', unknown: '' } as const;

function TrendRow({ found, open, onPress }: { found: FollowedTrend; open: boolean; onPress: () => void }) {
  const palette = usePalette();
  const moved = hasMoved(found);
  const text = amountOf(found, moved);
  return (
    <Pressable
      role="button"
      aria-expanded={open}
      testID="trend-row"
      onPress={onPress}
      style={[styles.row, { borderBottomColor: open ? palette.gold : palette.hairline }]}
    >
      <View style={styles.words}>
        <Body>{found.followed.label}</Body>
        <Soft>{found.title}</Soft>
      </View>
      <View style={styles.figure}>
        <Body style={styles.right}>{text}</Body>
        {VERDICTS[found.verdict] ? (
          <Body style={{ color: palette.goldText }}>{VERDICTS[found.verdict]}</Body>
        ) : null}
      </View>
    </Pressable>
  );
}

/** A change as an amount with its interval, or that there is none. */
function changeSentence({ verdict, followed, trend }: FollowedTrend): string {
  const { decimals, unit } = followed;
  const days = trend.points.length;
  if (!trend.change || verdict === 'unknown')
    return `Heard on ${days === 1 ? 'one day' : `${days} days`}. Five days over a week or more are needed to say anything of its way.`;
  const span = Math.round(trend.points.at(-1)!.day - trend.points[0]!.day);
  const { value, low, high } = trend.change;
  const number = (each: number) => `${each > 0 ? '+' : ''}${fixed(each, decimals)}`;
  const interval = `between ${number(low)} and ${number(high)} ${unit}`;
  return verdict === 'no-change'
    ? `No change yet in ${span} days: it may have moved by anything ${interval}, nothing included.`
    : `${number(value)} ${unit} in ${span} days, very likely ${interval}. Having looked often, and at many figures, is allowed for.`;
}

const CHANGE_WORDS = { reed: '', cue: 'cue: ', school: 'school: ', room: 'in ' } as const;

function TrendPane({ found, played }: { found: FollowedTrend; played: readonly Played[] }) {
  const { followed, trend, title, family } = found;
  const own = played.filter(({ entry }) => entry.family === family && followed.of(entry) !== null);
  const moved = hasMoved(found);
  return (
    <View style={styles.pane} testID="trend-pane">
      <Heading>{`${followed.label}, ${title}`}</Heading>
      <Body testID="change">{changeSentence(found)}</Body>
      <TimeChart
        label={`${followed.label} over ${trend.points.length} days. ${changeSentence(found)}`}
        points={trend.points}
        line={moved ? trend.line : null}
        marks={changesIn(own)
          .filter(({ of }) => of !== 'room')
          .map(({ day, of, to }) => ({ day, text: CHANGE_WORDS[of] + to }))}
        decimals={followed.decimals}
        dateOf={shortDay}
      />
      <Soft>{`${followed.unit ? `In ${followed.unit}. ` : ''}${followed.meaning}`}</Soft>
      <TakeRows
        title="Its takes"
        rows={[...own].reverse().map((take) => ({
          take,
          text: `${fixed(followed.of(take.entry)!, followed.decimals)} ${followed.unit}`,
        }))}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  row: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 12,
    borderBottomWidth: 1,
    minHeight: 52,
    paddingVertical: 6,
  },
  words: { flex: 1, minWidth: 0 },
  right: { textAlign: 'right' },
  figure: { alignItems: 'flex-end', maxWidth: '58%' },
  pane: { gap: 12, paddingVertical: 10 },
});
