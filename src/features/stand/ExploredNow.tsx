import { useImperativeHandle, useMemo, useRef, useState, type Ref } from 'react';
import { View } from 'react-native';
import type { Seconds } from '@/core/base';
import { Explored, type ExploredPicture, type Exploring } from '@/core/hearing/following';
import type { Instrument } from '@/core/instruments';
import type { Score } from '@/core/music';
import { usePlayed } from '@/store';
import type { ThreadHandle } from '@/ui';
import { ExploredView } from './explored/ExploredView';

interface ExploredNowProps {
  readonly ref: Ref<ThreadHandle>;
  readonly kind: Exploring;
  readonly score: Score;
  readonly instrument: Instrument;
  readonly width: number;
  readonly height: number;
  /** Blind work: nothing is seen. */
  readonly hidden: boolean;
}

/** A picture is looked at from afar: so often is often enough. */
const SHOWN_EVERY: Seconds = 0.12;

/** In place of the thread: what an exploring exercise is there to find out, as it is found. */
export function ExploredNow({ ref, kind, score, instrument, width, height, hidden }: ExploredNowProps) {
  const explored = useMemo(() => new Explored(kind, score, instrument), [kind, score, instrument]);
  const [picture, setPicture] = useState<ExploredPicture>(() => explored.picture);
  const shownAt = useRef<Seconds>(-Infinity);
  const best = useBestHold(kind === 'growth' ? instrument.id : '');
  useImperativeHandle(ref, () => ({
    push(points) {
      for (const { seconds, ...frame } of points) explored.push({ ...frame, musicSeconds: seconds });
      const newest = points[points.length - 1]?.at;
      // Time of the take begins anew with each stretch.
      if (newest === undefined || Math.abs(newest - shownAt.current) < SHOWN_EVERY) return;
      shownAt.current = newest;
      setPicture(explored.picture);
    },
  }));
  return (
    <View style={{ width, height }}>
      {hidden ? null : <ExploredView picture={picture} best={best} width={width} height={height} />}
    </View>
  );
}

/** The longest pure hold of the last half year; null: none yet. */
function useBestHold(instrumentId: string): Seconds | null {
  const { data: played } = usePlayed(instrumentId, false);
  return useMemo(() => {
    const holds = (played ?? []).flatMap(({ entry }) => {
      const hold = entry.figures['best-hold']?.[0];
      return typeof hold === 'number' ? [hold] : [];
    });
    return holds.length > 0 ? Math.max(...holds) : null;
  }, [played]);
}
