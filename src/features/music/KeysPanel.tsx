import { useState } from 'react';
import { View } from 'react-native';
import { nameWithin, type Instrument } from '@/core/instruments';
import type { Score } from '@/core/music';
import { Button, Choice, Notation, Soft, useShape } from '@/ui';

interface KeysPanelProps {
  /** What is chosen, round the keys; null: it is so wide that it fits in its own only. */
  readonly score: Score | null;
  readonly keys: Keys;
  readonly onChange: (keys: Keys) => void;
  readonly instrument: Instrument;
}

/** Its own key only; round the circle, its notes shown in all of them or in the first only. */
export type Keys = 'own' | 'all' | 'by-ear';

/** The passage in its own key, or round all that it fits in. */
export function KeysPanel({ score, keys, onChange, instrument }: KeysPanelProps) {
  const { wide } = useShape();
  const [seen, setSeen] = useState(false);
  if (!score)
    return <Soft>{`It is too wide to be played in other keys on the ${nameWithin(instrument)}.`}</Soft>;
  return (
    <View style={{ gap: 8 }} testID="keys">
      <Choice
        label="Keys"
        value={keys}
        onChange={onChange}
        options={[
          { value: 'own', label: 'its own' },
          { value: 'all', label: 'round the circle of fourths' },
          { value: 'by-ear', label: 'round it by ear, only the first shown' },
        ]}
      />
      {keys !== 'own' ? (
        <Button
          look="quiet"
          label={seen ? 'Hide the notes' : 'Show the notes'}
          onPress={() => setSeen(!seen)}
        />
      ) : null}
      {keys !== 'own' && seen ? (
        <Notation score={score} instrument={instrument} scale={wide ? 1 : 1.2} />
      ) : null}
    </View>
  );
}
