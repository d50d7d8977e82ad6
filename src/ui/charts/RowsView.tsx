import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Circle, Line, Rect } from 'react-native-svg';
import type { ChartRow, RowsChart } from '@/core/verdict';
import { Body, Soft } from '../text';
import { fonts, usePalette } from '../theme';

const ROW = 34;
const SIDE = 12;

/** Ends of the common axis: as far as the chart asks, and further where a row reaches further. */
function axisOf({ form, reach, rows }: RowsChart): readonly [low: number, high: number] {
  const values = rows.flatMap((row) => [row.value, row.from, row.to]).filter((value) => value != null);
  if (form === 'spans') {
    const ends = rows.flatMap((row) => [row.from, row.to]).filter((value) => value !== undefined);
    return ends.length === 0 ? [0, 1] : [Math.min(...ends) - 1, Math.max(...ends) + 1];
  }
  const most = Math.max(reach, ...values.map(Math.abs));
  return form === 'deviations' ? [-most, most] : [0, most];
}

/** One line a thing: its name, where it lies along a common axis, and that in words. */
export function RowsView({ chart }: { chart: RowsChart }) {
  const [width, setWidth] = useState(0);
  const [low, high] = axisOf(chart);
  const x = (value: number) => SIDE + ((value - low) / (high - low)) * (width - 2 * SIDE);
  const { rows, sides, title } = chart;
  return (
    <View role="img" aria-label={`${title}: ${rows.map((row) => `${row.name} ${row.text}`).join('; ')}`}>
      {rows.map((row, i) => (
        <View key={i} style={styles.row}>
          <Soft style={styles.name}>{row.name}</Soft>
          <View
            style={styles.axis}
            onLayout={i === 0 ? (event) => setWidth(event.nativeEvent.layout.width) : undefined}
          >
            {width > 0 ? <RowDrawing chart={chart} row={row} x={x} low={low} width={width} /> : null}
          </View>
          <Body style={[styles.words, row.stands && styles.stands]}>{row.text}</Body>
        </View>
      ))}
      {sides ? (
        <View style={styles.row}>
          <View style={styles.name} />
          <View style={styles.ends}>
            <Soft style={styles.end}>{sides[0]}</Soft>
            <Soft style={styles.end}>{sides[1]}</Soft>
          </View>
          <View style={styles.words} />
        </View>
      ) : null}
    </View>
  );
}

interface RowDrawingProps {
  readonly chart: RowsChart;
  readonly row: ChartRow;
  readonly x: (value: number) => number;
  readonly low: number;
  readonly width: number;
}

function RowDrawing({ chart: { form }, row, x, low, width }: RowDrawingProps) {
  const palette = usePalette();
  const { value, from, to, stands } = row;
  const [start, end] = form === 'amounts' ? [0, to ?? value] : [from, to];
  const hasSpan = start !== undefined && end != null && (form !== 'amounts' || end > 0);
  return (
    <Svg width={width} height={ROW}>
      <Line x1={SIDE} x2={width - SIDE} y1={ROW / 2} y2={ROW / 2} stroke={palette.hairline} />
      {low < 0 ? <Line x1={x(0)} x2={x(0)} y1={5} y2={ROW - 5} stroke={palette.softInk} /> : null}
      {hasSpan ? (
        <Rect
          x={x(start)}
          y={ROW / 2 - 4}
          width={Math.max(2, x(end) - x(start))}
          height={8}
          fill={palette.slate}
          fillOpacity={0.4}
        />
      ) : null}
      {value === null || form === 'spans' ? null : (
        <Circle
          cx={x(value)}
          cy={ROW / 2}
          r={5.5}
          fill={stands === false ? palette.paper : palette.ink}
          stroke={palette.ink}
          strokeWidth={1.6}
        />
      )}
    </Svg>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', minHeight: ROW, gap: 6 },
  name: { width: 84 },
  axis: { flex: 1, minWidth: 0, height: ROW },
  words: { width: 104, textAlign: 'right', fontSize: 15, lineHeight: 18 },
  stands: { fontFamily: fonts.bold },
  ends: { flex: 1, flexDirection: 'row', justifyContent: 'space-between' },
  end: { fontSize: 13, lineHeight: 16 },
});
