import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { isSameMusic, versus, type Entry } from '@/core/ledger';
import type { Take } from '@/core/take';
import { shortLeaning } from '@/core/tuning';
import { fixed, type JudgedNote } from '@/core/verdict';
import { usePlayed, useTake } from '@/store';
import { Body, Button, Choice, fonts, Heading, momentText, Screen, Soft, usePalette } from '@/ui';
import { Ribbon } from './Ribbon';
import { usePlace } from './usePlace';
import { useVerdict } from './useVerdict';

/** Takes of the same music that can be chosen to stand beside. */
const OFFERED = 12;
const HEIGHT = 46;

/** Two takes of the same music beside each other: the first against the last of a time, in one tap. */
export function CompareScreen() {
  const router = useRouter();
  const { id, with: other } = useLocalSearchParams<{ id?: string; with?: string }>();
  const { data: take, isLoading } = useTake(id ?? null);
  const { data: played } = usePlayed(take?.score.instrumentId ?? '', true);
  const own = useMemo(() => played?.find(({ entry }) => entry.id === id)?.entry, [played, id]);
  const alike = useMemo(
    () => (own && played ? played.flatMap(({ entry }) => (isSameMusic(entry, own) ? [entry] : [])) : []),
    [own, played],
  );
  const others = alike.filter((entry) => entry.id !== id);
  const chosen = others.find((entry) => entry.id === other) ?? others[0];
  const { data: second } = useTake(chosen?.id ?? null);
  if (isLoading || (take && !played))
    return (
      <Screen title="Beside each other">
        <Soft>Opening …</Soft>
      </Screen>
    );
  if (!take)
    return (
      <Screen title="Beside each other">
        <Body>
          The take that was to stand here is not in the log. Open one there, and it can stand beside others of
          its music.
        </Body>
        <Button label="To the log" onPress={() => router.replace('/log')} />
      </Screen>
    );
  if (!own || !chosen)
    return (
      <Screen title="Beside each other">
        <Body>
          {own
            ? 'There is no other take of this music yet. Play it again another day, and the two can stand beside each other here.'
            : 'Only takes that are in the log can stand beside each other.'}
        </Body>
        <Button label="To the take" onPress={() => router.replace(`/log/${id}`)} />
      </Screen>
    );
  const [earlier, later] = own.createdAt < chosen.createdAt ? [own, chosen] : [chosen, own];
  const takes = second && (earlier.id === take.id ? ([take, second] as const) : ([second, take] as const));
  return (
    <Screen
      caption={own.title}
      title="Beside each other"
      beside={takes ? <Notes first={takes[0]} second={takes[1]} /> : null}
    >
      <Choice
        label={`Beside ${momentText(new Date(own.createdAt))}`}
        value={chosen.id}
        options={spaced(others).map((entry, i) => ({
          value: entry.id,
          label:
            i === 0
              ? `the first, ${momentText(new Date(entry.createdAt))}`
              : momentText(new Date(entry.createdAt)),
        }))}
        onChange={(next) => router.setParams({ with: next })}
      />
      <Figures first={earlier} second={later} />
      {earlier.parameters['tempo'] === later.parameters['tempo'] ? null : (
        <Soft>The two were not played at the same tempo.</Soft>
      )}
    </Screen>
  );
}

/** The first, the last, and some between. */
function spaced(entries: readonly Entry[]): readonly Entry[] {
  if (entries.length <= OFFERED) return entries;
  return Array.from(
    { length: OFFERED },
    (_, i) => entries[Math.round((i * (entries.length - 1)) / (OFFERED - 1))]!,
  );
}

function Figures({ first, second }: { first: Entry; second: Entry }) {
  const palette = usePalette();
  const rows = versus(first, second);
  const day = ({ createdAt }: Entry) => momentText(new Date(createdAt)).split(',')[0];
  return (
    <View role="table" testID="versus">
      <View role="row" style={[styles.row, { borderBottomColor: palette.hairline }]}>
        {['', day(first), day(second), 'Change'].map((name, i) => (
          <Soft key={i} style={i === 0 ? styles.label : styles.cell}>
            {name}
          </Soft>
        ))}
      </View>
      {rows.map(({ id, label, unit, decimals, first: a, second: b, difference, differs }) => (
        <View role="row" key={id} style={[styles.row, { borderBottomColor: palette.hairline }]}>
          <View style={styles.label}>
            <Body>{label}</Body>
            <Soft>{unit}</Soft>
          </View>
          <Body style={styles.cell}>{fixed(a, decimals)}</Body>
          <Body style={styles.cell}>{fixed(b, decimals)}</Body>
          <View style={styles.cell}>
            <Body style={[styles.right, differs === true && styles.bold]}>
              {`${difference > 0 ? '+' : ''}${fixed(difference, decimals)}`}
            </Body>
            <Soft style={styles.right}>
              {differs === true ? 'differs' : differs === false ? 'as good as alike' : ''}
            </Soft>
          </View>
        </View>
      ))}
      <Soft>
        A change is called one where it is greater than the notes of the two takes themselves vary. One take
        against one says little of a player; what has changed over weeks is under Map.
      </Soft>
    </View>
  );
}

/** The same notes of both, one over the other, and their sound in turn. */
function Notes({ first, second }: { first: Take; second: Take }) {
  const { judgement: a, verdict } = useVerdict(first);
  const { judgement: b } = useVerdict(second);
  if (a.notes.length === 0 || a.notes.length !== b.notes.length)
    return (
      <Soft>The two do not have the same notes; their figures can be compared, and not note by note.</Soft>
    );
  return (
    <View testID="both-strips">
      <Heading>Note by note</Heading>
      <Soft>The earlier above, the later below.</Soft>
      {a.notes.map((judged, i) => (
        <Pair
          key={judged.match.group.index}
          name={verdict.notes[judged.match.group.index]?.name ?? ''}
          first={first}
          second={second}
          notes={[judged, b.notes[i]!]}
        />
      ))}
    </View>
  );
}

interface PairProps {
  readonly name: string;
  readonly first: Take;
  readonly second: Take;
  readonly notes: readonly [JudgedNote, JudgedNote];
}

function Pair({ name, first, second, notes: [a, b] }: PairProps) {
  const palette = usePalette();
  const [one, other] = [noteOf(first, a), noteOf(second, b)];
  const { state, play, stop } = usePlace(
    first,
    other && { take: second, startSeconds: other.startSeconds, endSeconds: other.endSeconds },
  );
  const canHear = first.audio !== null && second.audio !== null && one !== null && other !== null;
  return (
    <View style={[styles.pair, { borderBottomColor: palette.hairline }]}>
      <Heading style={styles.name}>{name}</Heading>
      <View style={styles.drawings}>
        {[[first, one, a] as const, [second, other, b] as const].map(([take, note, judged], i) => (
          <View key={i} style={styles.line}>
            <View style={styles.drawing}>
              <Ribbon
                trace={take.trace}
                height={HEIGHT}
                part={note}
                fromSeconds={note?.startSeconds}
                toSeconds={note?.endSeconds}
                middleMidi={judged.match.group.sounding}
              />
            </View>
            <Soft style={styles.where}>
              {judged.cents === null ? 'not known' : shortLeaning(judged.cents)}
            </Soft>
          </View>
        ))}
      </View>
      {canHear ? (
        <Button
          label={state === 'both' ? 'Stop' : 'Hear'}
          spoken={`Hear ${name} of both in turn, equally loud`}
          onPress={() => (state === 'both' ? stop() : void play('both', one.startSeconds, one.endSeconds))}
        />
      ) : null}
    </View>
  );
}

const noteOf = (take: Take, { match }: JudgedNote) =>
  match.note === null ? null : (take.notes[match.note] ?? null);

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 8, borderBottomWidth: 1, paddingVertical: 6 },
  label: { flex: 1.4, minWidth: 0 },
  cell: { flex: 1, textAlign: 'right' },
  right: { textAlign: 'right' },
  bold: { fontFamily: fonts.bold },
  pair: { flexDirection: 'row', alignItems: 'center', gap: 10, borderBottomWidth: 1, paddingVertical: 6 },
  name: { width: 50 },
  drawings: { flex: 1, minWidth: 0 },
  line: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  drawing: { flex: 1, minWidth: 0, height: HEIGHT },
  where: { width: 58, textAlign: 'right' },
});
