import { useEffect, useMemo, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { exploredIn, type Page } from '@/core/hearing/following';
import type { Instrument } from '@/core/instruments';
import type { StandEngine } from './standEngine';
import type { StandState } from './standState';
import { stage, ThreadStage, type ThreadHandle } from '@/ui';
import { ExploredNow } from './ExploredNow';
import { useRoom } from './useRoom';

interface ThreadProps {
  readonly engine: StandEngine;
  readonly page: Page;
  readonly instrument: Instrument;
  readonly state: StandState;
  readonly width: number;
  /** Beside the music, as high as the stand; else under it, with what the music leaves. */
  readonly beside: boolean;
}

const LEAST_HEIGHT = 120;

/** The live sound through the eyes of the notes, or what is explored by it; and under it the beat to be seen. */
export function Thread({ engine, page, instrument, state, width, beside }: ThreadProps) {
  const { height, onLayout } = useRoom(LEAST_HEIGHT);
  const thread = useRef<ThreadHandle>(null);
  const pulse = useRef<View>(null);
  const exploring = useMemo(() => exploredIn(engine.score), [engine.score]);
  useEffect(() => {
    engine.attach({
      thread: (points) => thread.current?.push(points),
      beat: (fraction, first) => {
        const bar = pulse.current as unknown as HTMLElement | null;
        if (!bar) return;
        bar.style.opacity = fraction === null ? '0.12' : String(Math.max(0.12, 1 - 2.5 * fraction));
        bar.style.width = first ? '100%' : '34%';
      },
    });
  }, [engine]);
  return (
    <View style={[styles.thread, { width }, beside ? styles.beside : styles.under]}>
      <View style={styles.threadRoom} onLayout={onLayout}>
        {exploring ? (
          <ExploredNow
            ref={thread}
            kind={exploring}
            score={engine.score}
            instrument={instrument}
            width={width}
            height={height}
            hidden={state.hidden}
          />
        ) : (
          <ThreadStage
            ref={thread}
            page={page}
            score={engine.score}
            instrument={instrument}
            current={state.group}
            width={width}
            height={height}
            hidden={state.hidden}
            anew={engine.score.free}
          />
        )}
      </View>
      <View style={styles.pulseTrack}>
        <View ref={pulse} style={styles.pulse} testID="pulse" />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  thread: { gap: 8, minHeight: 0 },
  beside: { alignSelf: 'stretch', paddingVertical: 8 },
  under: { flex: 1, maxHeight: 400 },
  threadRoom: { flex: 1, minHeight: 0 },
  pulseTrack: { height: 6, alignItems: 'center' },
  pulse: { height: 6, width: '34%', borderRadius: 3, backgroundColor: stage.gold, opacity: 0.12 },
});
