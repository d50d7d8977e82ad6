import { useKeepAwake } from 'expo-keep-awake';
import { useRouter } from 'expo-router';
import { useCallback, useEffect, useMemo, useRef } from 'react';
import { StyleSheet, Text, View } from 'react-native';
import { beatsToSeconds, longTone, scoreBeats, type Score } from '@/core/exercises';
import { findInstrument } from '@/core/instruments';
import { steadyPlayer } from '@/core/simulate';
import { displayName } from '@/core/tuning';
import type { SourceChoice } from '@/audio';
import { chosenFile, useStand } from '@/practice';
import { tuningOf, useSettings, type Settings } from '@/store';
import {
  Button,
  fonts,
  Notice,
  PaletteProvider,
  Soft,
  stage,
  ThreadStage,
  useShape,
  type ThreadHandle,
} from '@/ui';

/** The dim stage: one note, the thread, one word. Nothing to touch once it has begun. */
export default function StandScreen() {
  const { settings, ready } = useSettings();
  return <PaletteProvider palette={stage}>{ready ? <Playing settings={settings} /> : null}</PaletteProvider>;
}

function sourceOf(settings: Settings): SourceChoice | null {
  if (settings.source === 'microphone') return { kind: 'microphone' };
  if (settings.source === 'simulated')
    return { kind: 'simulated', player: steadyPlayer, seed: Date.now() % 100_000 };
  const file = chosenFile();
  return file ? { kind: 'file', file } : null;
}

function Playing({ settings }: { settings: Settings }) {
  useKeepAwake();
  const router = useRouter();
  const score = useMemo(() => longTone(settings.longTone), [settings.longTone]);
  const source = useMemo(() => sourceOf(settings), [settings]);
  if (!score.ok)
    return (
      <Notice
        problem
        text={score.problem}
        action={{ label: 'Back', onPress: () => router.replace('/practise') }}
      />
    );
  if (!source) {
    return (
      <View style={[styles.stage, styles.problem]}>
        <Notice
          problem
          text="The recording has to be chosen again after a reload."
          action={{ label: 'Choose it', onPress: () => router.replace('/practise') }}
        />
      </View>
    );
  }
  return <Stage settings={settings} score={score.value} source={source} />;
}

interface StageProps {
  readonly settings: Settings;
  readonly score: Score;
  readonly source: SourceChoice;
}

function Stage({ settings, score, source }: StageProps) {
  const { width, low, height } = useShape();
  const thread = useRef<ThreadHandle>(null);
  const pulse = useRef<View>(null);
  const router = useRouter();
  const onDone = useCallback(() => router.replace('/review'), [router]);
  const onBeat = useCallback((fraction: number, first: boolean) => {
    const bar = pulse.current as unknown as HTMLElement | null;
    if (!bar) return;
    bar.style.opacity = String(Math.max(0.12, 1 - 2.5 * fraction));
    bar.style.width = first ? '100%' : '34%';
  }, []);
  const stand = useStand({
    score,
    a4: settings.a4,
    tuning: useMemo(() => tuningOf(settings), [settings]),
    source,
    metronomeSound: settings.metronomeSound,
    thread,
    onBeat,
    onDone,
  });
  const { phase, start, stop, cancel } = stand;
  const running = phase === 'opening' || phase === 'counting' || phase === 'listening';
  useEffect(() => {
    // Coming here from a touch, the take begins at once; after a reload the browser wants another touch first.
    if (navigator.userActivation?.isActive !== false) start();
  }, [start]);
  const leave = useCallback(() => {
    cancel();
    if (router.canGoBack()) router.back();
    else router.replace('/practise');
  }, [cancel, router]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === ' ') {
        event.preventDefault();
        if (running) stop();
        else start();
      } else if (event.key === 'Escape') leave();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [leave, running, start, stop]);

  const written = score.notes[0]?.written ?? 69;
  const threadHeight = low ? height - 165 : Math.min(440, height * 0.46);
  return (
    <View role="main" style={styles.stage}>
      <View style={styles.top}>
        <Soft>{`${score.title} · ${findInstrument(score.instrumentId)?.name.toLowerCase()}`}</Soft>
        <Soft>{`${score.tempo === null ? 'free' : `♩ ${score.tempo}`} · A ${settings.a4}`}</Soft>
      </View>
      <View style={[styles.middle, low && styles.middleLow]}>
        <View style={styles.thread}>
          <ThreadStage
            ref={thread}
            width={(low ? width * 0.6 : Math.min(width, 1180)) - 24}
            height={threadHeight}
            name={displayName(written)}
            holdSeconds={beatsToSeconds(score, scoreBeats(score))}
            beatSeconds={score.tempo === null ? null : 60 / score.tempo}
          />
          <View style={styles.pulseTrack}>
            <View ref={pulse} style={styles.pulse} testID="pulse" />
          </View>
        </View>
        <View style={styles.words} aria-live="polite">
          <Text testID="word" style={styles.word} numberOfLines={1} adjustsFontSizeToFit>
            {stand.word}
          </Text>
          <Soft style={styles.hint}>{stand.hint}</Soft>
          {stand.problem ? <Notice problem text={stand.problem} testID="problem" /> : null}
        </View>
      </View>
      <View style={styles.foot}>
        <Button large grow={1} label="Leave" onPress={leave} />
        {running ? (
          <Button look="main" large grow={1.6} label="Stop" onPress={stop} testID="stop" />
        ) : (
          <Button
            look="main"
            large
            grow={1.6}
            disabled={phase === 'measuring'}
            label={phase === 'problem' ? 'Try again' : 'Start'}
            onPress={start}
            testID="start"
          />
        )}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  stage: { flex: 1, backgroundColor: stage.paper, padding: 12, gap: 8 },
  problem: { justifyContent: 'center' },
  top: { flexDirection: 'row', justifyContent: 'space-between', paddingHorizontal: 6, paddingTop: 4 },
  middle: { flex: 1, alignItems: 'center', justifyContent: 'center', gap: 26 },
  middleLow: { flexDirection: 'row', gap: 10 },
  thread: { gap: 10 },
  pulseTrack: { height: 6, alignItems: 'center' },
  pulse: { height: 6, width: '34%', borderRadius: 3, backgroundColor: stage.gold, opacity: 0.12 },
  words: { alignItems: 'center', gap: 4, flexShrink: 1, minHeight: 150, justifyContent: 'center' },
  word: {
    fontFamily: fonts.display,
    fontSize: 84,
    lineHeight: 98,
    color: stage.ink,
    textAlign: 'center',
    fontVariant: ['lining-nums', 'tabular-nums'],
  },
  hint: { fontSize: 20, lineHeight: 26, textAlign: 'center' },
  foot: { flexDirection: 'row', gap: 12, width: '100%', maxWidth: 640, alignSelf: 'center' },
});
