import { useCallback, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { findInstrument, instruments, nameWithin, writtenRange, type Instrument } from '@/core/instruments';
import type { Level } from '@/core/music';
import { ListenNow } from '@/features/stand';
import { useSettings, type Settings } from '@/store';
import { Body, BoreTube, Button, Heading, Screen, Soft, useNoteName } from '@/ui';

const LEVEL_WORDS: readonly { readonly level: Level; readonly title: string; readonly about: string }[] = [
  { level: 'beginner', title: 'An octave, more or less', about: 'Short exercises, wide limits.' },
  { level: 'steady', title: 'I play, and know my scales', about: 'Both registers, ordinary limits.' },
  {
    level: 'advanced',
    title: 'I have lessons, or play with others',
    about: 'Nearly all of the range, narrow limits.',
  },
  { level: 'exacting', title: 'I play for a living', about: 'All of the range, and nothing is let pass.' },
];

/** The first visit: three questions, one on a screen, each of which can be passed over. */
export function Welcome() {
  const { settings, change } = useSettings();
  const [step, setStep] = useState(0);
  const done = () => void change({ welcomed: true });
  const next = () => (step === 2 ? done() : setStep(step + 1));
  const instrument = findInstrument(settings.instrumentId, settings.ownInstruments) ?? instruments[0]!;
  const steps = [
    <WhichInstrument
      key="which"
      chosen={instrument}
      onChoose={(instrumentId) => void change({ instrumentId })}
    />,
    <HowFar key="far" chosen={settings.level} onChoose={(level) => void change({ level }).then(next)} />,
    <MayListen key="listen" instrument={instrument} settings={settings} />,
  ];
  const titles = ['What do you play?', 'How far along are you?', 'May it listen?'];
  return (
    <Screen
      caption={`${step + 1} of 3`}
      title={titles[step]!}
      foot={
        <Button
          look="main"
          large
          grow={1}
          label={
            step === 0 ? `The ${nameWithin(instrument)}, yes` : step === 1 ? 'As it is' : 'To the first plan'
          }
          onPress={next}
          testID="welcome-next"
        />
      }
    >
      {steps[step]}
      <View style={styles.ways}>
        {step > 0 ? <Button look="quiet" label="Back" onPress={() => setStep(step - 1)} /> : null}
        <Button look="quiet" label="Skip these questions" onPress={done} testID="skip-welcome" />
      </View>
    </Screen>
  );
}

function WhichInstrument({ chosen, onChoose }: { chosen: Instrument; onChoose: (id: string) => void }) {
  const nameOf = useNoteName();
  const { low, high } = writtenRange(chosen);
  return (
    <>
      <View style={styles.drawn}>
        <BoreTube instrument={chosen} height={200} chosen={() => false} />
        <Body style={styles.words}>
          {`Its registers as lengths of its tube, ${nameOf(low)} to ${nameOf(high)}. Where two meet is a seam: that is what you come here for.`}
        </Body>
      </View>
      <View style={styles.choices}>
        {instruments.map(({ id, name }) => (
          <Button
            key={id}
            look={id === chosen.id ? 'strong' : 'plain'}
            pressed={id === chosen.id}
            label={name}
            onPress={() => onChoose(id)}
          />
        ))}
      </View>
    </>
  );
}

function HowFar({ chosen, onChoose }: { chosen: Level; onChoose: (level: Level) => void }) {
  return LEVEL_WORDS.map(({ level, title, about }) => (
    <View key={level} style={styles.level}>
      <Button
        look={level === chosen ? 'strong' : 'plain'}
        pressed={level === chosen}
        label={title}
        onPress={() => onChoose(level)}
        testID={`level-${level}`}
      />
      <Soft>{about}</Soft>
    </View>
  ));
}

function MayListen({ instrument, settings }: { instrument: Instrument; settings: Settings }) {
  const [listens, setListens] = useState(false);
  const [heard, setHeard] = useState(false);
  const onHeard = useCallback(() => setHeard(true), []);
  return (
    <>
      <Body>
        Everything it tells you is measured from your sound, so it needs the microphone. The sound stays on
        this device and goes nowhere else. Your first session begins with a few seconds of silence, to know
        the room.
      </Body>
      {listens ? (
        <ListenNow instrument={instrument} settings={settings} onHeard={onHeard} />
      ) : (
        <Button look="strong" label="Let it listen" onPress={() => setListens(true)} testID="let-listen" />
      )}
      {heard ? <Heading testID="hears">It hears you.</Heading> : null}
      {listens && !heard ? (
        <Soft>
          If nothing comes: play louder, or nearer, and look whether the browser lets this page listen.
        </Soft>
      ) : null}
    </>
  );
}

const styles = StyleSheet.create({
  drawn: { flexDirection: 'row', gap: 14, alignItems: 'center' },
  words: { flex: 1, minWidth: 0 },
  choices: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  level: { gap: 4, alignItems: 'flex-start' },
  ways: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 26 },
});
