import { View } from 'react-native';
import type { Settings } from '@/store';
import { Choice, Soft, Stepper } from '@/ui';
import type { SettingsProps } from './settingsProps';

/** Metronome, drone, headphones, and how a block begins. */
export function SoundSettings({ settings, change }: SettingsProps) {
  const { metronome, drone } = settings;
  const setMetronome = (part: Partial<Settings['metronome']>) =>
    void change({ metronome: { ...metronome, ...part } });
  return (
    <>
      <Choice<Settings['metronome']['mode']>
        label="Metronome"
        value={metronome.mode}
        onChange={(mode) => setMetronome({ mode })}
        options={[
          { value: 'sound', label: 'heard and seen' },
          { value: 'sight', label: 'seen only' },
          { value: 'off', label: 'off: you lead' },
        ]}
      />
      <Choice
        label="Clicks a beat"
        value={String(metronome.subdivision)}
        onChange={(value) => setMetronome({ subdivision: Number(value) })}
        options={['1', '2', '3', '4'].map((value) => ({ value, label: value }))}
      />
      <Choice
        label="First beat of a bar"
        value={metronome.accents ? 'accent' : 'plain'}
        onChange={(value) => setMetronome({ accents: value === 'accent' })}
        options={[
          { value: 'accent', label: 'accented' },
          { value: 'plain', label: 'like the others' },
        ]}
      />
      <Choice<Settings['startOn']>
        label="The count-in begins"
        value={settings.startOn}
        onChange={(startOn) => void change({ startOn })}
        options={[
          { value: 'key', label: 'at once' },
          { value: 'sound', label: 'when I play a note' },
        ]}
      />
      <View style={{ gap: 6 }}>
        <Choice<Settings['drone']['sound']>
          label="Drone"
          value={drone.sound}
          onChange={(sound) => void change({ drone: { ...drone, sound } })}
          options={[
            { value: 'reed', label: 'soft reed' },
            { value: 'pipe', label: 'pipe' },
            { value: 'string', label: 'struck string' },
          ]}
        />
        <Stepper
          label="Its volume"
          value={Math.round(drone.volume * 100)}
          low={10}
          high={100}
          step={10}
          text={`${Math.round(drone.volume * 100)} %`}
          onChange={(volume) => void change({ drone: { ...drone, volume: volume / 100 } })}
        />
      </View>
      <Choice
        label="Metronome and drone through"
        value={settings.headphones ? 'headphones' : 'loudspeaker'}
        onChange={(value) => void change({ headphones: value === 'headphones' })}
        options={[
          { value: 'loudspeaker', label: 'the loudspeaker' },
          { value: 'headphones', label: 'headphones' },
        ]}
      />
      <Soft>
        {settings.headphones
          ? 'Nothing of them reaches the microphone, so nothing is taken out. Keep the volume low.'
          : 'What is known of them is taken out of the recording; what they cover is told as not known. Headphones leave everything free.'}
      </Soft>
    </>
  );
}
