import { View } from 'react-native';
import { sparkTrace, type Spark } from '@/core/ledger';
import { Ribbon } from './Ribbon';

const MARGIN_SECONDS = 0.3;

/** A take's longest note as a small picture of pitch and level. */
export function TakeSpark({ spark, height }: { spark: Spark | null; height: number }) {
  const drawn = spark && sparkTrace(spark);
  return (
    <View
      role="img"
      aria-label={drawn ? 'Pitch and level of the longest note over its time' : 'No note was heard'}
      style={{ height }}
    >
      {drawn ? (
        <Ribbon
          trace={drawn}
          height={height}
          part={{ startSeconds: 0, endSeconds: drawn.seconds }}
          fromSeconds={-MARGIN_SECONDS}
          toSeconds={drawn.seconds + MARGIN_SECONDS}
          middleMidi={drawn.midi}
        />
      ) : null}
    </View>
  );
}
