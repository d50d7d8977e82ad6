import { useMemo, useState } from 'react';
import { StyleSheet, TextInput, View } from 'react-native';
import { findInstrument } from '@/core/instruments';
import { reedsOf, type Reed, type ReedFigure } from '@/core/ledger';
import { fixed, limitsOf, plural } from '@/core/verdict';
import { TimeChart } from '@/features/take';
import { useInstrumentsPlayed, usePlayed, useSettings } from '@/store';
import { Body, Button, Choice, fonts, Heading, Screen, shortDay, Soft, usePalette } from '@/ui';

/** Reeds and set-ups, with what the takes made on each say of it. */
export function ReedsScreen() {
  const { settings, change } = useSettings();
  const { data: withTakes } = useInstrumentsPlayed();
  const [chosen, setChosen] = useState<string | null>(null);
  const instrumentId = chosen ?? settings.instrumentId;
  const { data: played } = usePlayed(instrumentId, true);
  const { level, ownLimits, ownInstruments, setup } = settings;
  const reeds = useMemo(
    () => (played ? reedsOf(played, limitsOf(level, ownLimits)) : null),
    [played, level, ownLimits],
  );
  const named = [...new Set([settings.instrumentId, ...(withTakes ?? []).map((each) => each.instrumentId)])]
    .flatMap((id) => findInstrument(id, ownInstruments) ?? [])
    .map(({ id, name }) => ({ value: id, label: name }));
  return (
    <Screen caption="Bench" title="Reeds and set-ups">
      {named.length > 1 ? (
        <Choice label="Instrument" options={named} value={instrumentId} onChange={setChosen} />
      ) : null}
      {reeds === null ? <Soft>Reading the log …</Soft> : null}
      {reeds?.length === 0 ? (
        <Body testID="no-reeds">
          None has been named yet. Under “Conditions” on the page of an exercise you can say what you play on:
          a reed, a head joint, a mouthpiece. From then on its hours count themselves, and what is measured on
          it is gathered here.
        </Body>
      ) : null}
      {reeds?.map((reed) => (
        <ReedPart
          key={reed.name}
          reed={reed}
          isNow={setup.reed === reed.name}
          about={settings.reeds[reed.name] ?? { about: '', retired: false }}
          onNow={() => void change({ setup: { ...setup, reed: reed.name } })}
          onAbout={(about) => void change({ reeds: { ...settings.reeds, [reed.name]: about } })}
        />
      ))}
    </Screen>
  );
}

interface ReedPartProps {
  readonly reed: Reed;
  readonly isNow: boolean;
  readonly about: { readonly about: string; readonly retired: boolean };
  readonly onNow: () => void;
  readonly onAbout: (about: { about: string; retired: boolean }) => void;
}

function ReedPart({ reed, isNow, about, onNow, onAbout }: ReedPartProps) {
  const palette = usePalette();
  const [words, setWords] = useState(about.about);
  const { name, takes, sittings, minutes, firstDay, lastDay, slurs } = reed;
  const life = reed.figures.find(({ followed }) => followed.id === 'wobble') ?? reed.figures[0];
  return (
    <View style={[styles.reed, { borderTopColor: palette.hairline }]} testID="reed">
      <View>
        <Heading>{name}</Heading>
        <Soft>
          {[
            isNow ? 'played now' : about.retired ? 'retired' : null,
            `${hours(minutes)} in ${plural(takes, 'take')} on ${plural(sittings, 'day')}`,
            `${shortDay(firstDay)} to ${shortDay(lastDay)}`,
          ]
            .filter((part) => part !== null)
            .join(' · ')}
        </Soft>
      </View>
      {slurs.of > 0 ? (
        <Body>{`Slurs over the breaks: clean ${slurs.clean} of ${slurs.of}, very likely ${Math.round(100 * slurs.share.low)} to ${Math.round(100 * slurs.share.high)} %.`}</Body>
      ) : null}
      {reed.figures.map((figure) => (
        <FigureLine key={figure.followed.id} figure={figure} />
      ))}
      {life && life.sittings > 2 ? (
        <View>
          <Soft>{`${life.followed.label} over its life, in ${life.followed.unit}`}</Soft>
          <TimeChart
            label={`${life.followed.label} on ${name} over ${life.sittings} days`}
            points={life.life.points}
            line={life.life.verdict === 'moved' ? life.life.line : null}
            decimals={life.followed.decimals}
            dateOf={shortDay}
          />
          <Soft>
            {life.life.verdict === 'moved'
              ? `It has moved by ${fixed(life.life.change!.value, life.followed.decimals)} ${life.followed.unit} while it was played; other things may have changed with it.`
              : 'Nothing is certain of its way yet.'}
          </Soft>
        </View>
      ) : null}
      <TextInput
        aria-label={`About ${name}`}
        placeholder="Cane, hardness, shape, what was scraped"
        placeholderTextColor={palette.softInk}
        value={words}
        onChangeText={setWords}
        onBlur={() => onAbout({ ...about, about: words })}
        multiline
        style={[
          styles.words,
          { borderColor: palette.hairline, color: palette.ink, backgroundColor: palette.leaf },
        ]}
      />
      <View style={styles.row}>
        {isNow ? null : <Button label="Play on it now" onPress={onNow} />}
        <Button
          label={about.retired ? 'Take it up again' : 'Retire it'}
          onPress={() => onAbout({ about: words, retired: !about.retired })}
        />
      </View>
    </View>
  );
}

function FigureLine({ figure: { followed, middle, interval, sittings } }: { figure: ReedFigure }) {
  const { label, unit, decimals } = followed;
  return (
    <View style={styles.line}>
      <Body style={styles.grow}>{label}</Body>
      <View style={styles.figure}>
        <Body>{`${fixed(middle, decimals)} ${unit}`}</Body>
        <Soft>
          {interval
            ? `very likely ${fixed(interval.low, decimals)} to ${fixed(interval.high, decimals)}, ${plural(sittings, 'day')}`
            : 'one day only'}
        </Soft>
      </View>
    </View>
  );
}

const hours = (minutes: number) =>
  minutes < 60 ? `${Math.round(minutes)} min` : `${(minutes / 60).toFixed(1)} h`;

const styles = StyleSheet.create({
  reed: { gap: 10, borderTopWidth: 1, paddingTop: 14 },
  line: { flexDirection: 'row', gap: 12 },
  grow: { flex: 1 },
  figure: { alignItems: 'flex-end', flexShrink: 1 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
  words: {
    minHeight: 60,
    borderWidth: 1,
    borderRadius: 16,
    padding: 12,
    fontFamily: fonts.text,
    fontSize: 17,
  },
});
