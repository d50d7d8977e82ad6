import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { Entry } from '@/core/ledger';
import { FIGURES, fixed, type FigureId } from '@/core/verdict';
import { usePlayed } from '@/store';
import { Body, Button, dayText, Heading, RowLink, Soft } from '@/ui';

const SHOWN = 3;
/** What of a check is told in its row. */
const TOLD = ['floor', 'ringing'] as const satisfies readonly FigureId[];

function valueText(id: FigureId, figures: Entry['figures']): string | null {
  const found = figures[id];
  return found ? `${fixed(found[0], FIGURES[id].decimals)} ${FIGURES[id].unit}` : null;
}

function toldOf(id: FigureId, figures: Entry['figures']): string[] {
  const text = valueText(id, figures);
  return text === null ? [] : [`${FIGURES[id].label.toLowerCase()} ${text}`];
}

/** What the last checks of the room said, and when; and the way to a new one. */
export function RoomChecks({ instrumentId }: { instrumentId: string }) {
  const router = useRouter();
  const { data: played } = usePlayed(instrumentId, false);
  const checks = (played ?? [])
    .map(({ entry }) => entry)
    .filter(({ family }) => family === 'room-check')
    .slice(-SHOWN)
    .reverse();
  const reference = checks.find(({ figures }) => figures['reference']);
  return (
    <View style={{ gap: 6 }} testID="room-checks">
      <Heading>The room</Heading>
      {checks.map(({ id, createdAt, headline, figures, room }) => (
        <RowLink key={id} href={`/log/${id}`}>
          <Body>{headline}</Body>
          <Soft>
            {[dayText(new Date(createdAt)), room, ...TOLD.flatMap((each) => toldOf(each, figures))]
              .filter(Boolean)
              .join(' · ')}
          </Soft>
        </RowLink>
      ))}
      {reference ? (
        <Body testID="level-reference">
          {`Level reference: your ordinary mf lay at ${valueText('reference', reference.figures)} (0 is the loudest that the microphone can take), ${dayText(new Date(reference.createdAt))}. Levels of two days can be compared by it while microphone and place stay the same.`}
        </Body>
      ) : null}
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
