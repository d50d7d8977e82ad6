import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, TextInput, View } from 'react-native';
import { checkInstrument, withRange, writtenRange, type Instrument } from '@/core/instruments';
import { useSettings } from '@/store';
import {
  Body,
  Button,
  Choice,
  fonts,
  Heading,
  Notice,
  Screen,
  Soft,
  Stepper,
  usePalette,
  useNoteName,
  useOnwards,
} from '@/ui';

export function InstrumentScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { settings, ready } = useSettings();
  const router = useRouter();
  const instrument = settings.ownInstruments.find((each) => each.id === id);
  if (!ready) return null;
  if (!instrument)
    return (
      <Notice
        problem
        text="This instrument is not among yours."
        action={{ label: 'To the instruments', onPress: () => router.replace('/instruments') }}
      />
    );
  return <Editor key={id} instrument={instrument} />;
}

const signed = (value: number) => `${value > 0 ? '+' : value < 0 ? '−' : ''}${Math.abs(value)}`;
const LOUDNESS = ['any', 'soft', 'loud'] as const;

/** Changes a copy as one draft; it is kept when all of it makes sense. */
function Editor({ instrument }: { instrument: Instrument }) {
  const nameOf = useNoteName();
  const onwards = useOnwards();
  const palette = usePalette();
  const { settings, change } = useSettings();
  const [draft, setDraft] = useState(instrument);
  const set = (part: Partial<Instrument>) => setDraft({ ...draft, ...part });
  const checked = checkInstrument(draft, settings.naming);
  const { low, high } = writtenRange(draft);
  const lows = draft.registers.map((register) => register.low);
  const others = settings.ownInstruments.filter((each) => each.id !== instrument.id);
  const keep = async () => {
    if (!checked.ok) return;
    await onwards(
      change({
        ownInstruments: [checked.value, ...others],
        instrumentId: checked.value.id,
        ...(checked.value.pitchStandard && { a4: checked.value.pitchStandard }),
      }),
      () => '/instruments',
      'replace',
    );
  };
  const remove = async () => {
    const back = instrument.copiedFrom ?? 'flute';
    await onwards(
      change({
        ownInstruments: others,
        removedInstruments: [
          instrument,
          ...settings.removedInstruments.filter((each) => each.id !== instrument.id),
        ],
        ...(settings.instrumentId === instrument.id && { instrumentId: back }),
      }),
      () => '/instruments',
      'replace',
    );
  };
  return (
    <Screen
      caption="My instrument"
      title={draft.name === '' ? 'Without a name' : draft.name}
      beside={
        <>
          <Modes draft={draft} onChange={set} />
          <Tendencies draft={draft} onChange={set} />
          <Button look="quiet" label="Remove this instrument" onPress={() => void remove()} />
        </>
      }
      foot={
        <Button
          look="main"
          large
          grow={1}
          disabled={!checked.ok}
          label="Keep it"
          onPress={() => void keep()}
          testID="keep"
        />
      }
    >
      {checked.ok ? null : <Notice problem text={checked.problem} testID="problem" />}
      <View>
        <Soft>Name</Soft>
        <TextInput
          aria-label="Name"
          value={draft.name}
          onChangeText={(name) => set({ name })}
          style={[
            styles.input,
            { color: palette.ink, borderColor: palette.hairline, backgroundColor: palette.leaf },
          ]}
        />
      </View>
      <Stepper
        label="Sounds, against written"
        value={draft.transposition}
        low={-36}
        high={36}
        text={`${signed(draft.transposition)} semitones`}
        onChange={(transposition) => set({ transposition })}
      />
      <Stepper
        label="Pitch standard, A4"
        value={draft.pitchStandard ?? settings.a4}
        low={392}
        high={466}
        text={`${draft.pitchStandard ?? settings.a4} Hz`}
        onChange={(pitchStandard) => set({ pitchStandard })}
      />
      <Choice
        label="Smallest step"
        value={draft.step === 1 ? 'semitone' : 'quarter'}
        onChange={(step) => set(withStep(draft, step === 'semitone' ? 1 : 0.5))}
        options={[
          { value: 'semitone', label: 'semitones' },
          { value: 'quarter', label: 'quarter-tones' },
        ]}
      />
      {draft.registers.map((register, i) => (
        <Stepper
          key={register.id}
          label={`${register.name} register from`}
          value={register.low}
          low={i === 0 ? 0 : lows[i - 1]! + 1}
          high={(lows[i + 1] ?? high) - 1}
          step={draft.step}
          text={nameOf(register.low)}
          onChange={(value) => setDraft(withRange(draft, lows.with(i, value), high))}
        />
      ))}
      <Stepper
        label="Highest note"
        value={high}
        low={lows.at(-1)! + 1}
        high={127}
        step={draft.step}
        text={nameOf(high)}
        onChange={(value) => setDraft(withRange(draft, lows, value))}
      />
      <Stepper
        label="Exercises go down to"
        value={Math.max(low, draft.usualLow ?? low)}
        low={low}
        high={draft.home}
        step={draft.step}
        text={nameOf(Math.max(low, draft.usualLow ?? low))}
        onChange={(usualLow) => set({ usualLow })}
      />
      <Stepper
        label="Home note"
        value={draft.home}
        low={low}
        high={high}
        step={draft.step}
        text={nameOf(draft.home)}
        onChange={(home) => set({ home })}
      />
      <Stepper
        label="One breath lasts"
        value={draft.breathSeconds}
        low={2}
        high={60}
        text={`${draft.breathSeconds} s`}
        onChange={(breathSeconds) => set({ breathSeconds })}
      />
    </Screen>
  );
}

/** Registers go on meeting when the step changes: each ends one step under the next. */
function withStep(draft: Instrument, step: 1 | 0.5): Partial<Instrument> {
  const whole = (note: number) => (step === 1 ? Math.round(note) : note);
  const next = { ...draft, step, home: whole(draft.home) };
  return withRange(
    next,
    draft.registers.map((register) => whole(register.low)),
    whole(writtenRange(draft).high),
  );
}

interface PartProps {
  readonly draft: Instrument;
  readonly onChange: (part: Partial<Instrument>) => void;
}

function Modes({ draft, onChange }: PartProps) {
  const nameOf = useNoteName();
  const step = draft.series === 'odd' ? 2 : 1;
  return (
    <View style={styles.part}>
      <Heading>Modes</Heading>
      <Body>
        {draft.series === 'odd'
          ? 'A cylinder closed by its reed: odd modes only.'
          : 'A tube with all modes: each register sounds one of them.'}
      </Body>
      {draft.registers.flatMap((register, i) =>
        register.modes.map(({ from, mode }, k) => (
          <Stepper
            key={`${register.id}-${k}`}
            label={`${register.name}, from ${nameOf(from)}`}
            value={mode}
            low={1}
            high={15}
            step={step}
            text={`mode ${mode}`}
            onChange={(next) =>
              onChange({
                registers: draft.registers.with(i, {
                  ...register,
                  modes: register.modes.with(k, { from, mode: next }),
                }),
              })
            }
          />
        )),
      )}
    </View>
  );
}

function Tendencies({ draft, onChange }: PartProps) {
  const nameOf = useNoteName();
  const put = (i: number, part: Partial<Instrument['tendencies'][number]>) =>
    onChange({ tendencies: draft.tendencies.with(i, { ...draft.tendencies[i]!, ...part }) });
  return (
    <View style={styles.part}>
      <Heading>Where notes tend to sit</Heading>
      <Body>Guesses, until you have been heard. Your own measurements replace them.</Body>
      {draft.tendencies.map((each, i) => (
        <View key={`${each.low}-${each.loudness}-${each.about}`}>
          <Stepper
            label={`${nameOf(each.low)} – ${nameOf(each.high)}${each.loudness === 'any' ? '' : `, ${each.loudness}`}: ${each.about}`}
            value={each.cents}
            low={-50}
            high={50}
            text={`${signed(each.cents)} cents`}
            onChange={(cents) => put(i, { cents })}
          />
          <Button
            look="quiet"
            label={`Leave it out`}
            spoken={`Leave out: ${each.about}`}
            onPress={() => onChange({ tendencies: draft.tendencies.filter((_, k) => k !== i) })}
          />
        </View>
      ))}
      <Choice
        label="Add one for the home note"
        value="none"
        onChange={(loudness) =>
          loudness !== 'none' &&
          onChange({
            tendencies: [
              ...draft.tendencies,
              { low: draft.home, high: draft.home, cents: 0, loudness, about: 'my own guess' },
            ],
          })
        }
        options={[
          { value: 'none' as const, label: '—' },
          ...LOUDNESS.map((each) => ({
            value: each,
            label: each === 'any' ? 'at any loudness' : `when ${each}`,
          })),
        ]}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  input: {
    fontFamily: fonts.text,
    fontSize: 19,
    minHeight: 48,
    borderWidth: 1,
    borderRadius: 14,
    paddingHorizontal: 14,
  },
  part: { gap: 8 },
});
