import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { families, PURPOSES, type Family, type Purpose, type Section } from '@/core/music';
import { useSettings, instrumentIn } from '@/store';
import {
  Body,
  Button,
  Choice,
  fonts,
  Heading,
  Notice,
  RowLink,
  Screen,
  Soft,
  usePalette,
  useShape,
} from '@/ui';

const SECTIONS: readonly (readonly [Section, string])[] = [
  ['prepare', 'Prepare'],
  ['sound', 'Sound'],
  ['seams', 'Across the break'],
  ['dynamics', 'Dynamics'],
  ['intonation', 'Intonation'],
  ['rhythm', 'Rhythm'],
  ['air', 'Air and colour'],
];

/** The library: every family of exercises, by what one is looking for. */
export function LibraryScreen() {
  const router = useRouter();
  const { settings } = useSettings();
  const { wide } = useShape();
  const [purpose, setPurpose] = useState<Purpose | 'everything'>('everything');
  const instrument = instrumentIn(settings, settings.instrumentId);
  if (!instrument)
    return (
      <Notice
        problem
        text="Your instrument is no longer there."
        action={{ label: 'Choose one', onPress: () => router.push('/instruments') }}
      />
    );
  const offered = families.filter(
    (family) =>
      family.unfit(instrument) === null && (purpose === 'everything' || family.purposes.includes(purpose)),
  );
  return (
    <Screen caption={instrument.name} title="What shall we work on?">
      <View style={styles.links}>
        <Button look="quiet" label="Instrument" onPress={() => router.push('/instruments')} />
        <Button look="quiet" label="My own music" onPress={() => router.push('/music')} />
      </View>
      <Choice<Purpose | 'everything'>
        label="Looking for"
        value={purpose}
        onChange={setPurpose}
        options={['everything' as const, ...PURPOSES].map((each) => ({ value: each, label: each }))}
      />
      {SECTIONS.map(([section, title]) => {
        const here = offered.filter((family) => family.section === section);
        return here.length === 0 ? null : (
          <View key={section} style={styles.section}>
            <Soft>{title}</Soft>
            <View style={wide ? styles.columns : undefined}>
              {here.map((family) => (
                <FamilyRow key={family.id} family={family} half={wide} />
              ))}
            </View>
          </View>
        );
      })}
    </Screen>
  );
}

function FamilyRow({ family, half }: { family: Family; half: boolean }) {
  const palette = usePalette();
  return (
    <RowLink
      href={`/exercise/${family.id}`}
      style={[styles.family, half && styles.half, { borderTopColor: palette.hairline }]}
    >
      <Heading style={styles.name}>{family.title}</Heading>
      <Body style={styles.what}>{family.what.split(/(?<=[.?])\s/)[0]}</Body>
    </RowLink>
  );
}

const styles = StyleSheet.create({
  links: { flexDirection: 'row', gap: 20, marginTop: -10 },
  section: { gap: 6 },
  columns: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 36 },
  family: { borderTopWidth: 1, paddingVertical: 12, gap: 2 },
  half: { width: '47%' },
  name: { fontFamily: fonts.display, fontSize: 20, lineHeight: 26 },
  what: { fontSize: 16, lineHeight: 22 },
});
