import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { longTone, type LongTone } from '@/core/exercises';
import { findInstrument, registerOf } from '@/core/instruments';
import { displayName } from '@/core/tuning';
import { askForRecording, chooseFile, chosenFile } from '@/practice';
import { useSettings } from '@/store';
import { Body, Bore, Button, Choice, fonts, Notice, Screen, Soft, Stepper, Title, useShape } from '@/ui';

const SLOWEST = 40;
const FASTEST = 120;

export default function LongTone() {
  const router = useRouter();
  const { settings, change } = useSettings();
  const { wide, height } = useShape();
  const [file, setFile] = useState(chosenFile());
  const tone = settings.longTone;
  const instrument = findInstrument(tone.instrumentId);
  const score = longTone(tone);
  const set = (part: Partial<LongTone>) => void change({ longTone: { ...tone, ...part } });
  const pickFile = async () => {
    const picked = await askForRecording();
    if (!picked) return;
    chooseFile(picked);
    setFile(picked);
  };
  const waitsForFile = settings.source === 'file' && !file;
  if (!instrument) return <Notice problem text={`There is no instrument “${tone.instrumentId}”.`} />;
  const semitones = { ...instrument, step: 1 as const };
  const boreHeight = wide ? Math.min(620, height - 230) : 372;
  return (
    <Screen
      caption="Long tone"
      title="Hold one note"
      foot={
        <Button
          look="main"
          large
          grow={1}
          disabled={!score.ok || waitsForFile}
          label={waitsForFile ? 'Choose a recording first' : 'Begin'}
          onPress={() => router.push('/stand')}
          testID="begin"
        />
      }
      beside={
        <>
          <Choice
            label="Vibrato"
            value={tone.vibrato}
            onChange={(vibrato) => set({ vibrato })}
            options={[
              { value: 'none', label: 'none' },
              { value: 'free', label: 'as you like' },
              { value: 'wanted', label: 'wanted' },
            ]}
          />
          <Choice
            label="Listen to"
            value={settings.source}
            onChange={(source) => void change({ source })}
            options={[
              { value: 'microphone', label: 'microphone' },
              { value: 'simulated', label: 'simulated player' },
              { value: 'file', label: 'a recording' },
            ]}
          />
          {settings.source === 'file' ? (
            <View style={styles.file}>
              <Body style={styles.shrink}>{file ? file.name : 'No recording chosen yet.'}</Body>
              <Button
                label={file ? 'Choose another' : 'Choose a recording'}
                onPress={() => void pickFile()}
              />
            </View>
          ) : null}
          <Soft>
            What is measured: centre, drift, wobble, vibrato, evenness of level, purity time, attack. Dizzy,
            numb or short of breath: stop, breathe normally, hold shorter.
          </Soft>
        </>
      }
    >
      <View style={styles.file}>
        <Soft>{instrument.name}</Soft>
        <Button look="quiet" label="Another instrument" onPress={() => router.push('/instruments')} />
      </View>
      <View style={styles.noteRow}>
        <Bore
          // Long tones are measured against semitones.
          instrument={semitones}
          value={tone.written}
          onChange={(written) => set({ written })}
          height={boreHeight}
        />
        <View style={styles.beside}>
          <View>
            <Soft>Note, as written</Soft>
            <Title style={styles.noteName} testID="note-name">
              {displayName(tone.written)}
            </Title>
            <Soft>{`${registerOf(instrument, tone.written).name} register`}</Soft>
          </View>
          <Stepper
            label="Hold"
            value={tone.beats}
            low={2}
            high={32}
            text={tone.tempo === null ? `${tone.beats} s` : `${tone.beats} beats`}
            onChange={(beats) => set({ beats })}
          />
          <Choice
            label="Time"
            value={tone.tempo === null ? 'free' : 'metronome'}
            onChange={(time) => set({ tempo: time === 'free' ? null : 60 })}
            options={[
              { value: 'metronome', label: 'metronome' },
              { value: 'free', label: 'free' },
            ]}
          />
          {tone.tempo === null ? null : (
            <Stepper
              label="Tempo"
              value={tone.tempo}
              low={SLOWEST}
              high={FASTEST}
              step={2}
              text={`♩ ${tone.tempo}`}
              onChange={(tempo) => set({ tempo })}
            />
          )}
        </View>
      </View>
      {score.ok ? null : <Notice problem text={score.problem} />}
    </Screen>
  );
}

const styles = StyleSheet.create({
  noteRow: { flexDirection: 'row', gap: 14 },
  beside: { flex: 1, gap: 14, minWidth: 0 },
  noteName: { fontFamily: fonts.display, fontSize: 52, lineHeight: 62 },
  file: { gap: 10, alignItems: 'flex-start' },
  shrink: { flexShrink: 1 },
});
