import { StyleSheet, View } from 'react-native';
import type { Instrument } from '@/core/instruments';
import { restAfter, withLength, withOneAfter, without, withPitch, withRest, withSlur } from '@/core/music';
import { Button, Heading, Soft, Stepper, useKeys, useNoteName } from '@/ui';
import type { usePhrase } from './usePhrase';

type Held = ReturnType<typeof usePhrase>;
type NoteMenderProps = Pick<Held, 'phrase' | 'choose' | 'mend' | 'undo' | 'canUndo'> & {
  readonly instrument: Instrument;
};

const PARTS: Readonly<Record<number, string>> = {
  3: '¼',
  4: '⅓',
  6: '½',
  8: '⅔',
  9: '¾',
  2: '⅙',
  10: '⅚',
};
const TWELFTHS = 12;

/** `1½ beats`; a twelfth of one is the finest that is told apart. */
function lengthText(beats: number): string {
  const twelfths = Math.round(TWELFTHS * beats);
  const whole = Math.floor(twelfths / TWELFTHS);
  const part = PARTS[twelfths % TWELFTHS] ?? '';
  const number = `${whole > 0 || part === '' ? whole : ''}${part}`;
  return `${number} ${twelfths <= TWELFTHS ? 'beat' : 'beats'}`;
}

/** One note of a phrase after the other, mended by taps or by keys. */
export function NoteMender({ phrase, choose, mend, undo, canUndo }: NoteMenderProps) {
  const nameOf = useNoteName();
  const { notes, chosen, unlike, counting } = phrase;
  const note = notes[chosen]!;
  const beat = counting.compound ? 1.5 : 1;
  // Of a quaver: half of a beat, or a third.
  const step = 0.5;
  const least = counting.compound ? 0.5 : 0.25;
  const go = (by: number) => choose(Math.min(notes.length - 1, Math.max(0, chosen + by)));
  const pitch = (by: number) => mend(withPitch(notes, chosen, by));
  const lengthen = (by: number) => mend(withLength(notes, chosen, by, least));
  const remove = () => {
    if (notes.length > 1) mend(without(notes, chosen));
  };
  const rest = restAfter(notes, chosen);
  useKeys({
    ArrowLeft: () => go(-1),
    ArrowRight: () => go(1),
    ArrowUp: () => pitch(1),
    ArrowDown: () => pitch(-1),
    Delete: remove,
    z: undo,
  });
  return (
    <View style={styles.mender} testID="mender">
      <Heading>Mend it, note by note</Heading>
      <View role="group" aria-label="Notes of the phrase" style={styles.notes}>
        {notes.map(({ written, attack }, i) => (
          <Button
            key={i}
            look={i === chosen ? 'strong' : 'plain'}
            pressed={i === chosen}
            label={`${attack === 'none' ? '⌒' : ''}${nameOf(written)}${unlike.includes(i) ? ' ?' : ''}`}
            spoken={`Note ${i + 1}, ${nameOf(written)}${attack === 'none' ? ', slurred' : ''}${unlike.includes(i) ? ', not the same as the time before' : ''}`}
            onPress={() => choose(i)}
            testID={`phrase-note-${i}`}
          />
        ))}
      </View>
      <View style={styles.row}>
        <Stepper
          label="Pitch"
          value={note.written}
          low={20}
          high={110}
          text={nameOf(note.written)}
          onChange={(written) => pitch(written - note.written)}
        />
        <Stepper
          label="Length"
          value={note.beats}
          low={least}
          high={16}
          step={step}
          text={lengthText(note.beats / beat)}
          onChange={(beats) => lengthen(beats - note.beats)}
        />
        <Stepper
          label="Silence after it"
          value={rest}
          low={0}
          high={8}
          step={step}
          text={rest === 0 ? 'none' : lengthText(rest / beat)}
          onChange={(silence) => mend(withRest(notes, chosen, silence - rest))}
        />
      </View>
      <View style={styles.row}>
        <Button
          label="Slurred to it"
          pressed={note.attack === 'none'}
          disabled={chosen === 0 || restAfter(notes, chosen - 1) > 0}
          onPress={() => mend(withSlur(notes, chosen))}
        />
        <Button label="One more after it" onPress={() => mend(withOneAfter(notes, chosen), chosen + 1)} />
        <Button label="Take it out" disabled={notes.length < 2} onPress={remove} testID="note-out" />
        <Button label="Undo" disabled={!canUndo} onPress={undo} testID="phrase-undo" />
      </View>
      <Soft>On a keyboard: ← → choose, ↑ ↓ move by a semitone, Delete takes out, Z takes back.</Soft>
    </View>
  );
}

const styles = StyleSheet.create({
  mender: { gap: 10 },
  notes: { flexDirection: 'row', flexWrap: 'wrap', gap: 6 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 14 },
});
