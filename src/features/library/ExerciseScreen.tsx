import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState, type ReactNode } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { DAY_MS } from '@/core/base';
import { beatsToSeconds, keysOfDay, keyTitle, scoreBeats, type Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import { BeginButton, ListenPanel } from './BeginPanel';
import { ModelPanel } from './ModelPanel';
import { downloadMidi, downloadMusicXml } from './files';
import { useExample } from './useExample';
import { useExercise, type Exercise } from './useExercise';
import { HowToRead, useAsRead } from '@/features/take';
import { useSettings } from '@/store';
import { Body, Button, Heading, Notation, Notice, Screen, Soft, useShape, useNoteName } from '@/ui';
import { ParameterControls } from './ParameterControls';
import { SendExercise } from './SendExercise';

export function ExerciseScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const exercise = useExercise(id);
  const router = useRouter();
  if (!exercise)
    return (
      <Notice
        problem
        text={`There is no exercise “${id}”.`}
        action={{ label: 'To the library', onPress: () => router.replace('/practise') }}
      />
    );
  return <ExercisePage {...exercise} />;
}

function lengthOf(score: Score): string {
  const seconds = Math.round(beatsToSeconds(score, scoreBeats(score)));
  return seconds < 60 ? `${seconds} s` : `${Math.floor(seconds / 60)} min ${seconds % 60} s`;
}

/** In the order a player needs: what to heed, the music, what it is for, Begin; then what can be changed; export last. */
function ExercisePage({ family, instrument, values, score, set, reset }: Exercise) {
  const { wide, height } = useShape();
  const { settings } = useSettings();
  const made = score.ok ? score.value : null;
  return (
    <Screen
      caption={instrument.name}
      title={family.title}
      foot={<BeginButton score={made} from={`/exercise/${family.id}`} />}
      beside={
        <>
          {'model' in family.specs ? (
            <ModelPanel instrument={instrument} score={made} values={values} onChange={set} />
          ) : null}
          <ParameterControls
            instrument={instrument}
            specs={family.specs}
            values={values}
            onChange={set}
            boreHeight={wide ? Math.min(460, height - 280) : 340}
          />
          {'key' in family.specs ? (
            <KeysOfToday instrument={instrument} onChoose={(key) => set({ key })} />
          ) : null}
          <Button look="quiet" label="As usual again" onPress={reset} />
          <AtHand id={family.id} />
          <ListenPanel />
          {made ? <Example instrument={instrument} score={made} a4={settings.a4} /> : null}
          {made ? (
            <Out
              score={made}
              instrument={instrument}
              printPath={`/print?exercise=${family.id}`}
              send={<SendExercise family={family} values={values} instrument={instrument} />}
            />
          ) : null}
        </>
      }
    >
      <Heed family={family} instrument={instrument} />
      {score.ok ? null : <Notice problem text={score.problem} testID="problem" />}
      {made ? <Music score={made} instrument={instrument} /> : null}
      {made ? <Terms score={made} instrument={instrument} /> : null}
      <About family={family} />
    </Screen>
  );
}

/** Time, length and what sounds along, in one line. */
function Terms({ score, instrument }: { score: Score; instrument: Instrument }) {
  const nameOf = useNoteName();
  const { tempo, swing, drone, longestSeconds } = score;
  return (
    <Soft>
      {[
        tempo === null ? 'free time' : `♩ ${tempo}`,
        swing ? 'swung quavers' : null,
        score.free ? null : lengthOf(score),
        drone.length > 0 && (!score.free || score.parameters['drone'] === true)
          ? `drone ${drone.map((note) => nameOf(note - instrument.transposition)).join(', ')} as written`
          : null,
        longestSeconds === null ? null : `ends by itself after ${longestSeconds / 60} min`,
      ]
        .filter((part) => part !== null)
        .join(' · ')}
    </Soft>
  );
}

/** Puts it first in the library, or takes it from there. */
function AtHand({ id }: { id: string }) {
  const { settings, change } = useSettings();
  const { atHand } = settings;
  const isAtHand = atHand.includes(id);
  return (
    <Button
      look="quiet"
      label={isAtHand ? '★ At hand in the library' : '☆ Keep at hand in the library'}
      pressed={isAtHand}
      testID="at-hand"
      onPress={() =>
        void change({ atHand: isAtHand ? atHand.filter((each) => each !== id) : [...atHand, id] })
      }
    />
  );
}

/** What can hurt, and what is not agreed: before anything is set or begun. */
function Heed({ family, instrument }: Pick<Exercise, 'family' | 'instrument'>) {
  const lines = [
    ...[family.caution, ...instrument.cautions]
      .filter((each) => each !== null)
      .map((text) => `Take care: ${text}`),
    ...(family.differ === null ? [] : [`Teachers differ: ${family.differ}`]),
  ];
  if (lines.length === 0) return null;
  return (
    <View style={styles.about} testID="heed">
      {lines.map((line) => (
        <Soft key={line}>{line}</Soft>
      ))}
    </View>
  );
}

/** An easy and a hard key each day. */
function KeysOfToday({ instrument, onChoose }: { instrument: Instrument; onChoose: (key: string) => void }) {
  const [{ easy, hard }] = useState(() => keysOfDay(Math.floor(Date.now() / DAY_MS), instrument));
  return (
    <View>
      <Soft>Today’s keys</Soft>
      <View style={styles.row}>
        <Button look="quiet" label={`easy: ${keyTitle(easy)}`} onPress={() => onChoose(String(easy))} />
        <Button look="quiet" label={`hard: ${keyTitle(hard)}`} onPress={() => onChoose(String(hard))} />
      </View>
    </View>
  );
}

/** On a phone the first lines, so that what can be set is near; all of it on demand. */
function Music({ score, instrument }: { score: Score; instrument: Instrument }) {
  const read = useAsRead(score, instrument);
  const { wide } = useShape();
  const [whole, setWhole] = useState(false);
  // Until it is engraved, as much room as it is likely to take: what stands below must not move under a finger.
  const likely = score.notes.length > SHORT ? BEGINNING + 1 : ONE_LINE;
  const [engraved, setEngraved] = useState(0);
  const isEngraved = engraved >= ONE_LINE / 2 || score.notes.length === 0;
  const fits = (isEngraved ? engraved : likely) <= BEGINNING;
  const cut = !wide && !whole;
  return (
    <View style={styles.block}>
      <View style={[cut && styles.beginning, !isEngraved && { minHeight: Math.min(likely, BEGINNING) }]}>
        <View onLayout={(event) => setEngraved(event.nativeEvent.layout.height)}>
          <Notation {...read} scale={wide ? 1.15 : 1.35} />
        </View>
      </View>
      {score.notes.length > 0 ? <HowToRead instrument={instrument} clefs /> : null}
      {!wide && !fits ? (
        <Button
          look="quiet"
          label={whole ? 'The beginning only' : 'All of the music'}
          onPress={() => setWhole(!whole)}
        />
      ) : null}
    </View>
  );
}

function Example({ score, instrument, a4 }: { score: Score; instrument: Instrument; a4: number }) {
  const example = useExample(score, instrument, a4);
  if (score.notes.length === 0) return null;
  const busy = example.state !== 'silent';
  return (
    <View style={styles.block}>
      <Heading>Hear it</Heading>
      <View style={styles.row}>
        <Button
          label={busy && example.kind === 'clean' ? 'Stop' : 'Played cleanly'}
          onPress={() => (busy && example.kind === 'clean' ? example.stop() : example.play('clean'))}
        />
        <Button
          label={busy && example.kind === 'faulty' ? 'Stop' : 'With the usual fault'}
          onPress={() => (busy && example.kind === 'faulty' ? example.stop() : example.play('faulty'))}
        />
      </View>
      <Soft testID="example">
        {example.state === 'preparing'
          ? 'The simulated player gets ready …'
          : example.state === 'playing' && example.kind === 'faulty'
            ? `Listen for ${example.listenFor}.`
            : 'By the simulated player: a stand-in, not a musician.'}
      </Soft>
    </View>
  );
}

interface OutProps {
  readonly score: Score;
  readonly instrument: Instrument;
  readonly printPath: string;
  readonly send: ReactNode;
}

function Out({ score, instrument, printPath, send }: OutProps) {
  const router = useRouter();
  if (score.notes.length === 0) return null;
  return (
    <View style={styles.block}>
      <Heading>Take it along</Heading>
      <View style={styles.row}>
        <Button label="A sheet to print" onPress={() => router.push(printPath)} />
        <Button label="MusicXML" onPress={() => void downloadMusicXml(score, instrument)} />
        <Button label="MIDI" onPress={() => void downloadMidi(score, instrument)} />
        {send}
      </View>
    </View>
  );
}

/** What it is for, how it is done and when to stop; on a phone the first two, a line each, that open. */
function About({ family }: Pick<Exercise, 'family'>) {
  const parts = [
    ['For', family.what],
    ['How', family.how],
    ['Listen for', family.listen],
    ['Enough', family.enough],
    ['Measured', family.measured],
  ] as const;
  const { wide } = useShape();
  const [open, setOpen] = useState(wide);
  if (open)
    return (
      <View style={styles.about}>
        {parts.map(([name, text]) => (
          <View key={name}>
            <Heading>{name}</Heading>
            <Body>{text}</Body>
          </View>
        ))}
        <Button look="quiet" label="Shorter" onPress={() => setOpen(false)} />
      </View>
    );
  return (
    <Pressable
      role="button"
      aria-expanded={false}
      onPress={() => setOpen(true)}
      style={styles.about}
      testID="about"
    >
      {parts.slice(0, 2).map(([name, text]) => (
        <Body key={name} lines={1}>{`${name}: ${text}`}</Body>
      ))}
      <Soft>More ›</Soft>
    </Pressable>
  );
}

/** Height of the first lines, about two and a half. */
const BEGINNING = 330;
/** Music of so few notes is likely to stand in one line of this height. */
const SHORT = 6;
const ONE_LINE = 130;

const styles = StyleSheet.create({
  beginning: { maxHeight: BEGINNING, overflow: 'hidden' },
  block: { gap: 8 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
  about: { gap: 6 },
});
