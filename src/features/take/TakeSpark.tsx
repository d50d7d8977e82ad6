import { greatest } from 'd3-array';
import { View } from 'react-native';
import { lengthOf } from '@/core/hearing/notes';
import type { Take } from '@/core/take';
import { Ribbon } from './Ribbon';

const MARGIN_SECONDS = 0.3;

/** A take's longest note as a small picture of pitch and level. */
export function TakeSpark({ take, height }: { take: Take; height: number }) {
  const note = greatest(take.notes, lengthOf);
  return (
    <View
      role="img"
      aria-label={note ? 'Pitch and level of the longest note over its time' : 'No note was heard'}
      style={{ height }}
    >
      {note ? (
        <Ribbon
          trace={take.trace}
          height={height}
          part={note}
          fromSeconds={Math.max(0, note.startSeconds - MARGIN_SECONDS)}
          toSeconds={Math.min(take.durationSeconds, note.endSeconds + MARGIN_SECONDS)}
          middleMidi={note.soundingMidi}
        />
      ) : null}
    </View>
  );
}
