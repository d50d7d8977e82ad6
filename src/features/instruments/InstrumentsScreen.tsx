import { useRouter } from 'expo-router';
import { Pressable, StyleSheet, Text, View } from 'react-native';
import { copyOf, instruments, writtenRange, type Instrument } from '@/core/instruments';
import { useSettings, type Settings } from '@/store';
import {
  Button,
  Choice,
  fonts,
  Heading,
  radioGroupProps,
  radioProps,
  Screen,
  Soft,
  usePalette,
  useNoteName,
  useOnwards,
} from '@/ui';

const GROUPS: readonly (readonly [string, (instrument: Instrument) => boolean])[] = [
  ['Flutes', ({ kind }) => kind === 'edge'],
  ['Recorders and whistles', ({ kind }) => kind === 'ducted'],
  ['Double reeds', ({ kind }) => kind === 'double-reed'],
  ['Clarinets', ({ kind, series }) => kind === 'single-reed' && series === 'odd'],
  ['Saxophones', ({ kind, series }) => kind === 'single-reed' && series === 'harmonic'],
];

/** What is being played, and the player's own versions of it. */
export function InstrumentsScreen() {
  const router = useRouter();
  const onwards = useOnwards();
  const { settings, change } = useSettings();
  const choose = (instrument: Instrument) => void change({ instrumentId: instrument.id });
  const copy = async (instrument: Instrument) => {
    const id = `own-${Date.now().toString(36)}`;
    const ownInstruments = [...settings.ownInstruments, copyOf(instrument, id)];
    await onwards(change({ ownInstruments }), () => `/instruments/${id}`);
  };
  const restore = (instrument: Instrument) =>
    void change({
      ownInstruments: [...settings.ownInstruments, instrument],
      removedInstruments: settings.removedInstruments.filter((each) => each.id !== instrument.id),
    });
  const all = [...settings.ownInstruments, ...instruments];
  const current = all.find((each) => each.id === settings.instrumentId);
  return (
    <Screen
      caption="Instrument"
      title={current?.name ?? 'Choose yours'}
      beside={
        <Choice<Settings['level']>
          label="How exacting to be"
          value={settings.level}
          onChange={(level) => void change({ level })}
          options={[
            { value: 'beginner', label: 'beginner' },
            { value: 'steady', label: 'steady' },
            { value: 'advanced', label: 'advanced' },
            { value: 'exacting', label: 'exacting' },
          ]}
        />
      }
      foot={
        current ? (
          <Button
            large
            grow={1}
            label={current.copiedFrom ? `Change “${current.name}”` : 'Make my own copy'}
            onPress={() =>
              current.copiedFrom ? router.push(`/instruments/${current.id}`) : void copy(current)
            }
            testID="own"
          />
        ) : null
      }
    >
      {settings.ownInstruments.length > 0 ? (
        <Group
          title="Mine"
          list={settings.ownInstruments}
          current={settings.instrumentId}
          onChoose={choose}
        />
      ) : null}
      {settings.removedInstruments.length > 0 ? (
        <View testID="removed">
          <Soft>Removed; what was played on them is still judged by them.</Soft>
          {settings.removedInstruments.map((instrument) => (
            <Button
              key={instrument.id}
              look="quiet"
              label={`Have “${instrument.name}” back`}
              onPress={() => restore(instrument)}
            />
          ))}
        </View>
      ) : null}
      {GROUPS.map(([title, belongs]) => (
        <Group
          key={title}
          title={title}
          list={instruments.filter(belongs)}
          current={settings.instrumentId}
          onChoose={choose}
        />
      ))}
    </Screen>
  );
}

interface GroupProps {
  readonly title: string;
  readonly list: readonly Instrument[];
  readonly current: string;
  readonly onChoose: (instrument: Instrument) => void;
}

function Group({ title, list, current, onChoose }: GroupProps) {
  const nameOf = useNoteName();
  const palette = usePalette();
  const ids = list.map((instrument) => instrument.id);
  const choose = (id: string) => onChoose(list.find((instrument) => instrument.id === id)!);
  return (
    <View {...radioGroupProps(title, ids, choose)}>
      <Heading>{title}</Heading>
      {list.map((instrument) => {
        const chosen = instrument.id === current;
        const { low, high } = writtenRange(instrument);
        return (
          <Pressable
            key={instrument.id}
            {...radioProps(ids, current, instrument.id, choose)}
            aria-label={instrument.name}
            style={[styles.row, { borderTopColor: palette.hairline }]}
          >
            <Text
              style={[styles.name, chosen && styles.bold, { color: chosen ? palette.goldText : palette.ink }]}
            >
              {`${chosen ? '● ' : ''}${instrument.name}`}
            </Text>
            <Soft>{`${nameOf(low)} – ${nameOf(high)}`}</Soft>
          </Pressable>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  row: {
    minHeight: 46,
    borderTopWidth: 1,
    flexDirection: 'row',
    justifyContent: 'space-between',
    alignItems: 'center',
    gap: 12,
  },
  name: { fontFamily: fonts.text, fontSize: 18, flexShrink: 1 },
  bold: { fontFamily: fonts.bold },
});
