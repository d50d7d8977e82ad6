import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  boundsProblem,
  excerpt,
  inTwelveKeys,
  passageOf,
  placesIn,
  tempoText,
  wholeOf,
  type Place,
  type Score,
} from '@/core/music';
import { type Instrument } from '@/core/instruments';
import { weakNotes } from '@/core/ledger';
import { BeginButton, ListenPanel } from '@/features/library';
import { downloadMidi, downloadMusicXml, useExample } from '@/features/library';
import { DrillsOfIt } from './DrillsOfIt';
import { KeysPanel, type Keys } from './KeysPanel';
import { PassagePanel } from './PassagePanel';
import { rememberRemoved } from './removedPiece';
import { HowToRead, useAsRead } from '@/features/take';
import { removeMusic, useCells, useMusic, useSettings, instrumentIn } from '@/store';
import { Body, Button, Heading, Notation, Notice, Screen, Soft, useShape, useOnwards } from '@/ui';

const KINDS: Readonly<Record<Place['kind'], string>> = {
  seam: 'Across a break',
  vent: 'The hand at once',
  weak: 'Weak on your map',
  outside: 'Out of range',
};

/** What is longer is no phrase to be taken through the keys. */
const MOST_IN_KEYS = 120;

export function PieceScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { data: pieces } = useMusic();
  const { settings } = useSettings();
  const router = useRouter();
  const onwards = useOnwards();
  const piece = pieces?.find((each) => each.id === id);
  const instrument = instrumentIn(settings, settings.instrumentId);
  if (!pieces) return null;
  if (!piece || !instrument)
    return (
      <Notice
        problem
        text="This piece is not among your music."
        action={{ label: 'To your music', onPress: () => router.replace('/music') }}
      />
    );
  const remove = () => onwards(removeMusic(piece.id).then(rememberRemoved), () => '/music', 'replace');
  const bounds = boundsProblem(piece.score);
  if (bounds !== null)
    return (
      <Screen title={piece.score.title}>
        <Notice problem text={`This music cannot be shown: ${bounds}.`} />
        <Button label="Remove it" onPress={() => void remove()} testID="remove" />
      </Screen>
    );
  return (
    <PieceView
      key={piece.id}
      id={piece.id}
      score={piece.score}
      remark={piece.remark}
      instrument={instrument}
      onRemove={() => void remove()}
    />
  );
}

interface PieceViewProps {
  readonly id: string;
  readonly score: Score;
  readonly remark: string | null;
  readonly instrument: Instrument;
  readonly onRemove: () => void;
}

/** Own music with its places marked; a place that is chosen is cut out as a drill. */
function PieceView({ id, score, remark, instrument, onRemove }: PieceViewProps) {
  const { wide } = useShape();
  const { settings } = useSettings();
  const { data: cells } = useCells(instrument.id);
  const places = useMemo(
    () => placesIn(score, instrument, settings.naming, weakNotes(Object.values(cells ?? {}), instrument)),
    [score, instrument, settings.naming, cells],
  );
  const read = useAsRead(score, instrument);
  const marked = useMemo(() => new Set(places.map((place) => place.note)), [places]);
  const [chosen, setChosen] = useState<Place | null>(null);
  const drill = useMemo(
    () =>
      chosen
        ? {
            ...excerpt(score, chosen.note - (chosen.kind === 'seam' ? 1 : 2), chosen.note + 1),
            instrumentId: instrument.id,
          }
        : null,
    [score, chosen, instrument],
  );
  const [passage, setPassage] = useState(() => wholeOf(score));
  const [keys, setKeys] = useState<Keys>('own');
  // It is played on the instrument of the moment, whatever it was brought in for.
  const { own, isPhrase, roundKeys } = useMemo(() => {
    const part = { ...passageOf(score, passage), instrumentId: instrument.id };
    const isPhrase = part.notes.length <= MOST_IN_KEYS;
    return { own: part, isPhrase, roundKeys: isPhrase ? inTwelveKeys(part, instrument) : null };
  }, [score, passage, instrument]);
  const played = useMemo(
    () => (keys === 'own' || !roundKeys ? own : { ...roundKeys, byEar: keys === 'by-ear' }),
    [keys, own, roundKeys],
  );
  const example = useExample(drill, instrument, settings.a4);
  return (
    <Screen
      caption={instrument.name}
      title={score.title}
      foot={
        <BeginButton
          score={drill ?? played}
          from={`/music/${id}`}
          label={drill ? 'Begin the drill' : 'Begin'}
        />
      }
      beside={
        <>
          <PassagePanel score={score} passage={passage} onChange={setPassage} />
          {isPhrase ? (
            <KeysPanel score={roundKeys} keys={keys} onChange={setKeys} instrument={instrument} />
          ) : null}
          <ListenPanel />
          {drill && chosen ? (
            <View style={styles.block} testID="drill">
              <Heading>{`Just this: ${chosen.text}`}</Heading>
              <Notation score={drill} instrument={instrument} scale={wide ? 1.15 : 1.35} />
              <Soft>{`${drill.repeats} times${drill.tempo === null ? '' : `, ${tempoText(drill)}`}`}</Soft>
              <View style={styles.row}>
                <Button
                  label={example.state === 'silent' ? 'Hear it' : 'Stop'}
                  onPress={() => (example.state === 'silent' ? example.play('clean') : example.stop())}
                />
                <Button label="MusicXML" onPress={() => void downloadMusicXml(drill, instrument)} />
                <Button label="MIDI" onPress={() => void downloadMidi(drill, instrument)} />
              </View>
            </View>
          ) : null}
          <Places places={places} onChoose={setChosen} />
          <DrillsOfIt pieceId={id} score={score} instrument={instrument} />
          <Button look="quiet" label="Remove this piece" onPress={onRemove} testID="remove" />
        </>
      }
    >
      {remark ? <Soft testID="remark">{remark}</Soft> : null}
      <Notation {...read} scale={wide ? 1.15 : 1.35} marked={marked} />
      <HowToRead instrument={instrument} clefs />
    </Screen>
  );
}

function Places({ places, onChoose }: { places: readonly Place[]; onChoose: (place: Place) => void }) {
  if (places.length === 0) return <Body>Nothing in it crosses a break or asks for a vent.</Body>;
  return (
    <View style={styles.block}>
      <Heading>{`${places.length} ${places.length === 1 ? 'place' : 'places'} to know of`}</Heading>
      {(Object.keys(KINDS) as Place['kind'][]).map((kind) => {
        // The same crossing met again is the same work.
        const here = places.filter(
          (place, i) => place.kind === kind && places.findIndex((each) => each.text === place.text) === i,
        );
        return here.length === 0 ? null : (
          <View key={kind}>
            <Soft>{KINDS[kind]}</Soft>
            {here.map((place) => (
              <Button key={place.text} look="quiet" label={place.text} onPress={() => onChoose(place)} />
            ))}
          </View>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  block: { gap: 8 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
});
