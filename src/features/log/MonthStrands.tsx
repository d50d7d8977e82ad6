import { useMemo, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import Svg, { G, Line, Rect, Text as SvgText } from 'react-native-svg';
import type { Entry } from '@/core/ledger';
import { plural } from '@/core/verdict';
import { Button, dayText, fonts, monthText, Soft, usePalette } from '@/ui';
import { monthAbout, strandsOf } from './months';

interface MonthStrandsProps {
  readonly now: Date;
  readonly entries: readonly Entry[];
  /** First day of the month that is shown. */
  readonly month: Date;
  readonly onMonth: (month: Date) => void;
  readonly chosen: string | null;
  readonly onChoose: (day: string | null) => void;
}

const HEIGHT = 118;
const FOOT = 20;
/** The busiest day of the month is as long as the drawing is high, and no day of fewer minutes than this. */
const LEAST_TALL_MINUTES = 6;
const GAP = 1.5;

/** A month as a row of strands: each day upright, a length for each take, gold where every slur was clean. */
export function MonthStrands({ now, entries, month, onMonth, chosen, onChoose }: MonthStrandsProps) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const days = useMemo(() => strandsOf(entries, month), [entries, month]);
  const minutes = days.reduce((sum, day) => sum + day.minutes, 0);
  const step = width / days.length;
  const tallest = days.reduce((most, day) => Math.max(most, day.minutes), LEAST_TALL_MINUTES);
  const most = Math.max(0, ...days.map(({ takes }) => takes.length));
  const scale = (HEIGHT - FOOT - 6 - most * (GAP + 1)) / tallest;
  const moved = (by: number) => monthAbout(month, by);
  const isLast = moved(1).getTime() > now.getTime();
  return (
    <View onLayout={(event) => setWidth(event.nativeEvent.layout.width)} style={styles.month}>
      <View style={styles.head}>
        <Button label="‹" spoken="Month before" onPress={() => onMonth(moved(-1))} />
        <Soft testID="month">{`${monthText(month)} · ${Math.round(minutes)} min heard`}</Soft>
        <Button label="›" spoken="Month after" disabled={isLast} onPress={() => onMonth(moved(1))} />
      </View>
      {/* As high before its width is known: what stands below it must not move under a finger. */}
      <View style={{ height: HEIGHT }}>
        {width > 0 ? (
          <Svg width={width} height={HEIGHT} pointerEvents="none">
            <Line x1={0} x2={width} y1={HEIGHT - FOOT} y2={HEIGHT - FOOT} stroke={palette.hairline} />
            {days.map((day, i) => {
              const x = (i + 0.5) * step;
              let top = HEIGHT - FOOT - 2;
              return (
                <G key={day.key}>
                  {day.takes.map(({ id, minutes: length, gold }) => {
                    const tall = Math.max(2.5, length * scale);
                    top -= tall + GAP;
                    return (
                      <Rect
                        key={id}
                        x={x - (gold ? 3.5 : 2.5)}
                        y={top + GAP}
                        width={gold ? 7 : 5}
                        height={tall}
                        rx={2}
                        fill={gold ? palette.gold : palette.softInk}
                      />
                    );
                  })}
                  {day.date % 7 === 1 || day.key === chosen ? (
                    <SvgText
                      x={x}
                      y={HEIGHT - 4}
                      textAnchor="middle"
                      fontSize={14}
                      fontFamily={day.key === chosen ? fonts.bold : fonts.text}
                      fill={day.key === chosen ? palette.goldText : palette.softInk}
                    >
                      {day.date}
                    </SvgText>
                  ) : null}
                </G>
              );
            })}
          </Svg>
        ) : null}
        {days.map((day, i) =>
          day.takes.length === 0 ? null : (
            <Pressable
              key={day.key}
              role="button"
              aria-pressed={day.key === chosen}
              aria-label={`${dayText(day.when)}: ${plural(day.takes.length, 'take')}, ${Math.round(day.minutes)} min`}
              testID="strand"
              onPress={() => onChoose(day.key === chosen ? null : day.key)}
              style={[styles.day, { left: i * step, width: step }]}
            />
          ),
        )}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  month: { maxWidth: 640 },
  head: { flexDirection: 'row', justifyContent: 'space-between', alignItems: 'center' },
  day: { position: 'absolute', top: 0, height: HEIGHT },
});
