import { Pressable, StyleSheet, View, type ViewStyle } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import type { JudgedNote, NoteWords } from '@/core/verdict';
import type { Note } from '@/core/hearing/notes';
import type { Trace } from '@/core/take';
import { Body, Heading, Soft } from '@/ui';
import { fonts, usePalette } from '@/ui';
import { MARKS } from './marks';
import { Ribbon } from './Ribbon';

interface NoteRowProps {
  readonly judged: JudgedNote;
  /** The same in words. */
  readonly words: NoteWords;
  readonly note: Note | null;
  /** From when to when it is drawn: all of it, where something sounded within. */
  readonly span: Pick<Note, 'startSeconds' | 'endSeconds'> | null;
  readonly trace: Trace;
  readonly open: boolean;
  readonly onPress: () => void;
}

const HEIGHT = 46;
/** Rows that are out of sight cost nothing: the browser leaves them unpainted. */
const UNSEEN = { contentVisibility: 'auto', containIntrinsicSize: 'auto 66px' } as unknown as ViewStyle;

/** One note of the strip: its name, its pitch and level over its time, what happened in it, where it sat. */
export function NoteRow({ judged, words, note, span, trace, open, onPress }: NoteRowProps) {
  const palette = usePalette();
  const { marks, match } = judged;
  const { name, word, manner } = words;
  const slur = words.slurFaults.slice(0, 2).join(', ');
  return (
    <Pressable
      role="button"
      aria-expanded={open}
      testID={`note-${match.group.index}`}
      onPress={onPress}
      style={[UNSEEN, styles.row, { borderBottomColor: palette.hairline }]}
    >
      {slur !== '' || marks.length > 0 || words.faults.length > 0 ? (
        <View style={styles.happened}>
          {marks.map((mark, i) => (
            <View key={i} style={styles.mark}>
              <Svg width={20} height={20} viewBox="-10 -10 20 20">
                <Path d={MARKS[mark.event.kind]} fill="none" stroke={palette.gold} strokeWidth={2.2} />
              </Svg>
              <Soft style={[styles.word, { color: palette.goldText }]}>{words.marks[i]}</Soft>
            </View>
          ))}
          {words.faults.map((fault) => (
            <Soft key={fault} style={[styles.word, { color: palette.ink }]}>
              {fault}
            </Soft>
          ))}
          {slur !== '' ? (
            <View style={styles.mark}>
              <Svg width={26} height={20} viewBox="0 0 26 20">
                <Path d="M0 10 H9 M13 10 H16 M20 10 H26" stroke={palette.softInk} strokeWidth={2.4} />
              </Svg>
              <Soft style={[styles.word, { color: palette.ink }]}>{`slur: ${slur}`}</Soft>
            </View>
          ) : null}
        </View>
      ) : null}
      <View style={styles.line}>
        <Heading style={styles.name}>{name}</Heading>
        <View style={styles.drawing}>
          <Ribbon
            trace={trace}
            height={HEIGHT}
            part={span && insideOf(span, trace)}
            fromSeconds={span?.startSeconds}
            toSeconds={span?.endSeconds}
            middleMidi={match.state === 'played' || !note ? match.group.sounding : note.soundingMidi}
          />
        </View>
        <View style={styles.said}>
          <Body style={styles.where}>{word}</Body>
          <Soft style={styles.second}>{manner}</Soft>
        </View>
      </View>
    </Pressable>
  );
}

/** Points of the trace that hold a slur belong to both notes: they are the way, not the note. */
function insideOf(
  { startSeconds, endSeconds }: Pick<Note, 'startSeconds' | 'endSeconds'>,
  { stepSeconds }: Trace,
) {
  return { startSeconds: startSeconds + 0.5 * stepSeconds, endSeconds: endSeconds - 1.5 * stepSeconds };
}

const styles = StyleSheet.create({
  row: { borderBottomWidth: 1, paddingVertical: 6 },
  line: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  name: { width: 54, fontSize: 21 },
  drawing: { flex: 1, minWidth: 0, height: HEIGHT },
  said: { width: 92, alignItems: 'flex-end' },
  where: { fontFamily: fonts.bold, textAlign: 'right' },
  second: { textAlign: 'right', lineHeight: 18 },
  happened: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 14, paddingLeft: 60 },
  mark: { flexDirection: 'row', alignItems: 'center', gap: 4, flexShrink: 1 },
  word: { fontFamily: fonts.bold, flexShrink: 1 },
});
