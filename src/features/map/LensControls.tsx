import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Instrument } from '@/core/instruments';
import { LOUDNESSES, toldOf, type Lens, type Played } from '@/core/ledger';
import { Button, Choice } from '@/ui';
import { PERIODS, type Period } from './useMemory';

/** What is looked at, as it was chosen. */
export interface Looking {
  readonly period: Period;
  readonly part: Partial<Lens>;
  /** The first break by the mode of the tube, or by the hand. */
  readonly view: 'mode' | 'hand';
}

interface LensControlsProps {
  readonly instruments: readonly Instrument[];
  readonly instrument: Instrument;
  readonly onInstrument: (id: string) => void;
  readonly played: readonly Played[];
  readonly looking: Looking;
  readonly onChange: (looking: Looking) => void;
}

const ANY = 'any';
const option = (value: string) => ({ value, label: value });

/** What the map is made of, in a sentence that opens. */
export function LensControls(props: LensControlsProps) {
  const { instruments, instrument, onInstrument, played, looking, onChange } = props;
  const [open, setOpen] = useState(false);
  const { period, part, view } = looking;
  const set = (next: Partial<Lens>) => onChange({ ...looking, part: { ...part, ...next } });
  const choose = <K extends keyof Lens>(key: K, label: string, values: readonly string[]) =>
    values.length === 0 ? null : (
      <Choice
        label={label}
        options={[ANY, ...values].map(option)}
        value={part[key] === undefined || part[key] === null ? ANY : String(part[key])}
        onChange={(value) => set({ [key]: value === ANY ? null : value })}
      />
    );
  const told = Object.values(part).filter((each) => each !== null);
  const summary = [instrument.name, ...told, period === 'all' ? 'all that you kept' : `last ${period}`];
  return (
    <View style={styles.block}>
      <Button
        look="quiet"
        testID="lens"
        label={`${summary.join(' · ')} ${open ? '▴' : '▾'}`}
        spoken={`Looking at: ${summary.join(', ')}. ${open ? 'Close' : 'Change'}`}
        onPress={() => setOpen(!open)}
      />
      {open ? (
        <View style={styles.block}>
          {instruments.length > 1 ? (
            <Choice
              label="Instrument"
              options={instruments.map(({ id, name }) => ({ value: id, label: name }))}
              value={instrument.id}
              onChange={onInstrument}
            />
          ) : null}
          <Choice
            label="Period"
            options={(Object.keys(PERIODS) as Period[]).map((value) => ({
              value,
              label: value === 'all' ? 'all' : `last ${value}`,
            }))}
            value={period}
            onChange={(value) => onChange({ ...looking, period: value })}
          />
          {instrument.handBreak ? (
            <Choice<'mode' | 'hand'>
              label="First seam"
              value={view}
              onChange={(value) => onChange({ ...looking, view: value })}
              options={[
                { value: 'mode', label: 'by the mode of the tube' },
                { value: 'hand', label: 'by the hand' },
              ]}
            />
          ) : null}
          {choose('loudness', 'Loudness', LOUDNESSES)}
          {choose('come', 'Begun', ['tongued', 'slurred'])}
          {choose('direction', 'Come to, going', ['up', 'down'])}
          {choose('reed', 'Reed or set-up', toldOf(played, 'reed'))}
          {choose('cue', 'Attending to', toldOf(played, 'cue'))}
          {choose('room', 'Room', toldOf(played, 'room'))}
          {played.some(({ entry }) => entry.warmth !== null)
            ? choose('warmth', 'The instrument was', ['cold', 'warming', 'warm'])
            : null}
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({ block: { gap: 8 } });
