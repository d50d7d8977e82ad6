import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet } from 'react-native';
import { importMusic } from './importMusic';
import { rememberRemoved, removedPiece } from './removedPiece';
import { addMusic, restoreMusic, useMusic, useSettings, instrumentIn } from '@/store';
import { Body, Button, dayText, fonts, Heading, Notice, RowLink, Screen, Soft, usePalette } from '@/ui';

/** The player's own music: brought in as MusicXML or MIDI. */
export function MusicScreen() {
  const router = useRouter();
  const { settings } = useSettings();
  const { data: pieces, error } = useMusic();
  const [problem, setProblem] = useState<string | null>(null);
  const palette = usePalette();
  const bringIn = async () => {
    const instrument = instrumentIn(settings, settings.instrumentId);
    const read = instrument && (await importMusic(instrument));
    if (!read) return;
    if (!read.score.ok) {
      setProblem(`${read.fileName}: ${read.score.problem}`);
      return;
    }
    setProblem(null);
    const piece = await addMusic(read.fileName, read.score.value);
    router.push(`/music/${piece.id}`);
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
          onPress={() => void bringIn()}
          testID="import"
        />
      }
    >
      {problem ? <Notice problem text={problem} testID="problem" /> : null}
      {error ? <Notice problem text={error.message} /> : null}
      <Body>
        A MusicXML file (.musicxml or .mxl) or a MIDI file. Gold Reed marks every crossing of a break, every
        vent and every weak note in it, and cuts any of these out as a drill. It reads the first part, as it
        is written for your instrument; MIDI is read at sounding pitch.
      </Body>
      {pieces?.map((piece) => (
        <RowLink
          key={piece.id}
          href={`/music/${piece.id}`}
          label={piece.score.title}
          style={[styles.piece, { borderTopColor: palette.hairline }]}
        >
          <Heading style={styles.name}>{piece.score.title}</Heading>
          <Soft>{`${piece.fileName} · ${piece.score.notes.length} notes · ${dayText(new Date(piece.addedAt))}`}</Soft>
        </RowLink>
      ))}
      <Removed />
    </Screen>
  );
}

/** Removing can be undone. */
function Removed() {
  const [piece, setPiece] = useState(removedPiece);
  if (!piece) return null;
  const undo = async () => {
    await restoreMusic(piece);
    rememberRemoved(null);
    setPiece(null);
  };
  return (
    <Notice
      text={`“${piece.score.title}” was removed.`}
      action={{ label: 'Undo', onPress: () => void undo() }}
    />
  );
}

const styles = StyleSheet.create({
  piece: { borderTopWidth: 1, paddingVertical: 12, gap: 2 },
  name: { fontFamily: fonts.display, fontSize: 20, lineHeight: 26 },
});
