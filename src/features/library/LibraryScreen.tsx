import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { nameWithin, type Instrument } from '@/core/instruments';
import { families, NEEDS, needsOf, PURPOSES, type Family, type Purpose, type Section } from '@/core/music';
import { FIRST_ROWS, instrumentIn, useEntries, useSettings } from '@/store';
import {
  Body,
  Button,
  Choice,
  Field,
  fonts,
  Heading,
  Notice,
  RowLink,
  Screen,
  Soft,
  usePalette,
  useShape,
} from '@/ui';
import { ScoreSketch } from './ScoreSketch';

const SECTIONS: readonly (readonly [Section, string])[] = [
  ['prepare', 'Prepare'],
  ['sound', 'Sound'],
  ['seams', 'Across the break'],
  ['dynamics', 'Dynamics'],
  ['intonation', 'Intonation'],
  ['rhythm', 'Rhythm'],
  ['air', 'Air and colour'],
];

/** So many of those that were played last stand above the rest. */
const LATELY = 3;

/** What was played last, each family once, that is not at hand anyway; null: the log has not been read yet. */
function useLately(offered: readonly Family[], atHand: readonly string[]): Family[] | null {
  const { data } = useEntries(FIRST_ROWS);
  if (!data) return null;
  const ids = [...new Set(data.entries.map(({ family }) => family))];
  return ids
    .flatMap((id) => offered.find((family) => family.id === id && !atHand.includes(id)) ?? [])
    .slice(0, LATELY);
}

/** Whether an exercise speaks of all the words that are looked for. */
const speaksOf = (
  words: readonly string[],
  { title, what, how, listen, measured, purposes }: Family,
): boolean => {
  const text = [title, what, how, listen, measured, ...purposes].join(' ').toLowerCase();
  return words.every((word) => text.includes(word));
};

/** The library: every family of exercises, by what one is looking for. */
export function LibraryScreen() {
  const router = useRouter();
  const { settings } = useSettings();
  const [purpose, setPurpose] = useState<Purpose | 'everything'>('everything');
  const [search, setSearch] = useState('');
  const instrument = instrumentIn(settings, settings.instrumentId);
  const fitting = useMemo(
    () => (instrument ? families.filter((family) => family.unfit(instrument) === null) : []),
    [instrument],
  );
  const lately = useLately(fitting, settings.atHand);
  if (!instrument)
    return (
      <Notice
        problem
        text="Your instrument is no longer there."
        action={{ label: 'Choose one', onPress: () => router.push('/instruments') }}
      />
    );
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const offered = fitting.filter(
    (family) => (purpose === 'everything' || family.purposes.includes(purpose)) && speaksOf(words, family),
  );
  const looksAround = purpose === 'everything' && words.length === 0;
  const rows = (title: string, here: readonly Family[], testID?: string) => (
    <Rows key={title} title={title} here={here} instrument={instrument} {...(testID && { testID })} />
  );
  return (
    <Screen caption={instrument.name} title="What shall we work on?">
      <View style={styles.links}>
        <Button look="quiet" label="Instrument" onPress={() => router.push('/instruments')} />
        <Button look="quiet" label="My own music" onPress={() => router.push('/music')} />
      </View>
      <Field
        label="Search the exercises"
        placeholder="A word: vibrato, octave, reed …"
        value={search}
        onChange={setSearch}
      />
      <Choice<Purpose | 'everything'>
        label="Looking for"
        value={purpose}
        onChange={setPurpose}
        options={['everything' as const, ...PURPOSES].map((each) => ({ value: each, label: each }))}
      />
      {/* Nothing is shown before all of it: rows must not move under a finger. */}
      {lately === null ? null : (
        <>
          {looksAround
            ? rows(
                'At hand',
                fitting.filter(({ id }) => settings.atHand.includes(id)),
                'at-hand-rows',
              )
            : null}
          {looksAround ? rows('Played lately', lately, 'lately-rows') : null}
          {SECTIONS.map(([section, title]) =>
            rows(
              title,
              offered.filter((family) => family.section === section),
            ),
          )}
        </>
      )}
      {offered.length === 0 ? (
        <Body testID="none-found">
          {`No exercise for the ${nameWithin(instrument)} speaks of this. Try a part of the word, or look for everything.`}
        </Body>
      ) : null}
    </Screen>
  );
}

interface RowsProps {
  readonly title: string;
  readonly here: readonly Family[];
  readonly instrument: Instrument;
  readonly testID?: string;
}

function Rows({ title, here, instrument, testID }: RowsProps) {
  const { wide } = useShape();
  return here.length === 0 ? null : (
    <View style={styles.section} testID={testID}>
      <Soft>{title}</Soft>
      <View style={wide ? styles.columns : undefined}>
        {here.map((family) => (
          <FamilyRow key={family.id} family={family} instrument={instrument} half={wide} />
        ))}
      </View>
    </View>
  );
}

function FamilyRow({ family, instrument, half }: { family: Family; instrument: Instrument; half: boolean }) {
  const palette = usePalette();
  const score = useMemo(() => {
    const made = family.make(instrument);
    return made.ok ? made.value : null;
  }, [family, instrument]);
  const needs = score ? needsOf(score) : [];
  return (
    <RowLink
      href={`/exercise/${family.id}`}
      style={[styles.family, half && styles.half, { borderTopColor: palette.hairline }]}
    >
      <View style={styles.words}>
        <Heading style={styles.name}>{family.title}</Heading>
        <Body style={styles.what}>{family.what.split(/(?<=[.?])\s/)[0]}</Body>
        {needs.length > 0 ? <Soft>{`Needs ${needs.map((need) => NEEDS[need]).join(', ')}`}</Soft> : null}
      </View>
      {score ? <ScoreSketch score={score} /> : null}
    </RowLink>
  );
}

const styles = StyleSheet.create({
  links: { flexDirection: 'row', gap: 20, marginTop: -10 },
  section: { gap: 6 },
  columns: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 36 },
  family: { borderTopWidth: 1, paddingVertical: 12, gap: 14, flexDirection: 'row', alignItems: 'center' },
  words: { flex: 1, minWidth: 0, gap: 2 },
  half: { width: '47%' },
  name: { fontFamily: fonts.display, fontSize: 20, lineHeight: 26 },
  what: { fontSize: 16, lineHeight: 22 },
});
