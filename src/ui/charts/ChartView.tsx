import { StyleSheet, View } from 'react-native';
import type { Chart, TableChart } from '@/core/verdict';
import { Body, Soft } from '../text';
import { fonts, usePalette } from '../theme';
import { CurvesView } from './CurvesView';
import { RowsView } from './RowsView';

/** A drawing with its heading, in whichever form its figures have. */
export function ChartView({ chart }: { chart: Chart }) {
  return (
    <View style={styles.titled} testID={`chart-${chart.kind}`}>
      <Soft style={styles.title}>{chart.title}</Soft>
      {chart.kind === 'rows' ? (
        <RowsView chart={chart} />
      ) : chart.kind === 'curves' ? (
        <CurvesView chart={chart} />
      ) : (
        <TableView chart={chart} />
      )}
    </View>
  );
}

function TableView({ chart: { columns, rows } }: { chart: TableChart }) {
  const palette = usePalette();
  return (
    <View role="table">
      <View role="row" style={[styles.row, { borderColor: palette.hairline }]}>
        <View style={styles.name} />
        {columns.map((column) => (
          <View role="columnheader" key={column} style={styles.cell}>
            <Soft style={styles.words}>{column}</Soft>
          </View>
        ))}
      </View>
      {rows.map(({ name, cells }) => (
        <View role="row" key={name} style={[styles.row, { borderColor: palette.hairline }]}>
          <View role="rowheader" style={styles.name}>
            <Soft>{name}</Soft>
          </View>
          {cells.map((cell, i) => (
            <View role="cell" key={columns[i]} style={styles.cell}>
              <Body style={styles.words}>{cell}</Body>
            </View>
          ))}
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  titled: { gap: 4 },
  title: { fontFamily: fonts.bold },
  row: { flexDirection: 'row', gap: 6, paddingVertical: 5, borderBottomWidth: 1, alignItems: 'center' },
  name: { flex: 1.3 },
  cell: { flex: 1 },
  words: { textAlign: 'right', fontSize: 15, lineHeight: 18 },
});
