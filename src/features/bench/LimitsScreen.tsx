import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { LEVELS } from '@/core/music';
import { fixed, LIMIT_IDS, LIMITS, limitsOf, type LimitId } from '@/core/verdict';
import { useSettings } from '@/store';
import { Body, Button, Choice, Heading, Screen, Soft, Stepper, usePalette } from '@/ui';

/** Every threshold of judging, as it is for the level; each can be set otherwise. */
export function LimitsScreen() {
  const router = useRouter();
  const palette = usePalette();
  const { settings, change } = useSettings();
  const { level, ownLimits } = settings;
  const limits = limitsOf(level, ownLimits);
  const set = (id: LimitId, value: number) => {
    const { step } = LIMITS[id];
    void change({ ownLimits: { ...ownLimits, [id]: Math.round(value / step) * step } });
  };
  const usual = (id: LimitId) => {
    const rest = Object.entries(ownLimits).filter(([key]) => key !== id);
    void change({ ownLimits: Object.fromEntries(rest) });
  };
  return (
    <Screen
      caption="Bench"
      title="What counts as clean"
      foot={<Button large grow={1} label="Back" onPress={() => router.back()} />}
    >
      <Choice
        label="Level"
        value={level}
        onChange={(next) => void change({ level: next })}
        options={LEVELS.map((value) => ({ value, label: value }))}
      />
      <Body>
        What goes beyond these is remarked upon. Takes that are kept are judged anew when they change.
      </Body>
      {LIMIT_IDS.map((id) => {
        const { label, unit, about, low, high, step } = LIMITS[id];
        const decimals = step < 0.01 ? 3 : step < 0.1 ? 2 : step < 1 ? 1 : 0;
        return (
          <View key={id} style={[styles.row, { borderTopColor: palette.hairline }]}>
            <View style={styles.words}>
              <Heading>{label}</Heading>
              <Soft>{about}</Soft>
              {ownLimits[id] === undefined ? null : (
                <Button look="quiet" label={`As usual for ${level}`} onPress={() => usual(id)} />
              )}
            </View>
            <Stepper
              label={unit}
              value={limits[id]}
              low={low}
              high={high}
              step={step}
              text={fixed(limits[id], decimals)}
              onChange={(value) => set(id, value)}
            />
          </View>
        );
      })}
    </Screen>
  );
}

const styles = StyleSheet.create({
  row: {
    borderTopWidth: 1,
    paddingTop: 12,
    flexDirection: 'row',
    flexWrap: 'wrap',
    gap: 12,
    justifyContent: 'space-between',
  },
  words: { flex: 1, minWidth: 180, gap: 2 },
});
