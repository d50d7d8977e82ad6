import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Instrument } from '@/core/instruments';
import type { Score } from '@/core/music';
import { plural } from '@/core/verdict';
import { useExample } from '@/features/library';
import { addMusic, instrumentIn, useDraft, useSettings, useTake } from '@/store';
import {
  Body,
  Button,
  Choice,
  Field,
  Notation,
  Notice,
  Screen,
  Soft,
  Stepper,
  useNoteName,
  useShape,
  useOnwards,
} from '@/ui';
import { NoteMender } from './NoteMender';
import { beatsInBar, METRES, scoreOfPhrase, usePhrase, type MetreName } from './usePhrase';

const timesText = (times: number) => (times === 2 ? 'twice' : `${times} times`);

/** A phrase that was played in, set down as music, mended note by note, named and kept. */
export function PhraseScreen() {
  const router = useRouter();
  const { take: id } = useLocalSearchParams<{ take: string }>();
  const { settings } = useSettings();
  const { data: kept, isLoading: keptLoads } = useTake(id);
  const { data: draft, isLoading: draftLoads } = useDraft();
  const take = draft?.id === id ? draft : kept;
  const instrument = instrumentIn(settings, take?.score.instrumentId ?? settings.instrumentId);
  if (keptLoads || draftLoads) return null;
  if (!take?.score.free || take.score.notes.length === 0 || !instrument)
    return (
      <Screen title="No phrase">
        <Notice
          problem
          text="A phrase is read out of free playing in which notes were heard. Play one, then choose “Set it down as music”."
          action={{ label: 'Play one', onPress: () => router.replace('/exercise/free-playing') }}
        />
      </Screen>
    );
  return <Played key={take.id} played={take.score} instrument={instrument} />;
}

function Played({ played, instrument }: { played: Score; instrument: Instrument }) {
  const onwards = useOnwards();
  const { wide } = useShape();
  const nameOf = useNoteName();
  const { settings } = useSettings();
  const [title, setTitle] = useState('');
  const held = usePhrase(played);
  const { phrase } = held;
  const { chosen, notes, playings, unlike, metre, begins, counting } = phrase;
  const name = title.trim() === '' ? 'A phrase of mine' : title.trim();
  const score = useMemo(() => scoreOfPhrase(phrase, name, instrument), [phrase, name, instrument]);
  const example = useExample(score, instrument, settings.a4);
  const marked = useMemo(() => new Set([chosen]), [chosen]);
  const keep = () =>
    onwards(addMusic({ fileName: 'played in', score, remark: null }), ({ id }) => `/music/${id}`, 'replace');
  return (
    <Screen
      caption={`Played in · ${instrument.name}`}
      title={name}
      foot={
        <Button look="main" large grow={1} label="Keep it" onPress={() => void keep()} testID="keep-phrase" />
      }
      beside={
        <>
          <NoteMender {...held} instrument={instrument} />
          <View style={styles.row}>
            <Choice<MetreName>
              label="Metre"
              value={metre}
              onChange={held.setMetre}
              options={(Object.keys(METRES) as MetreName[]).map((value) => ({ value, label: value }))}
            />
            <Stepper
              label="Begins on beat"
              value={begins}
              low={1}
              high={beatsInBar(metre)}
              text={String(begins)}
              onChange={held.begin}
            />
            <Stepper
              label="Counted at"
              value={counting.tempo}
              low={30}
              high={240}
              text={`${counting.tempo} beats a minute`}
              onChange={held.count}
            />
          </View>
          <View style={styles.row}>
            <Button
              label="Count it twice as slowly"
              disabled={counting.tempo < 60}
              onPress={() => held.count(Math.round(counting.tempo / 2))}
            />
            <Button
              label="Twice as fast"
              disabled={counting.tempo > 120}
              onPress={() => held.count(2 * counting.tempo)}
            />
          </View>
          <Soft>
            Counting it otherwise reads it anew; what was mended by hand is then undone, and Undo brings it
            back.
          </Soft>
          <Field label="Its name" placeholder="A phrase of mine" value={title} onChange={setTitle} />
        </>
      }
    >
      <Body testID="phrase-told">
        {playings === 1
          ? `${plural(notes.length, 'note')}, played once. Played twice, what was not the same is pointed out.`
          : unlike.length === 0
            ? `${plural(notes.length, 'note')}, played ${timesText(playings)}, the last time as the time before.`
            : `${plural(notes.length, 'note')}, played ${timesText(playings)}. Look at ${unlike.map((i) => nameOf(notes[i]!.written)).join(', ')}: not the same as the time before; the last is shown.`}
      </Body>
      <Notation score={score} instrument={instrument} scale={wide ? 1.15 : 1.35} marked={marked} />
      <View style={styles.row}>
        <Button
          label={example.state === 'silent' ? 'Hear it as it is written' : 'Stop'}
          onPress={() => (example.state === 'silent' ? example.play('clean') : example.stop())}
        />
      </View>
    </Screen>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 14 },
});
