import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { nameWithin } from '@/core/instruments';
import type { Take } from '@/core/take';
import { BeginButton, useExercise } from '@/features/library';
import { useVerdict } from '@/features/take';
import { useDraft, useHome, useLog } from '@/store';
import { agoText, Body, Button, dayText, Heading, Notice, Screen, Soft, useNoteName } from '@/ui';

export function TodayScreen() {
  const nameOf = useNoteName();
  const router = useRouter();
  const { data: home } = useHome();
  const { data: log } = useLog();
  const { data: draft } = useDraft();
  const last = log?.takes[0];
  const exercise = useExercise('long-tone');
  const score = exercise?.score.ok ? exercise.score.value : null;
  const note = score?.notes[0];
  return (
    <Screen
      caption={dayText(new Date())}
      title="One honest long tone"
      beside={last ? <LastTime take={last} /> : null}
      foot={<BeginButton score={score} from="/" />}
    >
      {home?.whose === 'demo' ? (
        <Notice
          text="This is the log of Odile Farrant, an invented player who gets ready for the Lantern Night at Hollin Weir. Your own log is separate."
          action={{ label: 'Whose log: see Bench', onPress: () => router.push('/bench') }}
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
        <Button look="quiet" label="Another exercise" onPress={() => router.push('/practise')} />
      </View>
    </Screen>
  );
}

function LastTime({ take }: { take: Take }) {
  const router = useRouter();
  const { verdict } = useVerdict(take);
  return (
    <View style={{ gap: 8 }}>
      <Soft>{`Last time · ${agoText(new Date(take.createdAt), new Date())}`}</Soft>
      <Heading>{verdict.headline}</Heading>
      <Body>{verdict.summary}</Body>
      <Button look="quiet" label="Open that take" onPress={() => router.push(`/log/${take.id}`)} />
    </View>
  );
}
