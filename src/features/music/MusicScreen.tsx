import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { plural } from '@/core/verdict';
import { readMusic, type Reading } from './importMusic';
import { rememberRemoved, removedPiece } from './removedPiece';
import {
  addMusic,
  instrumentIn,
  removeMusic,
  restoreMusic,
  useMusic,
  useSettings,
  type Piece,
} from '@/store';
import {
  askForFile,
  Body,
  Button,
  dayText,
  fonts,
  Heading,
  Notice,
  RowLink,
  Screen,
  Soft,
  usePalette,
} from '@/ui';

/** The player's own music: brought in as MusicXML or MIDI. */
export function MusicScreen() {
  const router = useRouter();
  const { settings } = useSettings();
  const { data: pieces, error } = useMusic();
  const [problem, setProblem] = useState<string | null>(null);
  const palette = usePalette();
  const [reading, setReading] = useState<Reading | null>(null);
  const bringIn = async () => {
    const instrument = instrumentIn(settings, settings.instrumentId);
    const file = instrument && (await askForFile('.musicxml,.mxl,.xml,.mid,.midi'));
    if (!file) return;
    const begun = readMusic(file, instrument);
    setReading(begun);
    const score = await begun.score;
    setReading(null);
    setProblem(score.ok ? null : `${begun.fileName}: ${score.problem}`);
    if (!score.ok) return;
    const piece = await addMusic(begun.fileName, score.value);
    router.push(`/music/${piece.id}`);
  };
  const [removed, setRemoved] = useState(removedPiece);
  const remove = async (id: string) => {
    const piece = await removeMusic(id);
    rememberRemoved(piece);
    setRemoved(piece);
  };
  return (
    <Screen
      caption="My own music"
      title="What you are working on"
      foot={
        <Button
          look="main"
          large
          grow={1}
          label="Bring in a file"
          disabled={reading !== null}
          onPress={() => void bringIn()}
          testID="import"
        />
      }
    >
      {reading ? (
        <Notice
          text={`Reading ${reading.fileName} …`}
          action={{ label: 'Cancel', onPress: reading.cancel }}
        />
      ) : null}
      {problem ? <Notice problem text={problem} testID="problem" /> : null}
      {error ? <Notice problem text={error.message} /> : null}
      <Body>
        A MusicXML file (.musicxml or .mxl) or a MIDI file. Gold Reed marks every crossing of a break, every
        vent and every weak note in it, and cuts any of these out as a drill. It reads the first part, as it
        is written for your instrument; MIDI is read at sounding pitch.
      </Body>
      {pieces?.map((piece) => (
        <View key={piece.id} style={[styles.piece, { borderTopColor: palette.hairline }]}>
          <RowLink href={`/music/${piece.id}`} style={styles.link}>
            <Heading style={styles.name}>{piece.score.title}</Heading>
            <Soft>{`${piece.fileName} · ${plural(piece.score.notes.length, 'note')} · ${dayText(new Date(piece.addedAt))}`}</Soft>
          </RowLink>
          <Button
            look="quiet"
            label="Remove"
            spoken={`Remove “${piece.score.title}”`}
            onPress={() => void remove(piece.id)}
          />
        </View>
      ))}
      <Removed piece={removed} onBack={() => setRemoved(null)} />
    </Screen>
  );
}

/** Removing can be undone. */
function Removed({ piece, onBack }: { piece: Piece | null; onBack: () => void }) {
  if (!piece) return null;
  const undo = async () => {
    await restoreMusic(piece);
    rememberRemoved(null);
    onBack();
  };
  return (
    <Notice
      text={`“${piece.score.title}” was removed.`}
      action={{ label: 'Undo', onPress: () => void undo() }}
    />
  );
}

const styles = StyleSheet.create({
  piece: { borderTopWidth: 1, flexDirection: 'row', alignItems: 'center', gap: 8 },
  link: { flex: 1, minWidth: 0, paddingVertical: 12, gap: 2 },
  name: { fontFamily: fonts.display, fontSize: 20, lineHeight: 26 },
});
