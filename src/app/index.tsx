import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { findInstrument } from '@/core/instruments';
import { displayName } from '@/core/tuning';
import { useDraft, useHome, useLog, useSettings } from '@/store';
import { agoText, Body, Button, dayText, Heading, Notice, Screen, Soft, Strip, verdictOf } from '@/ui';

export default function Today() {
  const router = useRouter();
  const { data: home } = useHome();
  const { data: log } = useLog();
  const { data: draft } = useDraft();
  const { settings } = useSettings();
  const last = log?.takes[0];
  const { instrumentId, written, beats, tempo } = settings.longTone;
  const instrument = findInstrument(instrumentId)?.name.toLowerCase() ?? instrumentId;
  return (
    <Screen
      caption={dayText(new Date())}
      title="One honest long tone"
      beside={
        last ? (
          <View style={{ gap: 8 }}>
            <Soft>{`Last time · ${agoText(new Date(last.createdAt), new Date())}`}</Soft>
            <Heading>{verdictOf(last).headline}</Heading>
            <Body>{verdictOf(last).summary}</Body>
            <Strip take={last} height={90} />
            <Button look="quiet" label="Open that take" onPress={() => router.push(`/log/${last.id}`)} />
          </View>
        ) : null
      }
      foot={
        <Button
          look="main"
          large
          grow={1}
          label="Begin"
          onPress={() => router.push('/stand')}
          testID="begin"
        />
      }
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
        <Heading>{`${displayName(written)} on the ${instrument}`}</Heading>
        <Body>{tempo === null ? `About ${beats} seconds, in free time` : `${beats} beats at ${tempo}`}</Body>
        <Button look="quiet" label="Choose another note" onPress={() => router.push('/practise')} />
      </View>
    </Screen>
  );
}
