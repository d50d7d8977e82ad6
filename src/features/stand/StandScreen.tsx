import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useAwake } from '@/features/sound';
import { StandStage } from './later';
import {
  instrumentIn,
  useBlock,
  useRunning,
  useSettings,
  type Block,
  type Running,
  type Settings,
} from '@/store';
import { Notice, PaletteProvider, Screen, stage } from '@/ui';

/** The dim stage: the music, the thread, one word. Nothing to touch once it has begun. */
export function StandScreen() {
  useAwake();
  const { settings, ready } = useSettings();
  const { data: block } = useBlock();
  const { data: running, isValidating } = useRunning();
  // What was so when the stand was come to: what is kept while playing changes nothing here.
  const [found, setFound] = useState<StandProps | null>(null);
  const known = ready && block !== undefined && running !== undefined && !isValidating;
  if (!found && known) setFound({ settings, block, running });
  return found ? <Stand {...found} /> : <View style={{ flex: 1, backgroundColor: stage.paper }} />;
}

interface StandProps {
  readonly settings: Settings;
  readonly block: Block | null;
  readonly running: Running | null;
}

function Stand({ settings, block, running }: StandProps) {
  const router = useRouter();
  // A block that was interrupted comes first: what was heard of it must not be lost.
  const score = running?.score ?? block?.score;
  const instrument = score && instrumentIn(settings, score.instrumentId);
  return (
    <PaletteProvider palette={stage}>
      {score && instrument ? (
        <StandStage
          score={score}
          instrument={instrument}
          settings={settings}
          running={running}
          onDone={() => router.replace('/review')}
          onLeave={() => router.replace(block?.from ?? '/practise')}
        />
      ) : (
        <Screen title={score ? 'The instrument is missing' : 'Nothing is on the stand'}>
          <Notice
            text={
              score
                ? `This music is for an instrument that is not known here (${score.instrumentId}). Choose another exercise, or bring the instrument in.`
                : 'Choose an exercise or a piece of your own, and begin it.'
            }
            action={{ label: 'To the library', onPress: () => router.replace('/practise') }}
          />
        </Screen>
      )}
    </PaletteProvider>
  );
}
