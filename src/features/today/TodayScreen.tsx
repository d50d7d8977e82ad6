import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { nameWithin } from '@/core/instruments';
import { turnSentence, type Entry } from '@/core/ledger';
import type { Take } from '@/core/take';
import { BeginButton, useExercise } from '@/features/library';
import { useTurns, useVerdict } from '@/features/take';
import { isExportDue } from './exportDue';
import { putOnStand, useDraft, useEntries, useHome, useRunning, useSettings, useTake } from '@/store';
import { agoText, Body, Button, dayText, Heading, Notice, Screen, Soft, useNoteName } from '@/ui';

export function TodayScreen() {
  const nameOf = useNoteName();
  const router = useRouter();
  const { data: home } = useHome();
  const { data: log } = useEntries(1);
  const { data: running } = useRunning();
  const { settings } = useSettings();
  const { data: draft } = useDraft();
  const last = log?.entries[0];
  const exercise = useExercise('long-tone');
  const score = exercise?.score.ok ? exercise.score.value : null;
  const freely = useExercise('free-playing')?.score;
  const free = freely?.ok ? freely.value : null;
  const note = score?.notes[0];
  return (
    <Screen
      caption={dayText(new Date())}
      title="One honest long tone"
      beside={last ? <LastTime entry={last} /> : null}
      foot={<BeginButton score={score} from="/" />}
    >
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
      {running ? (
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
      <Body>
        {last
          ? 'Before anything else today: one note, held, and listened to. It tells you where you start from.'
          : 'Hold one note. Gold Reed listens, says where it sat, how steady it was and how long it stayed pure, and keeps it so that you can compare.'}
      </Body>
      <View>
        <Soft>Next</Soft>
        <Heading>
          {note
            ? `${nameOf(note.written)}${exercise ? ` on the ${nameWithin(exercise.instrument)}` : ''}`
            : 'A long tone'}
        </Heading>
        <Body>
          {note && score
            ? score.tempo === null
              ? `About ${note.beats} seconds, in free time`
              : `${note.beats} beats at ${score.tempo}`
            : ''}
        </Body>
        <Button look="quiet" label="Choose another note" onPress={() => router.push('/exercise/long-tone')} />
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
        <Button look="quiet" label="Another exercise" onPress={() => router.push('/practise')} />
      </View>
    </Screen>
  );
}

const TWO_DAYS = 2;

/** Seams that turned yesterday or today. */
function Turned({ instrumentId }: { instrumentId: string }) {
  const nameOf = useNoteName();
  const router = useRouter();
  const [today] = useState(() => Date.now() / 86_400_000);
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
  const { data: take } = useTake(entry.id);
  return (
    <View style={{ gap: 8 }} testID="last-time">
      <Soft>{`Last time · ${agoText(new Date(entry.createdAt), new Date())}`}</Soft>
      {take ? <Said take={take} /> : <Heading>{entry.headline}</Heading>}
      <Button look="quiet" label="Open that take" onPress={() => router.push(`/log/${entry.id}`)} />
    </View>
  );
}

function Said({ take }: { take: Take }) {
  const { verdict } = useVerdict(take);
  return (
    <>
      <Heading>{verdict.headline}</Heading>
      <Body>{verdict.summary}</Body>
    </>
  );
}
