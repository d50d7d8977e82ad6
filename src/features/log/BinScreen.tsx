import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { DAY_MS } from '@/core/base';
import { plural } from '@/core/verdict';
import { BIN_DAYS, emptyBin, undeleteTake, useBin, useUnread, type Binned } from '@/store';
import { Body, Button, dayHeading, Heading, Screen, Soft, useOnwards } from '@/ui';

const WHY: Readonly<Record<Binned['why'], string>> = {
  deleted: 'deleted from the log',
  discarded: 'discarded when it was played',
  again: 'passed over for another playing',
  import: 'moved by an import',
  found: 'found again where the list of what was thrown away was lost',
};

/** What is in the log no more, and can be had back; what could not be read, and lies where it lay. */
export function BinScreen() {
  const router = useRouter();
  const onwards = useOnwards();
  const { data: bin } = useBin();
  const { data: unread } = useUnread();
  const now = new Date();
  return (
    <Screen caption="Log" title="The bin">
      {bin?.length === 0 ? (
        <Body>{`Takes that you delete, discard or play again lie here for ${BIN_DAYS} days. There are none now.`}</Body>
      ) : null}
      {bin?.map((each) => (
        <View key={each.id} testID="binned">
          <Heading>{each.title}</Heading>
          <Soft>{`${each.instrumentName} · ${dayHeading(new Date(each.playedAt), now)} · ${WHY[each.why]}`}</Soft>
          <Body>
            {each.why === 'found'
              ? 'Stays until you remove it'
              : `${plural(daysLeft(each, now), 'day')} left`}
          </Body>
          <Button
            look="quiet"
            label={`Have “${each.title}” back`}
            onPress={() => void onwards(undeleteTake(each.id), (was) => (was ? `/log/${each.id}` : null))}
          />
        </View>
      ))}
      {bin && bin.length > 0 ? <Emptying takes={bin.length} /> : null}
      {unread && unread.length > 0 ? (
        <View style={{ gap: 8 }}>
          <Heading>Could not be read</Heading>
          <Body>
            These records lie untouched where they lay. Each newer Gold Reed tries them again by itself.
          </Body>
          {unread.map(({ key, problem }) => (
            <Soft key={key} testID="unread-record">{`${key}: ${problem}`}</Soft>
          ))}
        </View>
      ) : null}
      <Button label="To the log" onPress={() => router.push('/log')} />
    </Screen>
  );
}

/** For who needs the room on the device now. Asked twice: this cannot be had back. */
function Emptying({ takes }: { takes: number }) {
  const [asked, setAsked] = useState(false);
  if (!asked)
    return <Button look="quiet" label="Empty the bin" testID="empty-bin" onPress={() => setAsked(true)} />;
  return (
    <View style={{ gap: 8 }} role="group" aria-label="Empty the bin">
      <Body>{`${plural(takes, 'take')} would be gone for good, sound and figures, and the room on this device free at once.`}</Body>
      <Button look="strong" label="Remove for good" testID="empty-bin-now" onPress={() => void emptyBin()} />
      <Button look="quiet" label="Leave the bin as it is" onPress={() => setAsked(false)} />
    </View>
  );
}

/** Never more than the bin gives, though the device's clock was set back. */
const daysLeft = ({ deletedAt }: Binned, now: Date): number =>
  Math.ceil(BIN_DAYS - Math.min(BIN_DAYS, Math.max(0, (now.getTime() - Date.parse(deletedAt)) / DAY_MS)));
