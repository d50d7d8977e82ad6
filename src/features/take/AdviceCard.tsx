import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { SCHOOLS, type Advice, type Remedy } from '@/core/verdict/coach';
import type { Instrument } from '@/core/instruments';
import { findFamily } from '@/core/music';
import { putOnStand, useSettings } from '@/store';
import { Body, Button, fonts, Heading, Soft, usePalette } from '@/ui';

interface AdviceCardProps {
  readonly advice: Advice;
  readonly instrument: Instrument | null;
  /** Path of the take, to come back to from the stand. */
  readonly from: string;
}

const schoolName = (id: Advice['school']) => SCHOOLS.find((school) => school.id === id)?.name ?? '';

/** What was heard, the likely cause, one thing to try, and one tap to do it. */
export function AdviceCard({ advice, instrument, from }: AdviceCardProps) {
  const palette = usePalette();
  const router = useRouter();
  const { settings } = useSettings();
  const [others, setOthers] = useState(false);
  const begin = ({ family, values }: Remedy) => {
    const made = instrument && findFamily(family)?.make(instrument, values, settings.level, settings.naming);
    if (!made?.ok) {
      router.push(`/exercise/${family}`);
      return;
    }
    void putOnStand(made.value, from);
    router.push('/stand');
  };
  const { drill, serves } = advice;
  return (
    <View
      style={[styles.card, { backgroundColor: palette.leaf, borderColor: palette.hairline }]}
      testID="advice"
    >
      <Soft>{`Try one thing · ${schoolName(advice.school)} · ${advice.confidence}`}</Soft>
      <Heading testID="attempt">{advice.attempt}</Heading>
      <Body testID="cause">{`${advice.heard} ${advice.cause}`}</Body>
      {advice.cue ? (
        <Soft testID="cue">
          {advice.cue.carried
            ? `You attended to “${advice.cue.text}” and it came all the same: give it another day, or look at it another way.`
            : `Meanwhile attend to: ${advice.cue.text}. The stand shows it.`}
        </Soft>
      ) : null}
      {advice.others.length > 0 || advice.disagreement ? (
        <Button
          look="quiet"
          label={others ? 'This school only' : 'Other ways to see it'}
          onPress={() => setOthers(!others)}
        />
      ) : null}
      {others ? (
        <View style={styles.others}>
          {advice.others.map(({ school, attempt }) => (
            <Body key={school}>
              <Body style={styles.school}>{`${schoolName(school)}: `}</Body>
              {attempt}
            </Body>
          ))}
          {advice.disagreement ? <Soft>{`Teachers differ. ${advice.disagreement}`}</Soft> : null}
        </View>
      ) : null}
      <View style={styles.keys}>
        {drill ? (
          <Button look="strong" label={drill.title} onPress={() => begin(drill)} testID="drill-it" />
        ) : null}
        {serves ? (
          <Button
            look={drill ? 'plain' : 'strong'}
            label={serves.title}
            onPress={() => begin(serves)}
            testID="serves"
          />
        ) : null}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  card: { borderWidth: 1, borderRadius: 16, padding: 16, gap: 6 },
  others: { gap: 6 },
  school: { fontFamily: fonts.bold },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: 10, marginTop: 6 },
});
