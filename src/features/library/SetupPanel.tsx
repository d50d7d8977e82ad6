import { useState } from 'react';
import { StyleSheet, TextInput, View } from 'react-native';
import { UNTOLD, type Setup } from '@/core/take';
import { useSettings } from '@/store';
import { setupText } from '@/features/take';
import { Button, Choice, fonts, Soft, Stepper, usePalette } from '@/ui';

/** Asked once and carried along; open, change, done. */
export function SetupPanel() {
  const { settings, change } = useSettings();
  const [open, setOpen] = useState(false);
  const { setup } = settings;
  const set = (part: Partial<Setup>) => void change({ setup: { ...setup, ...part } });
  return (
    <View style={styles.panel} testID="setup">
      <Soft>Conditions, kept with every take</Soft>
      <Button
        look="quiet"
        label={open ? 'Done' : setupText(setup)}
        spoken={open ? 'Done' : `Conditions: ${setupText(setup)}. Change`}
        onPress={() => setOpen(!open)}
        testID="setup-toggle"
      />
      {open ? (
        <>
          <Stepper
            label="Slide, joint or barrel pulled out"
            value={setup.slideMm ?? 0}
            low={0}
            high={40}
            text={setup.slideMm === null ? 'not told' : `${setup.slideMm} mm`}
            onChange={(slideMm) => set({ slideMm })}
          />
          <Stepper
            label="Temperature of the room"
            value={setup.temperatureC ?? 20}
            low={0}
            high={40}
            text={setup.temperatureC === null ? 'not told' : `${setup.temperatureC} °C`}
            onChange={(temperatureC) => set({ temperatureC })}
          />
          <Choice
            label="The instrument is"
            value={setup.warmth ?? 'untold'}
            onChange={(value) => set({ warmth: value === 'untold' ? null : value })}
            options={[
              { value: 'untold', label: 'not told' },
              { value: 'cold', label: 'cold' },
              { value: 'warming', label: 'warming' },
              { value: 'warm', label: 'warm' },
            ]}
          />
          <Choice
            label="Water"
            value={setup.water === null ? 'untold' : setup.water ? 'cleared' : 'not'}
            onChange={(value) => set({ water: value === 'untold' ? null : value === 'cleared' })}
            options={[
              { value: 'untold', label: 'not told' },
              { value: 'cleared', label: 'cleared' },
              { value: 'not', label: 'not cleared' },
            ]}
          />
          <Words
            label="Reed, headjoint or mouthpiece"
            value={setup.reed}
            onChange={(reed) => set({ reed })}
          />
          <Words label="Room" value={setup.room} onChange={(room) => set({ room })} />
          <Button
            look="quiet"
            label="Forget all of this"
            onPress={() => {
              set(UNTOLD);
              setOpen(false);
            }}
          />
        </>
      ) : null}
    </View>
  );
}

function Words({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
}) {
  const palette = usePalette();
  const [text, setText] = useState(value);
  return (
    <View style={styles.words}>
      <Soft>{label}</Soft>
      <TextInput
        aria-label={label}
        value={text}
        maxLength={80}
        onChangeText={setText}
        onBlur={() => onChange(text)}
        style={[
          styles.input,
          { borderColor: palette.hairline, color: palette.ink, backgroundColor: palette.leaf },
        ]}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: 6, alignItems: 'flex-start', width: '100%' },
  words: { width: '100%', gap: 2 },
  input: {
    borderWidth: 1,
    borderRadius: 12,
    minHeight: 44,
    paddingHorizontal: 12,
    fontFamily: fonts.text,
    fontSize: 17,
  },
});
