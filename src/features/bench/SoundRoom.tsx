import { View } from 'react-native';
import { useStorageUse } from '@/store';
import { Choice, Soft, Stepper } from '@/ui';
import type { SettingsProps } from './settingsProps';

const megabytes = (bytes: number) => (bytes / 1_000_000).toFixed(bytes < 10_000_000 ? 1 : 0);

/** Whether the sound of takes is kept, and how much room it may take. */
export function SoundRoom({ settings, change }: SettingsProps) {
  const { data: use } = useStorageUse();
  return (
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
  );
}
