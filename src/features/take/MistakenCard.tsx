import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { Mistaken } from '@/core/hearing/matching';
import { nameWithin, type Instrument } from '@/core/instruments';
import type { Take } from '@/core/take';
import { changeDraft, putOnStand, useSettings } from '@/store';
import { Button } from '@/ui';

interface MistakenCardProps {
  readonly take: Take;
  readonly mistaken: Mistaken;
}

/** Something else was played: one tap to say that it was, and judge it so. */
export function MistakenCard({ take, mistaken }: MistakenCardProps) {
  const router = useRouter();
  const { change } = useSettings();
  const other = mistaken.kind === 'transposed' ? mistaken.instrument : null;
  const playedOn = async (instrument: Instrument) => {
    await change({ instrumentId: instrument.id });
    await changeDraft(take.id, (draft) => ({
      ...draft,
      instrument,
      score: { ...draft.score, instrumentId: instrument.id },
    }));
  };
  return (
    <View style={{ gap: 10, flexDirection: 'row', flexWrap: 'wrap' }}>
      {other ? (
        <Button
          look="strong"
          label={`It was the ${nameWithin(other)}`}
          onPress={() => void playedOn(other)}
          testID="other-instrument"
        />
      ) : null}
      <Button
        label="Play it as written"
        onPress={() => {
          void putOnStand(take.score, '/review');
          router.push('/stand');
        }}
      />
      <Button look="quiet" label="Choose what was played" onPress={() => router.push('/practise')} />
    </View>
  );
}
