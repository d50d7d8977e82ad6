import { useLocalSearchParams, useRouter } from 'expo-router';
import { View } from 'react-native';
import { useHearing } from './useHearing';
import { TakeView } from './later';
import { deleteTake, putOnStand, undeleteTake, useBin, useTake, useUnread } from '@/store';
import { turnSentence } from '@/core/ledger';
import type { Take } from '@/core/take';
import { Body, Button, Notice, Screen, Soft, useNoteName } from '@/ui';
import { SetDown } from './SetDown';
import { useTurns } from './useTurns';

/** A seam that turned at this take: told here, and nowhere again. */
function Turns({ take }: { take: Take }) {
  const nameOf = useNoteName();
  const turns = useTurns(take.score.instrumentId).filter(({ takeId }) => takeId === take.id);
  return turns.map((turn) => (
    <Notice key={`${turn.from}-${turn.to}`} testID="turn" text={turnSentence(turn, nameOf)} />
  ));
}

export function TakeScreen() {
  const router = useRouter();
  const { id, quiet } = useLocalSearchParams<{ id: string; quiet?: string }>();
  const { data: take, isLoading } = useTake(id);
  const { playing, toggle } = useHearing(take);
  const { data: bin } = useBin();
  const { data: unread } = useUnread();
  const problem = unread?.find(({ key }) => key === `take/${id}`)?.problem;
  if (isLoading || !bin) return null;
  if (bin.some((each) => each.id === id))
    return (
      <Screen title="In the bin">
        <Notice
          text="The take is out of the log, and lies in the bin. It can be had back for a week."
          action={{ label: 'Undo', onPress: () => void undeleteTake(id) }}
        />
        <Button label="To the log" onPress={() => router.replace('/log')} />
      </Screen>
    );
  if (!take)
    return (
      <Screen title={problem ? 'This take cannot be read' : 'This take is not here'}>
        <Body>
          {problem
            ? `It could not be read (${problem}). It lies untouched where it lay, and each newer Gold Reed tries it again by itself.`
            : 'It may have been deleted, or belong to the other log.'}
        </Body>
        <Button label="To the log" onPress={() => router.replace('/log')} />
      </Screen>
    );
  return (
    <TakeView
      take={take}
      path={`/log/${id}`}
      hear={
        take.audio ? (
          <Button label={playing ? 'Stop listening' : 'Hear it'} onPress={toggle} testID="hear" />
        ) : (
          <Soft>The sound of this take was not kept.</Soft>
        )
      }
      foot={
        <>
          <Button large grow={1} label="To the log" onPress={() => router.replace('/log')} />
          <Button
            look="strong"
            large
            grow={1.6}
            label="Play it again"
            onPress={() => {
              void putOnStand(take.score, `/log/${id}`);
              router.push('/stand');
            }}
          />
        </>
      }
    >
      <Turns take={take} />
      {quiet ? (
        <Notice text="The take is kept without its sound: there is no room left for sound. Bench shows how much is used." />
      ) : null}
      {take.remark ? (
        <View>
          <Soft>Your remark</Soft>
          <Body testID="remark">{take.remark}</Body>
        </View>
      ) : null}
      <SetDown take={take} />
      <Button
        look="quiet"
        label="Beside another take of this music"
        testID="compare"
        onPress={() => router.push(`/log/compare?id=${take.id}`)}
      />
      <Button
        look="quiet"
        label="Delete this take"
        testID="delete"
        onPress={() => void deleteTake(take.id)}
      />
    </TakeView>
  );
}
