import { useCallback, useEffect, useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { findFamily, tempoText, type Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import type { Take } from '@/core/take';
import { freePage } from './freePage';
import { useStand } from './useStand';
import { type StandEngine } from './standEngine';
import { type StandState } from './standState';
import type { Running, Settings } from '@/store';
import { Notice, Pictures, Soft, stage, useShape } from '@/ui';
import { PageOfMusic } from './PageOfMusic';
import { StandFoot } from './StandFoot';
import { StandKeys } from './StandKeys';
import { Thread } from './Thread';
import { useRoom } from './useRoom';
import { Words, WORDS_ROOM } from './Words';

interface StandStageProps {
  readonly score: Score;
  readonly instrument: Instrument;
  readonly settings: Settings;
  readonly running: Running | null;
  readonly onDone: (take: Take) => void;
  readonly onLeave: () => void;
  /** What is seen before the block begins: by a note, or by `begin`. Without it the block begins at once. */
  readonly before?: (begin: () => void) => ReactNode;
  /** Whether a note may begin it, where something is seen before. */
  readonly listens?: boolean;
}

/** About what the line at the top and the keys take. */
const HEAD_AND_FOOT = 136;
/** Of the height over the words, the most that music over a thread may take. */
const MUSIC_SHARE = 0.42;
/** The same on a screen of which little is seen, a phone's with all twice as large: what is to be played is read first. */
const TIGHT = { height: 360, share: 0.66 };

/** Before the block has begun. */
const NOT_BEGUN: readonly StandState['phase'][] = ['ready', 'opening', 'waiting'];

/** Whether the first note can begin the block: only a microphone hears one before the music has begun. */
const listensFirst = ({ notes, free }: Score, { source }: Settings): boolean =>
  source === 'microphone' && (notes.length > 0 || free);

/** One block on the stand. */
export function StandStage(props: StandStageProps) {
  const { score, instrument, settings, running, onDone, onLeave, before, listens = true } = props;
  const waits = before !== undefined && listens && listensFirst(score, settings);
  const { engine, state } = useStand({ score, instrument, settings, running, onDone, waits });
  const shape = useShape();
  const { wide, low, width } = shape;
  const [help, setHelp] = useState(false);
  const isNew = running === null;
  // What can hurt is said once, before the first note.
  const [begun, setBegun] = useState(!isNew);
  if (!begun && state.phase === 'playing') setBegun(true);
  const [held, setHeld] = useState(before !== undefined);
  if (held && !NOT_BEGUN.includes(state.phase)) setHeld(false);
  const starts = before === undefined || waits;
  const caution = begun ? null : (findFamily(score.family)?.caution ?? null);
  useEffect(() => {
    // Coming here from a touch, however long ago, the block begins at once; after a reload the browser wants another first.
    if (isNew && starts && navigator.userActivation?.hasBeenActive !== false) engine.start();
  }, [engine, isNew, starts]);
  const begin = useCallback(() => {
    setHeld(false);
    engine.next();
  }, [engine]);
  const leave = useCallback(() => {
    engine.cancel();
    onLeave();
  }, [engine, onLeave]);
  const page = engine.score.free ? freePage(state.sounding, instrument) : engine.pages[state.page];
  const side = wide || low;
  const { height, onLayout } = useRoom(shape.height - HEAD_AND_FOOT);
  const tight = !side && height < TIGHT.height;
  const small = low || tight;
  // The words need theirs. Beside the thread the music has the rest; over it the thread takes what the music leaves.
  const share = side ? 1 : tight ? TIGHT.share : MUSIC_SHARE;
  const room = Math.floor(share * (height - WORDS_ROOM[small ? 'low' : 'high']));
  if (held && before) return before(begin);
  return (
    <View role="main" style={styles.stage}>
      <StandKeys engine={engine} state={state} onLeave={leave} onHelp={() => setHelp(!help)} />
      <Top score={engine.score} settings={settings} state={state} engine={engine} />
      {help ? <Help /> : null}
      <View style={[styles.middle, side && styles.beside]} onLayout={onLayout}>
        <View style={[styles.music, side && { width: width * (wide ? 0.46 : 0.38) }]}>
          {page && !engine.score.free ? (
            <PageOfMusic
              score={engine.score}
              page={page}
              current={state.group}
              instrument={instrument}
              size={small ? 1.1 : wide ? 2 : 1.5}
              room={room}
            />
          ) : null}
          {side ? <Words state={state} caution={caution} small={small} /> : null}
        </View>
        {page ? (
          <Thread
            engine={engine}
            page={page}
            instrument={instrument}
            state={state}
            beside={side}
            width={side ? width * (wide ? 0.5 : 0.56) : width - 24}
          />
        ) : engine.score.pictures.length > 0 ? (
          <View style={side ? styles.picturesBeside : styles.pictures}>
            <Pictures
              score={engine.score}
              beat={state.beat}
              height={side ? height : height - WORDS_ROOM.high - 16}
            />
          </View>
        ) : null}
        {side ? null : <Words state={state} caution={caution} small={small} />}
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
      <View role="heading" aria-level={1} style={styles.shrink}>
        <Soft>{`${score.title}${place}`}</Soft>
      </View>
      <Soft>
        {[
          settings.metronome.mode === 'off' ? 'free' : tempoText(score),
          `A ${settings.a4}`,
          state.drone ? 'drone' : null,
        ]
          .filter((part) => part !== null)
          .join(' · ')}
      </Soft>
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
  pictures: { width: '100%' },
  picturesBeside: { flex: 1 },
  music: { width: '100%', gap: 10, justifyContent: 'center' },
});
