import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { SCHOOLS } from '@/core/verdict/coach';
import type { Settings } from '@/store';
import { Button, Choice, Soft } from '@/ui';
import type { SettingsProps } from './settingsProps';

/** How exacting the judging is, and whose advice is followed. */
export function JudgingSettings({ settings, change }: SettingsProps) {
  const router = useRouter();
  return (
    <View style={{ gap: 6 }}>
      <Choice<Settings['level']>
        label="How exacting to be"
        value={settings.level}
        onChange={(level) => void change({ level })}
        options={(['beginner', 'steady', 'advanced', 'exacting'] as const).map((value) => ({
          value,
          label: value,
        }))}
      />
      <Button look="quiet" label="The table of limits" onPress={() => router.push('/limits')} />
      <Choice<Settings['school']>
        label="Advice from the school of"
        value={settings.school}
        onChange={(school) => void change({ school })}
        options={SCHOOLS.map(({ id, name }) => ({ value: id, label: name }))}
      />
      <Soft>{SCHOOLS.find(({ id }) => id === settings.school)?.about}</Soft>
    </View>
  );
}
