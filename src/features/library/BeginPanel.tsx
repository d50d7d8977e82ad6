import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import type { Score } from '@/core/music';
import { askForRecording, chooseFile, useChosenFile } from '@/features/sound';
import { putOnStand, useSettings, type Settings } from '@/store';
import { Body, Button, Choice, Soft } from '@/ui';
import { SetupPanel } from './SetupPanel';

/** Where the sound comes from, and what is so today. */
export function ListenPanel() {
  const { settings, change } = useSettings();
  const file = useChosenFile();
  const pick = async () => {
    const picked = await askForRecording();
    if (picked) chooseFile(picked);
  };
  return (
    <View style={styles.panel}>
      <Choice<Settings['source']>
        label="Listen to"
        value={settings.source}
        onChange={(source) => void change({ source })}
        options={[
          { value: 'microphone', label: 'microphone' },
          { value: 'simulated', label: 'simulated player' },
          { value: 'file', label: 'a recording' },
        ]}
      />
      {settings.source === 'simulated' ? (
        <Choice<Settings['simulatedIn']>
          label="Heard"
          value={settings.simulatedIn}
          onChange={(simulatedIn) => void change({ simulatedIn })}
          options={[
            { value: 'dry', label: 'close by, no room' },
            { value: 'living', label: 'in a living room' },
          ]}
        />
      ) : null}
      {settings.source === 'file' ? (
        <>
          <Body style={styles.shrink}>{file ? file.name : 'No recording chosen yet.'}</Body>
          <Button label={file ? 'Choose another' : 'Choose a recording'} onPress={() => void pick()} />
          <Soft>A recording has its own time: nothing beats along with it.</Soft>
        </>
      ) : null}
      <SetupPanel />
    </View>
  );
}

/** The one golden key of an exercise. @param from path to come back to. */
export function BeginButton({
  score,
  from,
  label = 'Begin',
}: {
  score: Score | null;
  from: string;
  label?: string;
}) {
  const router = useRouter();
  const { settings } = useSettings();
  const file = useChosenFile();
  const waitsForFile = settings.source === 'file' && !file && (score?.notes.length ?? 0) > 0;
  return (
    <Button
      look="main"
      large
      grow={1}
      disabled={!score || waitsForFile}
      label={waitsForFile ? 'Choose a recording first' : label}
      onPress={() => {
        if (!score) return;
        void putOnStand(score, from);
        router.push('/stand');
      }}
      testID="begin"
    />
  );
}

const styles = StyleSheet.create({
  panel: { gap: 10, alignItems: 'flex-start' },
  shrink: { flexShrink: 1 },
});
