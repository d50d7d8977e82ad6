import { Link } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { dateOf, isRest, minutesText, titleOfBlock, weekdayOf } from '@/core/plan';
import { StrandLine } from '@/features/planning';
import { Body, fonts, Soft, usePalette, useShape } from '@/ui';
import type { WeekDay } from './useWeek';

const NAMES = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const PER_MINUTE = 12;
const LEAST = 26;

interface Length {
  readonly key: string;
  readonly title: string;
  readonly minutes: number;
  readonly look: 'plain' | 'seam' | 'coming' | 'coming-seam';
}

/** A week as seven strands: what was played whole, what is still to come dotted. */
export function WeekStrands({ days }: { days: readonly WeekDay[] }) {
  const { wide } = useShape();
  return (
    <View role="list" style={wide ? styles.columns : styles.rows}>
      {days.map((day) => (
        <Day key={day.day} day={day} wide={wide} />
      ))}
    </View>
  );
}

function Day({ day: { day, isToday, isPast, played, plan }, wide }: { day: WeekDay; wide: boolean }) {
  const palette = usePalette();
  const past: Length[] = played.map(({ family, title, minutes, seam }) => ({
    key: `played/${family}`,
    title,
    minutes,
    look: seam ? 'seam' : 'plain',
  }));
  const coming: Length[] =
    played.length > 0
      ? []
      : (plan?.blocks ?? [])
          .filter((block) => !isRest(block) && !block.skipped)
          .map((block) => ({
            key: block.id,
            title: titleOfBlock(block),
            minutes: block.seconds / 60,
            look: 'from' in block.why ? 'coming-seam' : 'coming',
          }));
  const name = `${NAMES[weekdayOf(day)]}${isToday ? ', today' : ''}`;
  const lengths = [...past, ...coming];
  return (
    <View
      role="listitem"
      style={wide ? styles.column : [styles.row, { borderBottomColor: palette.hairline }]}
      testID="week-day"
    >
      {isPast || lengths.length === 0 ? (
        <Body style={[styles.name, isToday && { color: palette.goldText }]}>{name}</Body>
      ) : (
        <Link
          href={`/week/day?date=${dateOf(day)}`}
          style={[styles.link, { color: isToday ? palette.goldText : palette.ink }]}
        >
          {name}
        </Link>
      )}
      <View style={styles.lengths}>
        {lengths.length === 0 ? <Soft>{isPast ? 'no practice' : 'rest'}</Soft> : null}
        {lengths.map(({ key, title, minutes, look }, i) => (
          <View key={key} style={[styles.length, wide && styles.outdented]}>
            <StrandLine height={Math.max(LEAST, PER_MINUTE * minutes)} look={look} place={i} />
            <Soft style={styles.words}>{`${title}, ${minutesText(60 * minutes)}`}</Soft>
          </View>
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  columns: { flexDirection: 'row', gap: 6 },
  rows: { gap: 0 },
  column: { flex: 1, minWidth: 0, gap: 10 },
  row: { flexDirection: 'row', gap: 10, borderBottomWidth: 1, paddingVertical: 10 },
  name: { width: 92, fontWeight: '700' },
  link: {
    width: 92,
    minHeight: 44,
    paddingVertical: 10,
    marginTop: -10,
    fontFamily: fonts.bold,
    fontSize: 17,
  },
  lengths: { flex: 1, minWidth: 0, gap: 4 },
  length: { flexDirection: 'row', alignItems: 'center', gap: 2 },
  // A column is hardly wider than the longest word of a title.
  outdented: { marginLeft: -8 },
  words: { flex: 1, minWidth: 0 },
});
