import { StyleSheet, View } from 'react-native';
import { optionsOf, tempoNotch, type NoteRange, type ParameterSpec } from '@/core/music';
import { writtenRange, type Instrument } from '@/core/instruments';
import { Bore, useNoteName } from '@/ui';
import { RangeBore } from '@/ui';
import { Choice, Stepper } from '@/ui';
import { Soft } from '@/ui';

interface ParameterControlsProps {
  readonly instrument: Instrument;
  readonly specs: Readonly<Record<string, ParameterSpec>>;
  readonly values: Readonly<Record<string, unknown>>;
  readonly onChange: (part: Readonly<Record<string, unknown>>) => void;
  readonly boreHeight: number;
}

const FREE_TEMPO = 60;

/** Everything that can be set about an exercise. The first note or range is chosen on the bore, the rest beside it. */
export function ParameterControls({
  instrument,
  specs,
  values,
  onChange,
  boreHeight,
}: ParameterControlsProps) {
  const entries = Object.entries(specs);
  const onBore = entries.find(([, spec]) => spec.kind === 'note' || spec.kind === 'range');
  const beside = entries.filter((entry) => entry !== onBore && entry[1].kind !== 'choice');
  const choices = entries.filter(
    ([, spec]) => spec.kind === 'choice' && optionsOf(spec, instrument).length > 1,
  );
  const control = ([name, spec]: [string, ParameterSpec]) => (
    <Control
      key={name}
      instrument={instrument}
      spec={spec}
      value={values[name]}
      onChange={(value) => onChange({ [name]: value })}
    />
  );
  return (
    <View style={styles.whole}>
      <View style={styles.row}>
        {onBore ? (
          <View>
            <Soft>{onBore[1].label}</Soft>
            <OnBore
              instrument={instrument}
              spec={onBore[1]}
              value={values[onBore[0]]}
              onChange={(value) => onChange({ [onBore[0]]: value })}
              height={boreHeight}
            />
          </View>
        ) : null}
        <View style={styles.beside}>{beside.map(control)}</View>
      </View>
      {choices.map(control)}
    </View>
  );
}

interface ControlProps {
  readonly instrument: Instrument;
  readonly spec: ParameterSpec;
  readonly value: unknown;
  readonly onChange: (value: unknown) => void;
}

function OnBore({ instrument, spec, value, onChange, height }: ControlProps & { readonly height: number }) {
  if (spec.kind === 'range')
    return (
      <RangeBore
        instrument={instrument}
        value={value as NoteRange}
        onChange={onChange}
        least={spec.least}
        height={height}
        label={spec.label}
      />
    );
  return (
    <Bore
      instrument={instrument}
      value={Number(value)}
      onChange={onChange}
      height={height}
      label={spec.label}
    />
  );
}

function Control({ instrument, spec, value, onChange }: ControlProps) {
  const nameOf = useNoteName();
  const { low, high } = writtenRange(instrument);
  switch (spec.kind) {
    case 'note':
      return (
        <Stepper
          label={spec.label}
          value={Number(value)}
          low={low}
          high={high}
          step={instrument.step}
          text={nameOf(Number(value))}
          onChange={onChange}
        />
      );
    case 'range': {
      const range = value as NoteRange;
      return (
        <View>
          <Stepper
            label={`${spec.label}: lowest`}
            value={range.low}
            low={low}
            high={range.high - spec.least}
            step={instrument.step}
            text={nameOf(range.low)}
            onChange={(next) => onChange({ ...range, low: next })}
          />
          <Stepper
            label={`${spec.label}: highest`}
            value={range.high}
            low={range.low + spec.least}
            high={high}
            step={instrument.step}
            text={nameOf(range.high)}
            onChange={(next) => onChange({ ...range, high: next })}
          />
        </View>
      );
    }
    case 'tempo': {
      const tempo = value as number | null;
      return (
        <View>
          {tempo === null ? null : (
            <Stepper
              label={spec.label}
              value={tempo}
              low={spec.low}
              high={spec.high}
              text={`♩ ${tempo}`}
              // Up and down by the metronome's traditional steps.
              onChange={(next) =>
                onChange(Math.min(spec.high, Math.max(spec.low, tempoNotch(tempo, Math.sign(next - tempo)))))
              }
            />
          )}
          {spec.free ? (
            <Choice
              label={tempo === null ? spec.label : 'Time'}
              value={tempo === null ? 'free' : 'beat'}
              onChange={(time) => onChange(time === 'free' ? null : FREE_TEMPO)}
              options={[
                { value: 'beat', label: 'metronome' },
                { value: 'free', label: 'free' },
              ]}
            />
          ) : null}
        </View>
      );
    }
    case 'count':
      return (
        <Stepper
          label={spec.label}
          value={Number(value)}
          low={spec.low}
          high={spec.high}
          text={`${Number(value)} ${value === 1 ? spec.unit.replace(/s$/, '') : spec.unit}`.trim()}
          onChange={onChange}
        />
      );
    case 'choice':
      return (
        <Choice
          label={spec.label}
          value={String(value)}
          onChange={onChange}
          options={optionsOf(spec, instrument).map(([id, label]) => ({ value: id, label }))}
        />
      );
    case 'flag':
      return (
        <Choice
          label={spec.label}
          value={value === true ? 'yes' : 'no'}
          onChange={(next) => onChange(next === 'yes')}
          options={[
            { value: 'yes', label: 'yes' },
            { value: 'no', label: 'no' },
          ]}
        />
      );
    // Chosen from a recording, which has a panel of its own.
    case 'model':
      return null;
  }
}

const styles = StyleSheet.create({
  whole: { gap: 18 },
  row: { flexDirection: 'row', gap: 14 },
  beside: { flex: 1, minWidth: 0, gap: 12 },
});
