import { StyleSheet, View } from 'react-native';
import type { Line } from '@/core/music';
import { displayName, type Naming } from '@/core/tuning';
import { plural } from '@/core/verdict';
import { Button, Heading, Soft } from '@/ui';

interface LinesPanelProps {
  readonly fileName: string;
  /** The fitting ones first. */
  readonly lines: readonly Line[];
  readonly naming: Naming;
  readonly onChoose: (line: Line) => void;
  readonly onCancel: () => void;
}

/** A file with several parts or voices: which one is it to be? */
export function LinesPanel({ fileName, lines, naming, onChoose, onCancel }: LinesPanelProps) {
  return (
    <View style={styles.panel} testID="lines">
      <Heading>{`Which part of ${fileName}?`}</Heading>
      <Soft>What fits your instrument best comes first.</Soft>
      {lines.map((line) => (
        <View key={line.id}>
          <Button look="quiet" label={line.name} onPress={() => onChoose(line)} />
          <Soft>{aboutLine(line, naming)}</Soft>
        </View>
      ))}
      <Button look="quiet" label="Cancel" onPress={onCancel} />
    </View>
  );
}

function aboutLine({ notes, low, high, fits }: Line, naming: Naming): string {
  const outside = Math.round((1 - fits) * notes);
  const range = `${displayName(low, naming)} to ${displayName(high, naming)}`;
  const rest = outside === 0 ? 'all within your range' : `${plural(outside, 'note')} outside your range`;
  return `${plural(notes, 'note')}, ${range}, ${rest}`;
}

const styles = StyleSheet.create({ panel: { gap: 8 } });
