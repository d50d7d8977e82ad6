import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { JudgedNote, Judgement, Verdict } from '@/core/verdict';
import type { Note } from '@/core/hearing/notes';
import type { Take } from '@/core/take';
import { useElsewhere } from './useElsewhere';
import { usePlace } from './usePlace';
import { Body, Button, momentText, Soft } from '@/ui';
import { CloseUp } from './laterDetail';
import { NoteRow } from './NoteRow';

/** So many notes are shown at once; more are a tap away. */
const FEW = 8;

interface TakeStripProps {
  readonly take: Take;
  readonly judgement: Judgement;
  readonly verdict: Verdict;
}

/** The take's notes one under the other, each with what happened in it; a tap opens its close-up. */
export function TakeStrip({ take, judgement, verdict }: TakeStripProps) {
  const { notes, seams, ranked } = judgement;
  const [open, setOpen] = useState<number | null>(null);
  const [all, setAll] = useState(false);
  const seamInto = useMemo(() => new Map(seams.map((seam) => [seam.to.group.index, seam])), [seams]);
  // What the headline is about comes first among what stood out, in the order of the music.
  const worst = new Set(ranked[0]?.faults.map(({ group }) => group));
  const others = new Set(judgement.faults.map(({ group }) => group));
  const troubled = notes.filter(({ match }) => others.has(match.group.index));
  const foremost = [
    ...troubled.filter(({ match }) => worst.has(match.group.index)),
    ...troubled.filter(({ match }) => !worst.has(match.group.index)),
  ].slice(0, FEW);
  const stoodOut = notes.filter((judged) => foremost.includes(judged));
  const few = notes.length > FEW + 4 && !all;
  const shown = few ? (stoodOut.length > 0 ? stoodOut : notes.slice(0, FEW)) : notes;
  const heard = (judged: JudgedNote) =>
    judged.match.note === null ? null : (take.notes[judged.match.note] ?? null);
  const first = notes.find((judged) => judged.match.state === 'played');
  const firstNote = first && heard(first);
  const reference =
    first && firstNote ? { name: verdict.notes[first.match.group.index]!.name, note: firstNote } : null;
  return (
    <View testID="strip">
      {few ? <Soft>{stoodOut.length > 0 ? 'The notes that stood out' : 'The beginning'}</Soft> : null}
      {shown.map((judged) => {
        const { index } = judged.match.group;
        const isOpen = open === index;
        return (
          <View key={index}>
            <NoteRow
              judged={judged}
              words={verdict.notes[index]!}
              note={heard(judged)}
              span={spanOf(judged, take)}
              trace={take.trace}
              open={isOpen}
              onPress={() => setOpen(isOpen ? null : index)}
            />
            {isOpen ? (
              <CloseUp
                judged={judged}
                words={verdict.notes[index]!}
                note={heard(judged)}
                seam={seamInto.get(index) ?? null}
                reference={reference}
                trace={take.trace}
              >
                <HearPlace take={take} judged={judged} />
              </CloseUp>
            ) : null}
          </View>
        );
      })}
      {notes.length > FEW + 4 ? (
        <Button
          look="quiet"
          label={all ? 'Fewer' : `All ${notes.length} notes`}
          onPress={() => setAll(!all)}
          testID="all-notes"
        />
      ) : null}
    </View>
  );
}

/** All of a note, what sounded in it besides included; null where it was not heard. */
function spanOf({ match, marks }: JudgedNote, take: Take): Pick<Note, 'startSeconds' | 'endSeconds'> | null {
  const parts = match.parts.flatMap((i) => take.notes[i] ?? []);
  const [first] = parts;
  if (!first) return null;
  const ends = [...parts, ...marks.map(({ event }) => event)].map(({ endSeconds }) => endSeconds);
  return { startSeconds: first.startSeconds, endSeconds: Math.max(...ends) };
}

/** The sound of just this place, looped, also in turn with the same note of another take. */
function HearPlace({ take, judged }: { take: Take; judged: JudgedNote }) {
  const { match } = judged;
  const span = spanOf(judged, take);
  const { sounding } = match.group;
  const other = useElsewhere(take, sounding);
  const { state, play, stop } = usePlace(take, other);
  if (!take.audio) return <Soft>The sound of this take was not kept.</Soft>;
  if (!span) return null;
  const toggle = (wanted: 'this' | 'both') =>
    state === wanted ? stop() : void play(wanted, span.startSeconds, span.endSeconds);
  return (
    <View style={styles.hear}>
      <Button
        label={state === 'this' ? 'Stop' : 'Hear just this, over and over'}
        onPress={() => toggle('this')}
        testID="hear-place"
      />
      {other ? (
        <Button
          label={state === 'both' ? 'Stop' : `In turn with ${momentText(new Date(other.take.createdAt))}`}
          onPress={() => toggle('both')}
        />
      ) : (
        <Body>No other take has this note yet.</Body>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  hear: { flexDirection: 'row', flexWrap: 'wrap', gap: 10, alignItems: 'center' },
});
