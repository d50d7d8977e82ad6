import { useRouter } from 'expo-router';
import { useCallback, useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import {
  afterBlock,
  again,
  BETWEEN,
  blockNow,
  civilDay,
  endNow,
  isOver,
  isRest,
  scoreOfBlock,
  skipNow,
  takesOf,
  weekdayOf,
  withFailedPlace,
  type Block,
  type Session,
} from '@/core/plan';
import type { Take } from '@/core/take';
import { StandStage } from '@/features/stand';
import { useAwake } from '@/features/sound';
import {
  closeSession,
  discardDraft,
  instrumentIn,
  keepDraft,
  keepSession,
  useRunning,
  useSession,
  useSettings,
  type Running,
  type Settings,
} from '@/store';
import { Body, Button, Notice, PaletteProvider, Screen, stage } from '@/ui';
import { Between } from './Between';
import type { RestWish } from './restKeys';
import { toldOf, type Told } from './told';

/** A session on the stand: blocks follow each other by themselves, with a rest between them. */
export function SessionScreen() {
  useAwake();
  const { settings, ready } = useSettings();
  const { data: session } = useSession();
  const { data: running, isValidating } = useRunning();
  const [found, setFound] = useState<{ session: Session | null; running: Running | null } | null>(null);
  if (!found && ready && session !== undefined && running !== undefined && !isValidating)
    setFound({ session, running });
  return (
    <PaletteProvider palette={stage}>
      {!found ? (
        <View style={{ flex: 1, backgroundColor: stage.paper }} />
      ) : found.session ? (
        <Going begun={found.session} running={found.running} settings={settings} />
      ) : (
        <Nothing />
      )}
    </PaletteProvider>
  );
}

function Nothing() {
  const router = useRouter();
  return (
    <Screen title="No session goes on">
      <Body>A session begins from Today, from the week, or from a routine of your own.</Body>
      <Button look="strong" label="To Today" onPress={() => router.replace('/')} />
    </Screen>
  );
}

/** Nobody plays: after this the session waits for a touch, and does not go on into an empty room. */
const WAITS = null;

interface GoingProps {
  readonly begun: Session;
  readonly running: Running | null;
  readonly settings: Settings;
}

function Going({ begun, running, settings }: GoingProps) {
  const router = useRouter();
  const [session, setSession] = useState(begun);
  const [told, setTold] = useState<Told | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  // What was interrupted is gone on with once; after that each block is a new one.
  const [resumes, setResumes] = useState(
    running?.score.family === comingUp(begun).block?.family ? running : null,
  );
  // After a reload the browser wants a touch before anything may sound.
  const [paused, setPaused] = useState(navigator.userActivation?.hasBeenActive === false);
  const [turn, setTurn] = useState(0);
  const closing = useRef(false);
  const instrument = instrumentIn(settings, session.instrumentId);
  const { block, restSeconds } = comingUp(session);
  const attend = told?.cue ?? null;
  const made = useMemo(
    () => (block && instrument ? scoreOfBlock(block, instrument, settings.level, settings.naming) : null),
    [block, instrument, settings.level, settings.naming],
  );
  const score = useMemo(
    () => (made?.ok ? { ...made.value, cue: made.value.cue ?? attend } : null),
    [made, attend],
  );

  const goOn = useCallback(
    async (next: Session) => {
      setTurn((count) => count + 1);
      setPaused(false);
      setSession(next);
      const over = isOver(next) || comingUp(next).block === null;
      if (over && closing.current) return;
      closing.current = over;
      await (over ? closeSession({ ...next, ended: next.at < next.blocks.length }) : keepSession(next));
      if (over) router.replace('/session/end');
    },
    [router],
  );

  const finished = async (take: Take) => {
    try {
      setResumes(null);
      const now = await toldOf(take, settings, takesOf(session));
      if (now.silent) {
        await discardDraft(take.id);
        setTold(now);
        setTurn((count) => count + 1);
        setPaused(true);
        return;
      }
      await keepDraft(take.id, '');
      const after = afterBlock(atBlock(session, block), take.id);
      const next = instrument ? withFailedPlace(after, now.failed, instrument, settings.level) : after;
      // Before it is told that the block is done: whoever closes the page then finds the next one.
      if (!isOver(next)) await keepSession(next);
      setTold(now);
      await goOn(next);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };

  const wish = (what: RestWish, begin: () => void) => {
    if (what === 'begin') begin();
    else if (what === 'pause' || what === 'longer') {
      setPaused(!paused);
      setTurn((count) => count + 1);
    } else if (what === 'again') void goOn(again(session));
    else if (what === 'skip') void goOn(skipNow(atBlock(session, block)));
    else void goOn(endNow(session));
  };

  if (problem)
    return (
      <Screen title="The session stopped">
        <Notice problem text={`${problem}. What was kept before is in the log.`} />
        <Button look="strong" label="Go on" onPress={() => setProblem(null)} />
        <Button label="To Today" onPress={() => router.replace('/')} />
      </Screen>
    );
  if (!block || !instrument || !made) return <View style={{ flex: 1, backgroundColor: stage.paper }} />;
  if (!made.ok || !score)
    return (
      <Screen title="This block cannot be played">
        <Notice problem text={made.ok ? '' : made.problem} />
        <Button look="strong" label="Skip it" onPress={() => void goOn(skipNow(atBlock(session, block)))} />
      </Screen>
    );
  const isFirst = told === null && session.at === 0;
  const leave = () => router.replace('/');
  if (resumes)
    return (
      <StandStage
        key="resumed"
        score={resumes.score}
        instrument={instrument}
        settings={settings}
        running={resumes}
        onDone={(take) => void finished(take)}
        onLeave={leave}
      />
    );
  return (
    <StandStage
      key={`${block.id}/${turn}/${paused}`}
      score={score}
      instrument={instrument}
      settings={settings}
      running={null}
      onDone={(take) => void finished(take)}
      onLeave={leave}
      listens={!paused}
      {...(!isFirst && {
        before: (begin: () => void) => (
          <Between
            session={session}
            told={told}
            next={block}
            score={score}
            seconds={paused ? WAITS : restSeconds}
            resting={restSeconds > BETWEEN}
            listens={settings.source === 'microphone' && score.notes.length > 0}
            weekday={weekdayOf(civilDay(session.date))}
            onWish={(what) => wish(what, begin)}
          />
        ),
      })}
    />
  );
}

/** The exercise that comes, and how long the rest before it is: rests of the plan are part of it. */
function comingUp(session: Session): { block: Block | null; restSeconds: number } {
  let seconds: number = BETWEEN;
  for (let at = session.at; at < session.blocks.length; at++) {
    const block = blockNow({ ...session, at });
    if (!block) break;
    if (!isRest(block)) return { block, restSeconds: seconds };
    seconds += block.seconds;
  }
  return { block: null, restSeconds: 0 };
}

/** The session with its rests gone through, up to a block. */
const atBlock = (session: Session, block: Block | null): Session =>
  block ? { ...session, at: session.blocks.findIndex(({ id }) => id === block.id) } : session;
