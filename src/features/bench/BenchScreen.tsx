import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { nameWithin } from '@/core/instruments';
import { changeHome, instrumentIn, useHome, useSettings } from '@/store';
import { Body, Button, Choice, Heading, Screen } from '@/ui';
import { ArchivePanel } from './ArchivePanel';
import { DeviceSync } from './DeviceSync';
import { RoomChecks } from './RoomChecks';
import { SoundRoom } from './SoundRoom';

const CAUTIONS = [
  'Dizzy, numb or short of breath: stop, breathe normally, and hold shorter. Lip or jaw sore: stop for today.',
  'Piccolo, top registers, drones on headphones and small hard rooms are loud: protect your ears and keep the volume low.',
  'Rest between holds, drink water. Pain, numbness or a change in hearing: see a doctor or a hearing specialist. Gold Reed gives practice advice, no medical advice.',
];

/** The workshop: what is played on, what it is heard with, and what is kept of it. */
export function BenchScreen() {
  const router = useRouter();
  const { settings, change } = useSettings();
  const { data: home } = useHome();
  const instrument = instrumentIn(settings, settings.instrumentId);
  return (
    <Screen
      caption="Bench"
      title="What you play on"
      beside={
        <>
          <ArchivePanel settings={settings} change={change} />
          <View style={{ gap: 8 }}>
            <Heading>Take care</Heading>
            {CAUTIONS.map((caution) => (
              <Body key={caution}>{caution}</Body>
            ))}
          </View>
        </>
      }
    >
      <View style={{ gap: 4 }}>
        <Button
          label={instrument ? `Instruments: ${nameWithin(instrument)}` : 'Instruments'}
          testID="to-instruments"
          onPress={() => router.push('/instruments')}
        />
        <Button label="Reeds and set-ups" testID="to-reeds" onPress={() => router.push('/bench/reeds')} />
        <Button label="Settings" testID="to-settings" onPress={() => router.push('/bench/settings')} />
      </View>
      <DeviceSync settings={settings} change={change} />
      <View style={{ gap: 6 }}>
        <Heading>What is kept</Heading>
        <SoundRoom settings={settings} change={change} />
      </View>
      {home?.demoOffered ? (
        <Choice
          label="Whose log"
          value={home.whose}
          onChange={(whose) => void changeHome(whose)}
          options={[
            { value: 'demo', label: 'Odile’s (demo)' },
            { value: 'mine', label: 'my own' },
          ]}
        />
      ) : null}
      <RoomChecks instrumentId={settings.instrumentId} />
    </Screen>
  );
}
