import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { drillOf, nextPracticeDay, sayChange, sayDay, takesOf, weekdayOf } from '@/core/plan';
import { placesIn, seamTitle, sinceLast, turnSentence, type Played, type ReportPlace } from '@/core/ledger';
import { limitsOf, plural } from '@/core/verdict';
import { AlsoToday, PlanStrand, usePlanning } from '@/features/planning';
import { usePlayback } from '@/features/sound';
import { useTurns } from '@/features/take';
import {
  changeRemark,
  instrumentIn,
  loadAudio,
  loadTake,
  usePastSessions,
  usePlayed,
  useSettings,
} from '@/store';
import {
  Body,
  Button,
  daysAgo,
  Field,
  Heading,
  Notice,
  RowLink,
  Screen,
  Soft,
  useNoteName,
  usePalette,
} from '@/ui';

/** The page at the end of a session: what moved, what did not, what to listen to, what tomorrow will hold. */
export function SessionEndScreen() {
  const router = useRouter();
  const nameOf = useNoteName();
  const { settings } = useSettings();
  const [session] = usePastSessions();
  const { data: played } = usePlayed(session?.instrumentId ?? '', false);
  const planning = usePlanning();
  const turns = useTurns(session?.instrumentId ?? '');
  const ids = useMemo(() => new Set(session ? takesOf(session) : []), [session]);
  const mine = useMemo(() => (played ?? []).filter(({ entry }) => ids.has(entry.id)), [played, ids]);
  const limits = limitsOf(settings.level, settings.ownLimits);
  const instrument = session && instrumentIn(settings, session.instrumentId);
  if (!session || !instrument)
    return (
      <Screen title="No session yet">
        <Body>When a session is over, this page says what moved and what did not.</Body>
        <Button look="strong" label="To Today" onPress={() => router.replace('/')} />
      </Screen>
    );
  const minutes = mine.reduce((sum, { entry }) => sum + entry.durationSeconds / 60, 0);
  const skipped = session.done.filter((each) => each.skipped).length;
  const turned = turns.filter(({ takeId }) => ids.has(takeId));
  return (
    <Screen
      caption={session.title}
      title={
        mine.length === 0
          ? 'Nothing was kept'
          : `${plural(mine.length, 'block')}, ${Math.max(1, Math.round(minutes))} min heard`
      }
      beside={planning?.instrument.id === session.instrumentId ? <Tomorrow planning={planning} /> : null}
      foot={
        <Button look="main" large grow={1} label="Done" onPress={() => router.replace('/')} testID="done" />
      }
    >
      {turned.map((turn) => (
        <Notice key={`${turn.from}-${turn.to}`} text={turnSentence(turn, nameOf)} />
      ))}
      {mine.length > 0 ? (
        <Blocks
          mine={mine}
          played={played ?? []}
          ids={ids}
          weekday={planning ? weekdayOf(planning.calendar.today) : 0}
        />
      ) : null}
      {skipped > 0 ? (
        <Soft>{`${plural(skipped, 'block')} left out. The plan goes on from what was played.`}</Soft>
      ) : null}
      {planning ? (
        <AlsoToday day={planning.calendar.today} date={planning.date} onChosen={() => router.replace('/')} />
      ) : null}
      <Places places={placesIn(mine, limits)} />
      {mine.length > 0 ? (
        <Remark takeId={mine[mine.length - 1]!.entry.id} before={mine[mine.length - 1]!.entry.remark} />
      ) : null}
    </Screen>
  );
}

const ORDER = { better: 0, worse: 1, same: 2, untold: 3 } as const;

/** Block by block, what moved first. */
function Blocks({
  mine,
  played,
  ids,
  weekday,
}: {
  mine: readonly Played[];
  played: readonly Played[];
  ids: ReadonlySet<string>;
  weekday: number;
}) {
  const palette = usePalette();
  const rows = mine
    .map((take) => {
      const before = played.filter(({ entry }) => !ids.has(entry.id) && entry.family === take.entry.family);
      const earlier = before.findLast(({ entry }) => drillOf(entry) === drillOf(take.entry)) ?? before.at(-1);
      const since = earlier ? sinceLast(take.entry, earlier.entry) : null;
      const ago = earlier ? daysAgo(new Date(earlier.entry.createdAt), new Date(take.entry.createdAt)) : 0;
      return { take, since, ago };
    })
    .sort((a, b) => ORDER[a.since?.verdict ?? 'untold'] - ORDER[b.since?.verdict ?? 'untold']);
  return (
    <View testID="moved">
      <Heading>What moved, and what did not</Heading>
      {rows.map(({ take: { entry }, since, ago }) => (
        <RowLink
          key={entry.id}
          href={`/log/${entry.id}`}
          style={[styles.row, { borderBottomColor: palette.hairline }]}
        >
          <Body>{`${entry.title}: ${entry.headline}`}</Body>
          <Soft>{since ? sayChange(since, ago, weekday) : 'The first time.'}</Soft>
        </RowLink>
      ))}
    </View>
  );
}

function Places({ places }: { places: readonly ReportPlace[] }) {
  const nameOf = useNoteName();
  const { playing, play, stop } = usePlayback();
  const [at, setAt] = useState<number | null>(null);
  if (places.length === 0) return null;
  const hear = (place: ReportPlace, i: number) => {
    if (playing && at === i) return stop();
    setAt(i);
    void play(async () => {
      const [take, audio] = await Promise.all([loadTake(place.takeId), loadAudio(place.takeId)]);
      if (!take || !audio) return null;
      const { sampleRate } = take.conditions;
      const samples = audio.subarray(place.fromSeconds * sampleRate, place.toSeconds * sampleRate);
      return { samples, sampleRate };
    });
  };
  return (
    <View style={styles.places} testID="places">
      <Heading>
        {places.length === 1
          ? 'A place to listen to'
          : `${places.length === 2 ? 'Two' : 'Three'} places to listen to`}
      </Heading>
      {places.map((place, i) => (
        <View key={i} style={styles.place}>
          <Button
            label={playing && at === i ? 'Stop' : 'Hear it'}
            spoken={`${playing && at === i ? 'Stop' : 'Hear it'}: ${wordOf(place, nameOf)}`}
            onPress={() => hear(place, i)}
          />
          <Body style={styles.words}>{wordOf(place, nameOf)}</Body>
        </View>
      ))}
    </View>
  );
}

function wordOf({ why: { kind, crossed } }: ReportPlace, nameOf: (written: number) => string): string {
  if (!crossed) return 'How it began.';
  const seam = seamTitle(crossed.crossing.from, crossed.crossing.to, nameOf);
  return kind === 'opened' ? `${seam}, where it came open.` : `${seam}, where it held.`;
}

/** Typed, or spoken into the keyboard of the phone. It is kept with the last take. */
function Remark({ takeId, before }: { takeId: string; before: string }) {
  const [text, setText] = useState(before);
  const [kept, setKept] = useState(before);
  return (
    <View style={styles.places}>
      <Heading>A remark</Heading>
      <Field
        label="A remark on this session"
        placeholder="What you tried, what you want to remember"
        value={text}
        onChange={setText}
        onBlur={() => {
          if (text.trim() !== kept) void changeRemark(takeId, text.trim()).then(() => setKept(text.trim()));
        }}
        long
      />
      {kept ? <Soft>Kept with the last take.</Soft> : null}
    </View>
  );
}

function Tomorrow({ planning }: { planning: NonNullable<ReturnType<typeof usePlanning>> }) {
  const nameOf = useNoteName();
  const { calendar, plan, planOn, instrument } = planning;
  const next = nextPracticeDay(plan.wishes, calendar.today);
  const day = planOn(next);
  return (
    <View testID="tomorrow" style={styles.tomorrow}>
      <Soft>{next === calendar.today + 1 ? 'tomorrow' : 'next'}</Soft>
      <Heading>{sayDay(day, nameOf)}</Heading>
      <PlanStrand blocks={day.blocks} instrument={instrument} today={next} />
    </View>
  );
}

const styles = StyleSheet.create({
  row: { paddingVertical: 10, borderBottomWidth: 1, gap: 2 },
  places: { gap: 10 },
  tomorrow: { gap: 12 },
  place: { flexDirection: 'row', alignItems: 'center', gap: 12 },
  words: { flex: 1, minWidth: 0 },
});
