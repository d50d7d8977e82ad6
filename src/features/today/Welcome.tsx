import { useCallback, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { findInstrument, instruments, nameWithin, writtenRange, type Instrument } from '@/core/instruments';
import type { Level } from '@/core/music';
import type { Take } from '@/core/take';
import type { Verdict } from '@/core/verdict';
import { ListenNow, RoomNow } from '@/features/stand';
import { judgeTake } from '@/features/take';
import { discardDraft, keepDraft, usePlayed, useSettings, type Settings } from '@/store';
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
    <HowFar
      key="far"
      chosen={settings.level}
      onChoose={(level) => {
        void change({ level });
        // At once: a press on the foot meanwhile is meant for the question after this one.
        next();
      }}
    />,
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
  const [step, setStep] = useState<'asked' | 'listening' | 'heard' | 'checking' | 'checked'>('asked');
  const [room, setRoom] = useState<Verdict | null>(null);
  // The first plan follows from it: so it is read again with the check, and no plan from before is shown for a moment.
  usePlayed(instrument.id, false);
  const onHeard = useCallback(() => setStep((now) => (now === 'listening' ? 'heard' : now)), []);
  const onChecked = (take: Take) =>
    void keptRoom(take, settings).then((said) => {
      setRoom(said);
      setStep('checked');
    });
  const check = (
    <Button
      look="strong"
      label="Listen to the room"
      onPress={() => setStep('checking')}
      testID="check-room"
    />
  );
  return (
    <>
      <Body>
        Everything it tells you is measured from your sound, so it needs the microphone. The sound stays on
        this device and goes nowhere else.
      </Body>
      {step === 'asked' ? (
        <Button
          look="strong"
          label="Let it listen"
          onPress={() => setStep('listening')}
          testID="let-listen"
        />
      ) : null}
      {step === 'listening' || step === 'heard' ? (
        <ListenNow instrument={instrument} settings={settings} onHeard={onHeard} />
      ) : null}
      {step === 'listening' ? (
        <Soft>
          If nothing comes: play louder, or nearer, and look whether the browser lets this page listen.
        </Soft>
      ) : null}
      {step === 'heard' ? (
        <>
          <Heading testID="hears">It hears you.</Heading>
          <Body>
            Now the room: silence, then one ordinary note, then silence again. After that it knows what the
            room adds to your sound.
          </Body>
          {check}
        </>
      ) : null}
      {step === 'checking' ? (
        <RoomNow instrument={instrument} settings={settings} onDone={onChecked} />
      ) : null}
      {step === 'checked' ? (
        <View aria-live="polite" style={styles.level} testID="room-told">
          <Heading>{room?.headline ?? 'It heard no note'}</Heading>
          {room ? <Body>{room.summary}</Body> : null}
          <Soft>
            {room === null
              ? 'Nothing is kept of it. Listen to the room once more, or do it in your first session.'
              : 'It is kept in your log. Do it again when you play in another place.'}
          </Soft>
          {room === null ? check : null}
        </View>
      ) : null}
    </>
  );
}

/** Keeps a check of the room. @returns what is said of it; null where no note was heard, and nothing is kept. */
async function keptRoom(take: Take, settings: Settings): Promise<Verdict | null> {
  if (take.notes.length === 0) {
    await discardDraft(take.id);
    return null;
  }
  const { verdict } = await judgeTake(take, settings);
  await keepDraft(take.id, '');
  return verdict;
}

const styles = StyleSheet.create({
  drawn: { flexDirection: 'row', gap: 14, alignItems: 'center' },
  words: { flex: 1, minWidth: 0 },
  choices: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  level: { gap: 4, alignItems: 'flex-start' },
  ways: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 26 },
});
