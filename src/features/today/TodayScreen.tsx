import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { DAY_MS } from '@/core/base';
import { nameWithin } from '@/core/instruments';
import { turnSentence, type Entry } from '@/core/ledger';
import {
  easeOf,
  eventNear,
  isOver,
  ordinalOf,
  replanned,
  sayDay,
  sayManner,
  takesOf,
  turnOf,
} from '@/core/plan';
import { plural } from '@/core/verdict';
import { useExercise } from '@/features/library';
import { AlsoToday, PlanStrand, useBeginSession, usePlanning, type Planning } from '@/features/planning';
import { useTurns } from '@/features/take';
import { isExportDue } from './exportDue';
import {
  closeSession,
  putOnStand,
  useDraft,
  useEntries,
  useHome,
  usePastSessions,
  useRunning,
  useSession,
  useSettings,
} from '@/store';
import {
  agoText,
  Body,
  Button,
  dayText,
  Heading,
  later,
  Notice,
  Screen,
  Soft,
  useNoteName,
  useOnwards,
} from '@/ui';

const Welcome = later(async () => (await import('./Welcome')).Welcome);

/** Today, after the questions of a first visit. */
export function TodayScreen() {
  const { settings, ready } = useSettings();
  const { data: home } = useHome();
  const { data: log } = useEntries(1);
  const { data: running } = useRunning();
  const { data: draft } = useDraft();
  const nothingYet = log?.total === 0 && running === null && draft === null;
  const isFirst = ready && !settings.welcomed && home?.whose === 'mine' && nothingYet;
  // The room may be listened to within the questions, and is kept: they go on after it.
  const [isAsked, ask] = useState(isFirst);
  if (isFirst && !isAsked) ask(true);
  return isAsked && !settings.welcomed ? <Welcome /> : <Today />;
}

/** What today is for, and why; one press begins it. */
function Today() {
  const nameOf = useNoteName();
  const planning = usePlanning();
  const { data: log } = useEntries(1);
  const { settings } = useSettings();
  const begin = useBeginSession();
  const router = useRouter();
  const { data: session } = useSession();
  const last = log?.entries[0];
  const caption = [
    dayText(new Date()),
    planning ? nameWithin(planning.instrument) : null,
    settings.setup.reed || null,
  ]
    .filter(Boolean)
    .join(' · ');
  const day = planning?.today;
  const empty = day?.blocks.every(({ skipped, family }) => skipped || family === null) ?? true;
  const goesOn = session && !isOver(session);
  const done = usePastSessions().find(
    ({ date, instrumentId }) => date === planning?.date && instrumentId === planning.instrument.id,
  );
  return (
    <Screen
      caption={caption}
      title={day ? sayDay(day, nameOf) : 'Today'}
      beside={last ? <LastTime entry={last} /> : null}
      foot={
        <Button
          look="main"
          large
          grow={1}
          label={goesOn ? 'Begin anew, hands free' : 'Begin, hands free'}
          disabled={!planning || empty}
          testID="begin"
          onPress={() => {
            if (!planning || !day) return;
            void begin(planning.instrument.id, sayDay(day, nameOf), day.blocks);
          }}
        />
      }
    >
      <Notices />
      {done && takesOf(done).length > 0 ? (
        <Notice
          testID="done-today"
          text={`A session was played today: ${plural(takesOf(done).length, 'block')}. What follows is for those who play again.`}
          action={{ label: 'What moved', onPress: () => router.push('/session/end') }}
        />
      ) : null}
      {planning ? <Day planning={planning} /> : <Soft>Reading what was heard …</Soft>}
    </Screen>
  );
}

const SHORT_MINUTES = 10;

function Day({ planning }: { planning: Planning }) {
  const router = useRouter();
  const { planFor, today, isOwn, isDay, keepDays, date, instrument, calendar, plan, problem } = planning;
  const freely = useExercise('free-playing')?.score;
  const free = freely?.ok ? freely.value : null;
  const eased = easeOf(planFor.standing, plan.wishes, calendar.today);
  const { dynamic } = turnOf(
    instrument,
    planFor.level,
    ordinalOf(plan.wishes, calendar.today),
    { easy: 0, hard: 0 },
    null,
    eased.why === 'sore',
  );
  return (
    <>
      {problem ? (
        <Notice problem text={`Your plans could not be read: ${problem}. They are left as they lie.`} />
      ) : null}
      <Body>
        {[
          isDay ? null : 'By your week this is a day off. If you play all the same:',
          sayManner(dynamic, eased, eventNear(plan.wishes, calendar.today)),
        ]
          .filter(Boolean)
          .join(' ')}
      </Body>
      {planFor.standing.daysPlayed.length === 0 ? (
        <Body>
          Nothing has been heard yet. The first days go over the whole instrument, so that the plan can follow
          from what was heard.
        </Body>
      ) : null}
      <PlanStrand blocks={today.blocks} instrument={instrument} today={calendar.today} />
      <View style={styles.ways}>
        <Button
          look="quiet"
          label={
            today.minutes > SHORT_MINUTES ? 'Only ten minutes' : `The whole ${plan.wishes.minutes} minutes`
          }
          testID="only-ten"
          onPress={() => {
            const minutes = today.minutes > SHORT_MINUTES ? SHORT_MINUTES : plan.wishes.minutes;
            void keepDays({ [date]: replanned(today, { ...planFor, minutes }) });
          }}
        />
        <Button
          look="quiet"
          label="Change the plan"
          onPress={() => router.push('/week/day')}
          testID="change-plan"
        />
        <Button look="quiet" label="The week" onPress={() => router.push('/week')} testID="to-week" />
        {isOwn ? (
          <Button look="quiet" label="As it was planned" onPress={() => void keepDays({ [date]: null })} />
        ) : null}
      </View>
      <AlsoToday day={calendar.today} date={date} />
      <View style={styles.ways}>
        <Button
          look="quiet"
          label="Just play, nothing asked"
          testID="just-play"
          disabled={free === null}
          onPress={() => {
            if (!free) return;
            void putOnStand(free, '/');
            router.push('/stand');
          }}
        />
        <Button look="quiet" label="One exercise" onPress={() => router.push('/practise')} />
        <Button look="quiet" label="Another instrument" onPress={() => router.push('/instruments')} />
      </View>
    </>
  );
}

/** What cannot wait, and what has turned. */
function Notices() {
  const router = useRouter();
  const onwards = useOnwards();
  const { data: home } = useHome();
  const { data: log } = useEntries(1);
  const { data: running } = useRunning();
  const { data: session } = useSession();
  const { data: draft } = useDraft();
  const { settings } = useSettings();
  return (
    <>
      {home?.whose === 'demo' ? (
        <Notice
          text="This is the log of Odile Farrant, an invented player who gets ready for the Lantern Night at Hollin Weir. Your own log is separate."
          action={{ label: 'Whose log: see Bench', onPress: () => router.push('/bench') }}
        />
      ) : null}
      {log && log.total > 0 && isExportDue(settings.exportEvery, settings.lastExportAt, new Date()) ? (
        <Notice
          testID="export-due"
          text="Time to export the log: one file, on another device, is what survives this one."
          action={{ label: 'Export it on Bench', onPress: () => router.push('/bench') }}
        />
      ) : null}
      <Turned instrumentId={settings.instrumentId} />
      {session ? (
        <Notice
          testID="session-open"
          text={`“${session.title}” was interrupted at block ${Math.min(session.at + 1, session.blocks.length)} of ${session.blocks.length}. What was played is kept.`}
          action={{ label: 'Go on with the session', onPress: () => router.push('/session') }}
          other={{
            label: 'End it here',
            onPress: () => void onwards(closeSession({ ...session, ended: true }), () => '/session/end'),
          }}
        />
      ) : running ? (
        <Notice
          testID="interrupted"
          text={`“${running.score.title}” was interrupted. What was played of it is kept.`}
          action={{ label: 'Go on with it', onPress: () => router.push('/stand') }}
        />
      ) : null}
      {draft ? (
        <Notice
          text="A take has been played and neither kept nor discarded."
          action={{ label: 'Look at it', onPress: () => router.push('/review') }}
        />
      ) : null}
    </>
  );
}

const TWO_DAYS = 2;

/** Seams that turned yesterday or today. */
function Turned({ instrumentId }: { instrumentId: string }) {
  const nameOf = useNoteName();
  const router = useRouter();
  const [today] = useState(() => Date.now() / DAY_MS);
  const turns = useTurns(instrumentId).filter(({ day }) => today - day < TWO_DAYS);
  return turns.map((turn) => (
    <Notice
      key={turn.takeId}
      testID="turn"
      text={turnSentence(turn, nameOf)}
      action={{
        label: 'Look at it',
        onPress: () => router.push(`/map/seam/${turn.from}-${turn.to}?instrument=${instrumentId}`),
      }}
    />
  ));
}

function LastTime({ entry }: { entry: Entry }) {
  const router = useRouter();
  return (
    <View style={{ gap: 8 }} testID="last-time">
      <Soft>{`Last time · ${agoText(new Date(entry.createdAt), new Date())} · ${entry.title}`}</Soft>
      <Heading>{entry.headline}</Heading>
      <Button look="quiet" label="Open that take" onPress={() => router.push(`/log/${entry.id}`)} />
    </View>
  );
}

const styles = StyleSheet.create({
  ways: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 26, rowGap: 4 },
});
