import { StyleSheet, View } from 'react-native';
import { comparable, modelSchema, type Model, type Score } from '@/core/music';
import { soundingOf, writtenOf, writtenRange, type Instrument } from '@/core/instruments';
import { lengthOf } from '@/core/hearing/notes';
import { useModel } from './useModel';
import { useSettings } from '@/store';
import { Body, Button, Choice, Heading, Notice, Soft, useNoteName } from '@/ui';

interface ModelPanelProps {
  readonly instrument: Instrument;
  readonly score: Score | null;
  readonly values: Readonly<Record<string, unknown>>;
  readonly onChange: (part: Readonly<Record<string, unknown>>) => void;
}

const nameAndLength = (
  nameOf: (midi: number) => string,
  instrument: Instrument,
  note: Pick<Model, 'soundingMidi' | 'startSeconds' | 'endSeconds'>,
) => `${nameOf(writtenOf(instrument, note.soundingMidi))}, ${lengthOf(note).toFixed(1)} s`;

/** The recording of a sound that is admired, and which of its notes is the model. */
export function ModelPanel({ instrument, score, values, onChange }: ModelPanelProps) {
  const { settings } = useSettings();
  const nameOf = useNoteName();
  const read = modelSchema.safeParse(values['model']);
  const model = read.success ? read.data : null;
  const written = Number(values['note']);
  const chooser = useModel(score, instrument, written, settings.a4, (next) => onChange({ model: next }));
  const listening = chooser.state === 'listening';
  return (
    <View style={styles.panel}>
      <Heading>The model</Heading>
      {chooser.problem ? <Notice problem text={chooser.problem} testID="model-problem" /> : null}
      <Body testID="model">
        {listening
          ? 'Listening to the recording …'
          : model
            ? `“${model.recording}”: ${nameAndLength(nameOf, instrument, model)}`
            : 'None chosen yet: without one there is nothing to compare your colour with.'}
      </Body>
      {chooser.state === 'heard' && model ? (
        <Choice
          label="Its note"
          value={String(model.startSeconds)}
          onChange={(start) => {
            const note = chooser.notes.find((each) => String(each.startSeconds) === start);
            if (note) chooser.pick(note);
          }}
          options={chooser.notes.map((note) => ({
            value: String(note.startSeconds),
            label: nameAndLength(nameOf, instrument, note),
          }))}
        />
      ) : null}
      {model && !listening ? <OtherNote {...{ instrument, model, written, onChange }} /> : null}
      <View style={styles.row}>
        {listening ? (
          <Button look="quiet" label="Stop" onPress={chooser.cancel} />
        ) : (
          <Button
            label={model ? 'Another recording' : 'Choose a model'}
            testID="choose-model"
            onPress={() => void chooser.choose()}
          />
        )}
        {chooser.state === 'heard' && model ? (
          <Button
            label={chooser.playing ? 'Stop' : 'Hear the note'}
            testID="hear-model"
            onPress={() => chooser.toggleHearing(model)}
          />
        ) : null}
      </View>
      <Soft>
        A recording of the same instrument alone, near the microphone. Its room and microphone colour it too.
      </Soft>
    </View>
  );
}

/** Colour goes with pitch: what is played should be what the model plays. */
function OtherNote({
  instrument,
  model,
  written,
  onChange,
}: Pick<ModelPanelProps, 'instrument' | 'onChange'> & { readonly model: Model; readonly written: number }) {
  const nameOf = useNoteName();
  if (comparable(model, soundingOf(instrument, written))) return null;
  const note = writtenOf(instrument, model.soundingMidi);
  const { low, high } = writtenRange(instrument);
  return (
    <>
      <Soft>{`The model plays ${nameOf(note)}, and you would play ${nameOf(written)}. Colour goes with pitch: they can only be compared on the same note, or its neighbour.`}</Soft>
      {note >= low && note <= high ? (
        <Button label={`Play ${nameOf(note)} too`} onPress={() => onChange({ note })} />
      ) : null}
    </>
  );
}

const styles = StyleSheet.create({
  panel: { gap: 8, alignItems: 'flex-start' },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
});
