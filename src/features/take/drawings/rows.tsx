import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Circle, Line, Rect } from 'react-native-svg';
import { Body, Soft } from '@/ui';
import { fonts, usePalette } from '@/ui';

export interface AxisRow {
  readonly key: string;
  readonly name: string;
  /** Dots along the axis; empty where nothing is known. */
  readonly values: readonly number[];
  /** A stretch along the axis, drawn as a bar. */
  readonly span?: readonly [number, number];
  /** Of no weight: drawn hollow. */
  readonly faint?: boolean;
  readonly words: string;
}

interface AxisRowsProps {
  readonly label: string;
  readonly rows: readonly AxisRow[];
  /** Ends of the axis; zero is marked where it lies between them. */
  readonly low: number;
  readonly high: number;
  /** What the left and the right end mean. */
  readonly ends: readonly [string, string];
}

const ROW = 34;
const SIDE = 12;

/** One line a thing: its name, where it lies along a common axis, and that in words. */
export function AxisRows({ label, rows, low, high, ends }: AxisRowsProps) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const x = (value: number) =>
    SIDE + ((Math.min(high, Math.max(low, value)) - low) / (high - low)) * (width - 2 * SIDE);
  return (
    <View role="img" aria-label={`${label}: ${rows.map((row) => `${row.name} ${row.words}`).join('; ')}`}>
      {rows.map((row, i) => (
        <View key={row.key} style={styles.row}>
          <Soft style={styles.name}>{row.name}</Soft>
          <View
            style={styles.axis}
            onLayout={i === 0 ? (event) => setWidth(event.nativeEvent.layout.width) : undefined}
          >
            {width > 0 ? (
              <Svg width={width} height={ROW}>
                <Line x1={SIDE} x2={width - SIDE} y1={ROW / 2} y2={ROW / 2} stroke={palette.hairline} />
                {low < 0 && high > 0 ? (
                  <Line x1={x(0)} x2={x(0)} y1={5} y2={ROW - 5} stroke={palette.softInk} />
                ) : null}
                {row.span ? (
                  <Rect
                    x={Math.min(x(row.span[0]), x(row.span[1]))}
                    y={ROW / 2 - 4}
                    width={Math.max(2, Math.abs(x(row.span[1]) - x(row.span[0])))}
                    height={8}
                    fill={row.faint ? 'none' : palette.slate}
                    stroke={palette.slate}
                    fillOpacity={0.45}
                  />
                ) : null}
                {row.values.map((value, k) => (
                  <Circle
                    key={k}
                    cx={x(value)}
                    cy={ROW / 2}
                    r={row.values.length > 3 ? 3.4 : 5.5}
                    fill={row.faint ? palette.paper : palette.ink}
                    stroke={palette.ink}
                    fillOpacity={row.values.length > 3 ? 0.6 : 1}
                  />
                ))}
              </Svg>
            ) : null}
          </View>
          <Body style={styles.words}>{row.words}</Body>
        </View>
      ))}
      <View style={styles.row}>
        <View style={styles.nameRoom} />
        <View style={styles.ends}>
          <Soft style={styles.end}>{ends[0]}</Soft>
          <Soft style={styles.end}>{ends[1]}</Soft>
        </View>
        <View style={styles.wordsRoom} />
      </View>
    </View>
  );
}

/** A drawing with its heading. */
export function Titled({ title, children }: { title: string; children: ReactNode }) {
  return (
    <View style={styles.titled}>
      <Soft style={styles.title}>{title}</Soft>
      {children}
    </View>
  );
}

const styles = StyleSheet.create({
  titled: { gap: 4 },
  title: { fontFamily: fonts.bold },
  row: { flexDirection: 'row', alignItems: 'center', minHeight: ROW, gap: 6 },
  name: { width: 84 },
  nameRoom: { width: 84 },
  axis: { flex: 1, minWidth: 0, height: ROW },
  words: { width: 92, textAlign: 'right', fontSize: 15, lineHeight: 18 },
  wordsRoom: { width: 92 },
  ends: { flex: 1, flexDirection: 'row', justifyContent: 'space-between' },
  end: { fontSize: 13, lineHeight: 16 },
});
