import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { StyleSheet, Text, View } from 'react-native';
import { excerpt, type Score } from '@/core/exercises';
import type { Page } from '@/core/follow';
import { findInstrument, type Instrument } from '@/core/instruments';
import { useStand, type StandEngine, type StandState } from '@/practice';
import type { Running, Settings } from '@/store';
import {
  fonts,
  Notation,
  Notice,
  Pictures,
  Soft,
  stage,
  ThreadStage,
  useShape,
  type ThreadHandle,
} from '@/ui';
import { StandFoot } from './StandFoot';
import { StandKeys } from './StandKeys';

interface StandStageProps {
  readonly score: Score;
  readonly settings: Settings;
  readonly running: Running | null;
  readonly onDone: () => void;
  readonly onLeave: () => void;
}

/** One block on the stand. */
export function StandStage({ score, settings, running, onDone, onLeave }: StandStageProps) {
  const { engine, state } = useStand({ score, settings, running, onDone });
  const { wide, low, width, height } = useShape();
  const instrument = findInstrument(score.instrumentId);
  const [help, setHelp] = useState(false);
  const isNew = running === null;
  useEffect(() => {
    // Coming here from a touch, however long ago, the block begins at once; after a reload the browser wants another first.
    if (isNew && navigator.userActivation?.hasBeenActive !== false) engine.start();
  }, [engine, isNew]);
  const leave = useCallback(() => {
    engine.cancel();
    onLeave();
  }, [engine, onLeave]);
  const page = engine.pages[state.page];
  const side = wide || low;
  return (
    <View role="main" style={styles.stage}>
      <StandKeys engine={engine} state={state} onLeave={leave} onHelp={() => setHelp(!help)} />
      <Top score={engine.score} settings={settings} state={state} engine={engine} />
      {help ? <Help /> : null}
      <View style={[styles.middle, side && styles.beside]}>
        <View style={[styles.music, side && { width: width * (wide ? 0.46 : 0.38) }]}>
          {page && instrument ? (
            <PageOfMusic
              score={engine.score}
              page={page}
              current={state.group}
              instrument={instrument}
              size={low ? 1.1 : wide ? 2 : 1.5}
            />
          ) : null}
          {engine.score.pictures.length > 0 && (!page || state.group < 0) ? (
            <Pictures score={engine.score} beat={state.beat} />
          ) : null}
          {side ? <Words state={state} /> : null}
        </View>
        {page && instrument ? (
          <Thread
            engine={engine}
            page={page}
            instrument={instrument}
            state={state}
            width={side ? width * (wide ? 0.5 : 0.56) : width - 24}
            height={wide ? height - 230 : low ? height - 150 : Math.min(360, height * 0.4)}
          />
        ) : null}
        {side ? null : <Words state={state} />}
      </View>
      <StandFoot engine={engine} state={state} onLeave={leave} />
    </View>
  );
}

function Top({
  score,
  settings,
  state,
  engine,
}: {
  score: Score;
  settings: Settings;
  state: StandState;
  engine: StandEngine;
}) {
  const total = engine.pages.length;
  const place = total > 1 ? ` · ${state.page + 1} of ${total}` : '';
  return (
    <View style={styles.top}>
      <Soft style={styles.shrink}>{`${score.title}${place}`}</Soft>
      <Soft>
        {[
          score.tempo === null || settings.metronome.mode === 'off' ? 'free' : `♩ ${score.tempo}`,
          `A ${settings.a4}`,
          state.drone ? 'drone' : null,
        ]
          .filter((part) => part !== null)
          .join(' · ')}
      </Soft>
    </View>
  );
}

/** The notes of this page, engraved; the one to be played now in gold. */
function PageOfMusic({
  score,
  page,
  current,
  instrument,
  size,
}: {
  score: Score;
  page: Page;
  current: number;
  instrument: Instrument;
  size: number;
}) {
  const first = page.groups[0];
  const last = page.groups[page.groups.length - 1];
  const here = page.groups.find((group) => group.index === current);
  const shown = useMemo(
    () => (first && last ? { ...excerpt(score, first.from, last.to, 1), repeats: 1 } : score),
    [score, first, last],
  );
  const marked = useMemo(() => {
    if (!here || !first) return new Set<number>();
    return new Set(Array.from({ length: here.to - here.from + 1 }, (_, i) => here.from - first.from + i));
  }, [here, first]);
  return (
    <View style={styles.notation}>
      <Notation score={shown} instrument={instrument} scale={size} marked={marked} />
    </View>
  );
}

function Thread({
  engine,
  page,
  instrument,
  state,
  width,
  height,
}: {
  engine: StandEngine;
  page: Page;
  instrument: Instrument;
  state: StandState;
  width: number;
  height: number;
}) {
  const thread = useRef<ThreadHandle>(null);
  const pulse = useRef<View>(null);
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
    <View style={styles.thread}>
      <ThreadStage
        ref={thread}
        page={page}
        score={engine.score}
        instrument={instrument}
        current={state.group}
        width={width}
        height={height}
        hidden={state.hidden}
      />
      <View style={styles.pulseTrack}>
        <View ref={pulse} style={styles.pulse} testID="pulse" />
      </View>
    </View>
  );
}

/** The one word, to be read from a metre away. */
function Words({ state }: { state: StandState }) {
  const { low } = useShape();
  const long = state.word.length > 8;
  return (
    <View style={styles.words} aria-live="polite">
      <Text
        testID="word"
        style={[styles.word, low && styles.lowWord, long && styles.longWord]}
        numberOfLines={1}
      >
        {state.word}
      </Text>
      <Soft style={styles.hint} testID="hint">
        {state.hint}
      </Soft>
      {state.problem ? <Notice problem text={state.problem} testID="problem" /> : null}
    </View>
  );
}

function Help() {
  return (
    <Notice
      testID="keys"
      text="Space: start and stop. Right, Page down or right pedal: go on, next breath. Left, Page up, R or left pedal: this breath again. M: metronome. D: drone. H: hide the pitch. Escape: leave."
    />
  );
}

const styles = StyleSheet.create({
  stage: { flex: 1, backgroundColor: stage.paper, padding: 12, gap: 8 },
  top: {
    flexDirection: 'row',
    justifyContent: 'space-between',
    paddingHorizontal: 6,
    paddingTop: 4,
    gap: 12,
  },
  shrink: { flexShrink: 1 },
  middle: { flex: 1, alignItems: 'center', justifyContent: 'space-evenly', gap: 8, minHeight: 0 },
  beside: { flexDirection: 'row', gap: 18 },
  music: { width: '100%', gap: 10, justifyContent: 'center' },
  notation: { width: '100%', maxHeight: 280, overflow: 'hidden' },
  thread: { gap: 8 },
  pulseTrack: { height: 6, alignItems: 'center' },
  pulse: { height: 6, width: '34%', borderRadius: 3, backgroundColor: stage.gold, opacity: 0.12 },
  words: { alignItems: 'center', gap: 2, minHeight: 124, justifyContent: 'center' },
  word: {
    fontFamily: fonts.display,
    fontSize: 76,
    lineHeight: 88,
    color: stage.ink,
    textAlign: 'center',
    fontVariant: ['lining-nums', 'tabular-nums'],
  },
  lowWord: { fontSize: 54, lineHeight: 62 },
  longWord: { fontSize: 46, lineHeight: 56 },
  hint: { fontSize: 20, lineHeight: 26, textAlign: 'center' },
});
