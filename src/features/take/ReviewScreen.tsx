import { useRouter } from 'expo-router';
import { useState } from 'react';
import type { Score } from '@/core/music';
import { useHearing } from './useHearing';
import { discardDraft, keepDraft, putOnStand, undeleteTake, useDraft } from '@/store';
import { RoomForSound } from './RoomForSound';
import { SetDown } from './SetDown';
import { TakeView } from './later';
import { Body, Button, Field, Notice, Screen, useKeys, useOnwards } from '@/ui';

/** The take that has just been played: look, listen, keep or discard. */
export function ReviewScreen() {
  const router = useRouter();
  const onwards = useOnwards();
  const { data: draft, isLoading } = useDraft();
  const { playing, toggle } = useHearing(draft);
  const [remark, setRemark] = useState('');
  const [discarded, setDiscarded] = useState<string | null>(null);
  const keep = (id: string) =>
    onwards(
      keepDraft(id, remark),
      ({ take, soundKept }) => ({
        pathname: '/log/[id]',
        params: { id: take.id, ...(soundKept ? {} : { quiet: '1' }) },
      }),
      'replace',
    );
  const again = (score: Score) => {
    void putOnStand(score, '/review');
    router.replace('/stand');
  };
  const onKeep = () => draft && void keep(draft.id);
  const onAgain = () => draft && again(draft.score);
  // As on the stand: a pedal goes on, or plays it again.
  useKeys({
    ArrowRight: onKeep,
    PageDown: onKeep,
    ArrowLeft: onAgain,
    PageUp: onAgain,
    r: onAgain,
    ' ': toggle,
  });
  if (isLoading) return null;
  if (!draft) {
    return (
      <Screen title={discarded ? 'Discarded' : 'Nothing to look at'}>
        {discarded ? (
          <Notice
            text="The take lies in the bin. It can be had back for a week."
            action={{
              label: 'Undo',
              onPress: () => void onwards(undeleteTake(discarded), () => `/log/${discarded}`, 'replace'),
            }}
          />
        ) : (
          <Body>A take that you have just played is shown here before it is kept.</Body>
        )}
        <Button look="strong" label="Play" onPress={() => router.replace('/stand')} />
      </Screen>
    );
  }
  return (
    <TakeView
      take={draft}
      path="/review"
      hear={<Button label={playing ? 'Stop listening' : 'Hear it'} onPress={toggle} testID="hear" />}
      foot={
        <>
          <Button large grow={1} label="Again" onPress={onAgain} />
          <Button look="main" large grow={1.6} label="Keep" onPress={onKeep} testID="keep" />
        </>
      }
    >
      <SetDown take={draft} />
      <RoomForSound bytes={draft.audio?.bytes ?? 0} />
      <Field
        label="Your remark"
        placeholder="A remark of your own: reed, room, what you tried"
        value={remark}
        onChange={setRemark}
        long
      />
      <Button
        look="quiet"
        label="Discard this take"
        onPress={() => void discardDraft(draft.id).then(() => setDiscarded(draft.id))}
        testID="discard"
      />
    </TakeView>
  );
}
