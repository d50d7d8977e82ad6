import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { usePlayed } from '@/store';
import { Body, Button, dayText, Heading, RowLink, Soft } from '@/ui';

const SHOWN = 3;

/** What the last checks of the room said, and when; and the way to a new one. */
export function RoomChecks({ instrumentId }: { instrumentId: string }) {
  const router = useRouter();
  const { data: played } = usePlayed(instrumentId, false);
  const checks = (played ?? [])
    .map(({ entry }) => entry)
    .filter(({ family }) => family === 'room-check')
    .slice(-SHOWN)
    .reverse();
  return (
    <View style={{ gap: 6 }} testID="room-checks">
      <Heading>The room</Heading>
      {checks.map(({ id, createdAt, headline }) => (
        <RowLink key={id} href={`/log/${id}`}>
          <Body>{headline}</Body>
          <Soft>{dayText(new Date(createdAt))}</Soft>
        </RowLink>
      ))}
      {played && checks.length === 0 ? (
        <Body>
          Not looked at in the last half year: what an echo or a fan does to a figure is then told from the
          takes themselves.
        </Body>
      ) : null}
      <Button look="quiet" label="Check the room" onPress={() => router.push('/exercise/room-check')} />
    </View>
  );
}
