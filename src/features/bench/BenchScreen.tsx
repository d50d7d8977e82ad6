import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { ArchivePanel } from './ArchivePanel';
import { JudgingSettings } from './JudgingSettings';
import { SoundSettings } from './SoundSettings';
import { TuningSettings } from './TuningSettings';
import { changeHome, useHome, useSettings, useStorageUse, type Settings } from '@/store';
import { Body, Button, Choice, Heading, Screen, Soft, Stepper } from '@/ui';

const CAUTIONS = [
  'Dizzy, numb or short of breath: stop, breathe normally, and hold shorter. Lip or jaw sore: stop for today.',
  'Piccolo, top registers, drones on headphones and small hard rooms are loud: protect your ears and keep the volume low.',
  'Rest between holds, drink water. Pain, numbness or a change in hearing: see a doctor or a hearing specialist. Gold Reed gives practice advice, no medical advice.',
];

const megabytes = (bytes: number) => (bytes / 1_000_000).toFixed(bytes < 10_000_000 ? 1 : 0);

export function BenchScreen() {
  const router = useRouter();
  const { settings, change } = useSettings();
  const { data: use } = useStorageUse();
  const { data: home } = useHome();
  return (
    <Screen
      caption="Bench"
      title="How it is set up"
      beside={
        <>
          <View style={{ gap: 8 }}>
            <Heading>Take care</Heading>
            {CAUTIONS.map((caution) => (
              <Body key={caution}>{caution}</Body>
            ))}
          </View>
          <View style={{ gap: 4 }}>
            <Heading>Keys on the stand</Heading>
            <Body>
              Space starts and stops; the right pedal, arrow or Page down goes on; the left one, Page up or R
              plays the breath again. M metronome, D drone, H hides the pitch, ? shows this, Escape leaves.
            </Body>
          </View>
        </>
      }
    >
      <Button label="Reeds and set-ups" testID="to-reeds" onPress={() => router.push('/bench/reeds')} />
      <Stepper
        label="Pitch standard, A4"
        value={settings.a4}
        low={392}
        high={466}
        text={`${settings.a4} Hz`}
        onChange={(a4) => void change({ a4 })}
      />
      <TuningSettings settings={settings} change={change} />
      <Choice<Settings['theme']>
        label="Light"
        value={settings.theme}
        onChange={(theme) => void change({ theme })}
        options={[
          { value: 'system', label: 'as the device' },
          { value: 'paper', label: 'paper' },
          { value: 'stage', label: 'dim stage' },
        ]}
      />
      <Choice<Settings['naming']>
        label="Names of notes"
        value={settings.naming}
        onChange={(naming) => void change({ naming })}
        options={[
          { value: 'english', label: 'C D E … B♭ B' },
          { value: 'german', label: 'C D E … B H' },
          { value: 'fixed-do', label: 'do re mi' },
        ]}
      />
      <SoundSettings settings={settings} change={change} />
      <JudgingSettings settings={settings} change={change} />
      <View style={{ gap: 6 }}>
        <Choice
          label="Sound of kept takes"
          value={settings.keepAudio ? 'keep' : 'drop'}
          onChange={(value) => void change({ keepAudio: value === 'keep' })}
          options={[
            { value: 'keep', label: 'keep it' },
            { value: 'drop', label: 'figures only' },
          ]}
        />
        <Stepper
          label="Room for sound"
          value={settings.audioQuotaMegabytes}
          low={50}
          high={2000}
          step={50}
          text={`${settings.audioQuotaMegabytes} MB`}
          onChange={(audioQuotaMegabytes) => void change({ audioQuotaMegabytes })}
        />
        <Soft testID="storage-use">
          {use
            ? `${megabytes(use.audioBytes)} MB of it used by ${use.takes} takes; a minute takes about 6 MB.`
            : ' '}
        </Soft>
      </View>
      <ArchivePanel settings={settings} change={change} />
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
    </Screen>
  );
}
