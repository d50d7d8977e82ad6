import { useEffect, useRef, useState } from 'react';
import { StyleSheet, Text, View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { progressOf, sayBlock, sayChange, titleOfBlock, type Block, type Session } from '@/core/plan';
import type { Score } from '@/core/music';
import { findFamily } from '@/core/music';
import { Body, Button, fonts, Soft, stage, Title, useNoteName, useShape } from '@/ui';
import { RestKeys, type RestWish } from './restKeys';
import type { Told } from './told';

interface BetweenProps {
  readonly session: Session;
  readonly told: Told | null;
  readonly next: Block;
  readonly score: Score;
  /** Of rest before the next block begins by itself; null: it waits. */
  readonly seconds: number | null;
  /** The rest is for the lip. */
  readonly resting: boolean;
  /** The first note begins the next block. */
  readonly listens: boolean;
  readonly weekday: number;
  readonly onWish: (wish: RestWish) => void;
}

const LONGER_SECONDS = 30;
const TICK_MS = 200;

/** The stand between two blocks: what was heard, what comes, and when. Nothing needs to be touched. */
export function Between({
  session,
  told,
  next,
  score,
  seconds,
  resting,
  listens,
  weekday,
  onWish,
}: BetweenProps) {
  const nameOf = useNoteName();
  const { low, wide } = useShape();
  const { left, share, longer } = useCountdown(seconds, () => onWish('begin'));
  const act = useRef<(wish: RestWish) => void>(() => undefined);
  useEffect(() => {
    act.current = (wish) => (wish === 'longer' && seconds !== null ? longer() : onWish(wish));
  });
  useEffect(() => {
    const keys = new RestKeys((wish) => act.current(wish));
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat) return;
      if (keys.press(event.key)) event.preventDefault();
    };
    document.addEventListener('keydown', onKey);
    return () => {
      document.removeEventListener('keydown', onKey);
      keys.stop();
    };
  }, []);
  const { done, total } = progressOf(session);
  const minutes = (of: number) => Math.max(0, Math.round(of / 60));
  // Of less than a minute and a half there is nothing to count.
  const isCounted = total >= 90;
  const first = score.notes[0];
  const caution = findFamily(score.family)?.caution ?? null;
  return (
    <View role="main" style={styles.stage} testID="between">
      <Soft>
        {told
          ? `${told.title} done${isCounted ? ` · ${minutes(done)} of ${minutes(total)} min` : ''}`
          : `${session.title}${isCounted ? ` · ${minutes(total)} min` : ''}`}
      </Soft>
      <View style={[styles.middle, (wide || low) && styles.beside]}>
        <View style={styles.said}>{told ? <ToldOf told={told} weekday={weekday} /> : null}</View>
        <View style={styles.next} aria-live="polite">
          <Soft>{resting ? 'rest the lip, drink; then' : 'next'}</Soft>
          {told ? (
            <Text role="heading" aria-level={2} style={[styles.word, low && styles.lowWord]}>
              {titleOfBlock(next)}
            </Text>
          ) : (
            <Title style={[styles.word, low && styles.lowWord]}>{titleOfBlock(next)}</Title>
          )}
          <Body style={styles.centred}>{sayBlock(next, score, nameOf)}</Body>
          {score.cue ? <Body style={[styles.centred, styles.cue]}>{`attend to: ${score.cue}`}</Body> : null}
          {caution ? <Soft style={styles.centred}>{caution}</Soft> : null}
          <View style={styles.bar} role="presentation">
            <View style={[styles.done, { width: `${100 * share}%` }]} />
          </View>
          <Soft testID="begins">
            {[
              left === null ? 'paused' : `begins in ${left} s`,
              listens && left !== null && first ? `or when you play ${nameOf(first.written)}` : null,
            ]
              .filter((part) => part !== null)
              .join(', ')}
          </Soft>
        </View>
      </View>
      <View style={styles.small}>
        <Button look="quiet" label="Skip it" onPress={() => onWish('skip')} testID="skip" />
        {left !== null ? <Button look="quiet" label="Longer rest" onPress={longer} testID="longer" /> : null}
        <Button look="quiet" label="End here" onPress={() => onWish('leave')} testID="leave" />
      </View>
      <View style={styles.foot}>
        <Button
          large
          grow={1}
          label="Again"
          disabled={!told}
          onPress={() => onWish('again')}
          testID="again"
        />
        <Button
          look="main"
          large
          grow={1.3}
          label={seconds === null ? 'Go on' : 'Pause'}
          onPress={() => onWish('pause')}
          testID="pause"
        />
        <Button large grow={1} label="Now" onPress={() => onWish('begin')} testID="now" />
      </View>
    </View>
  );
}

function ToldOf({ told, weekday }: { told: Told; weekday: number }) {
  return (
    <>
      <Title style={styles.headline}>{told.headline}</Title>
      {told.since ? (
        <Body testID="since">{sayChange(told.since, told.daysAgo, weekday)}</Body>
      ) : told.silent ? null : (
        <Body testID="since">The first time: the next one is compared with it.</Body>
      )}
      <Soft>{told.summary}</Soft>
      {told.slurs.length > 1 ? <Slurs slurs={told.slurs} /> : null}
    </>
  );
}

const MOST_SLURS = 24;
const ARC = 26;

/** Each slur as an arc, whole where it was clean, dotted where it came open. */
function Slurs({ slurs }: { slurs: readonly boolean[] }) {
  const shown = slurs.slice(-MOST_SLURS);
  const clean = slurs.filter(Boolean).length;
  return (
    <View role="img" aria-label={`${clean} of ${slurs.length} slurs clean`} style={styles.slurs}>
      <View style={styles.arcs}>
        {shown.map((held, i) => (
          <Svg key={i} width={ARC} height={16}>
            <Path
              d={`M3 10 Q${ARC / 2} ${i % 2 === 0 ? 3 : 15} ${ARC - 3} 10`}
              stroke={held ? stage.gold : stage.softInk}
              strokeWidth={held ? 4 : 2.4}
              strokeLinecap="round"
              fill="none"
              {...(!held && { strokeDasharray: '0.1 5' })}
            />
          </Svg>
        ))}
      </View>
      <Soft>each slur, clean or open</Soft>
    </View>
  );
}

/** Seconds that are left, in whole ones; null: nothing counts down. */
function useCountdown(
  seconds: number | null,
  onEnd: () => void,
): { left: number | null; share: number; longer: () => void } {
  const [passed, setPassed] = useState(0);
  const [extra, setExtra] = useState(0);
  const ended = useRef(false);
  const end = useRef(onEnd);
  useEffect(() => {
    end.current = onEnd;
  });
  const total = seconds === null ? null : seconds + extra;
  useEffect(() => {
    if (total === null) return;
    const began = performance.now() - 1000 * passed;
    const timer = setInterval(() => {
      const now = (performance.now() - began) / 1000;
      setPassed(now);
      if (now < total || ended.current) return;
      ended.current = true;
      end.current();
    }, TICK_MS);
    return () => clearInterval(timer);
    // What has passed is where a new count begins, and no reason for one.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [total]);
  return {
    left: total === null ? null : Math.max(0, Math.ceil(total - passed)),
    share: total === null ? 0 : Math.min(1, passed / total),
    longer: () => setExtra(extra + LONGER_SECONDS),
  };
}

const styles = StyleSheet.create({
  stage: { flex: 1, backgroundColor: stage.paper, padding: 18, gap: 14 },
  middle: { flex: 1, gap: 20, minHeight: 0, justifyContent: 'space-between' },
  beside: { flexDirection: 'row', alignItems: 'center' },
  said: { gap: 6, flexShrink: 1 },
  headline: { fontSize: 30, lineHeight: 36 },
  slurs: { gap: 4, marginTop: 10, borderTopWidth: 1, borderColor: stage.hairline, paddingTop: 12 },
  arcs: { flexDirection: 'row', flexWrap: 'wrap' },
  next: { alignItems: 'center', gap: 8, flexGrow: 1, justifyContent: 'center' },
  word: {
    fontFamily: fonts.display,
    fontSize: 46,
    lineHeight: 54,
    color: stage.ink,
    textAlign: 'center',
  },
  lowWord: { fontSize: 32, lineHeight: 38 },
  centred: { textAlign: 'center' },
  cue: { color: stage.goldText },
  bar: {
    width: '76%',
    height: 8,
    borderRadius: 4,
    backgroundColor: stage.hairline,
    marginTop: 14,
    overflow: 'hidden',
  },
  done: { height: 8, backgroundColor: stage.gold },
  small: { flexDirection: 'row', gap: 26, justifyContent: 'center', flexWrap: 'wrap' },
  foot: { flexDirection: 'row', gap: 12, width: '100%', maxWidth: 640, alignSelf: 'center' },
});
