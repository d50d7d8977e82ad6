import { StyleSheet, View } from 'react-native';
import { numberedBars, tempoText, type Passage, type Score } from '@/core/music';
import { Choice, Heading, Stepper } from '@/ui';

interface PassagePanelProps {
  readonly score: Score;
  readonly passage: Passage;
  readonly onChange: (passage: Passage) => void;
}

const TEMPO = { low: 30, high: 208, step: 4, usual: 60 };
const MOST_TIMES = 10;

/** From which bar to which, how fast, how often. */
export function PassagePanel({ score, passage, onChange }: PassagePanelProps) {
  const { fromBar, toBar, tempo, times } = passage;
  const bars = numberedBars(score);
  const [low, high] = [bars[0]!.number, bars[bars.length - 1]!.number];
  const change = (part: Partial<Passage>) => onChange({ ...passage, ...part });
  return (
    <View style={styles.panel} testID="passage">
      <Heading>What to play</Heading>
      <View style={styles.row}>
        <Stepper
          label="From bar"
          value={fromBar}
          low={low}
          high={high}
          text={String(fromBar)}
          onChange={(bar) => change({ fromBar: bar, toBar: Math.max(bar, toBar) })}
        />
        <Stepper
          label="To bar"
          value={toBar}
          low={low}
          high={high}
          text={String(toBar)}
          onChange={(bar) => change({ toBar: bar, fromBar: Math.min(bar, fromBar) })}
        />
        <Stepper
          label="Times"
          value={times}
          low={1}
          high={MOST_TIMES}
          text={times === 1 ? 'once' : `${times} times`}
          onChange={(next) => change({ times: next })}
        />
        {tempo === null ? null : (
          <Stepper
            label="Tempo"
            value={tempo}
            low={TEMPO.low}
            high={TEMPO.high}
            step={TEMPO.step}
            text={tempoText({ ...score, tempo })}
            onChange={(next) => change({ tempo: next })}
          />
        )}
      </View>
      <Choice
        label="Time"
        value={tempo === null ? 'free' : 'beat'}
        onChange={(time) => change({ tempo: time === 'free' ? null : (score.tempo ?? TEMPO.usual) })}
        options={[
          { value: 'beat', label: 'metronome' },
          { value: 'free', label: 'free' },
        ]}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: 10 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 14 },
});
