import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { plural } from '@/core/verdict';
import type { Line } from '@/core/music';
import { readMusic, type Reading } from './importMusic';
import { LinesPanel } from './LinesPanel';
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
  download,
  fonts,
  Heading,
  Notice,
  RowLink,
  Screen,
  Soft,
  usePalette,
  useOnwards,
} from '@/ui';

/** A file with several parts, of which one is to be chosen. */
interface Choice {
  readonly file: File;
  readonly lines: readonly Line[];
}

/** The player's own music: brought in as MusicXML or MIDI. */
export function MusicScreen() {
  const router = useRouter();
  const onwards = useOnwards();
  const { settings } = useSettings();
  const { data: pieces, unread, error } = useMusic();
  const [problem, setProblem] = useState<string | null>(null);
  const palette = usePalette();
  const [reading, setReading] = useState<Reading | null>(null);
  const [choice, setChoice] = useState<Choice | null>(null);
  const instrument = instrumentIn(settings, settings.instrumentId);
  const read = async (file: File, line?: Line) => {
    if (!instrument) return;
    const begun = readMusic(file, instrument, line?.id);
    setReading(begun);
    setChoice(null);
    const music = await begun.read;
    setReading(null);
    setProblem(music.ok ? null : `${file.name}: ${music.problem}`);
    if (!music.ok) return;
    const { score, lines, remark } = music.value;
    if (line === undefined && lines.length > 1) {
      setChoice({ file, lines });
      return;
    }
    // Two parts of one file are told apart by their names.
    const title = line && lines.length > 1 ? `${score.title}, ${line.name}` : score.title;
    await onwards(
      addMusic({ fileName: file.name, score: { ...score, title }, remark }),
      ({ id }) => `/music/${id}`,
    );
  };
  const bringIn = async () => {
    const file = await askForFile('.musicxml,.mxl,.xml,.mid,.midi');
    if (file) await read(file);
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
        <>
          <Button
            large
            grow={1}
            label="Play one in"
            onPress={() => router.push('/exercise/free-playing')}
            testID="play-in"
          />
          <Button
            look="main"
            large
            grow={1}
            label="Bring in a file"
            disabled={reading !== null}
            onPress={() => void bringIn()}
            testID="import"
          />
        </>
      }
    >
      {reading ? (
        <Notice
          text={`Reading ${reading.file.name} …`}
          action={{ label: 'Cancel', onPress: reading.cancel }}
        />
      ) : null}
      {choice && instrument ? (
        <LinesPanel
          fileName={choice.file.name}
          lines={choice.lines}
          naming={settings.naming}
          onChoose={(line) => void read(choice.file, line)}
          onCancel={() => setChoice(null)}
        />
      ) : null}
      {problem ? <Notice problem text={problem} testID="problem" /> : null}
      {error ? <Notice problem text={error.message} /> : null}
      {unread.map(({ title, problem: why, stored }, i) => (
        <Notice
          key={i}
          problem
          testID="unread-piece"
          text={`“${title}” cannot be read here, and lies as it was (${why}). Your other music is not touched by it.`}
          action={{
            label: 'Save it as a file',
            onPress: () => download(`${title}.json`, JSON.stringify(stored), 'application/json'),
          }}
        />
      ))}
      <Body>
        A MusicXML file (.musicxml or .mxl) or a MIDI file. Gold Reed marks every crossing of a break, every
        vent and every weak note in it, and cuts any of these out as a drill. You choose the part, which is
        read as it is written; MIDI is read at sounding pitch.
      </Body>
      <Body>
        Or play a phrase in: play it twice, freely or to the metronome, stop, and choose “Set it down as
        music”.
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
