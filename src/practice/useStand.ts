import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import { LiveWords } from '@/core/assess';
import type { Score } from '@/core/exercises';
import { findInstrument, soundingOf } from '@/core/instruments';
import { hertzToMidi, type Offsets } from '@/core/tuning';
import { Session, SourceProblem, type SourceChoice } from '@/audio';
import { newTake, saveDraft } from '@/store';
import type { ThreadHandle } from '@/ui';
import { LIVE_STRIDE } from '@/worker';
import { THREAD_MARK, ThreadHealth } from './threadHealth';

export type StandPhase = 'ready' | 'opening' | 'counting' | 'listening' | 'measuring' | 'problem';

export interface StandOptions {
  readonly score: Score;
  readonly a4: number;
  readonly tuning: { readonly name: string; readonly offsets: Offsets };
  readonly source: SourceChoice;
  readonly metronomeSound: boolean;
  readonly thread: RefObject<ThreadHandle | null>;
  /** Painted with how far the beat has gone, 0 … 1, and whether it is the first of a bar. */
  readonly onBeat: (fraction: number, first: boolean) => void;
  readonly onDone: () => void;
}

export interface Stand {
  readonly phase: StandPhase;
  readonly word: string;
  readonly hint: string;
  readonly problem: string | null;
  readonly start: () => void;
  readonly stop: () => void;
  readonly cancel: () => void;
}

const IDLE = { word: 'ready', hint: 'press start, or the space bar' };
/** The big word changes at most this often. */
const WORD_MS = 220;

/** Runs one take on the stand: joins the sound, the analysis, what is seen and what is kept. */
export function useStand(options: StandOptions): Stand {
  const [phase, setPhase] = useState<StandPhase>('ready');
  const [said, setSaid] = useState(IDLE);
  const [problem, setProblem] = useState<string | null>(null);
  const session = useRef<Session | null>(null);
  const latest = useRef(options);
  useEffect(() => {
    latest.current = options;
  });

  const stopFollowing = useRef<() => void>(() => undefined);
  const fail = useCallback((text: string) => {
    stopFollowing.current();
    session.current = null;
    setProblem(text);
    setPhase('problem');
  }, []);

  const start = useCallback(() => {
    if (session.current) return;
    const { score, a4, tuning, source, metronomeSound } = latest.current;
    setProblem(null);
    setPhase('opening');
    setSaid({ word: '…', hint: source.kind === 'microphone' ? 'opening the microphone' : 'getting ready' });
    const live = new LiveThread(score, a4, tuning.offsets);
    Session.start({
      score,
      a4,
      offsets: tuning.offsets,
      source,
      metronomeSound,
      onLive: (frames, sounding) => live.receive(frames, sounding),
      onProblem: fail,
      onResult: (result, from, sampleRate) => {
        stopFollowing.current();
        session.current = null;
        setPhase('measuring');
        setSaid({ word: '…', hint: 'measuring' });
        const conditions = {
          source: from.kind,
          sourceName: from.name,
          sampleRate,
          a4,
          temperament: tuning.name,
          processing: from.processing,
        };
        saveDraft(newTake(score, result, conditions, new Date()), result.audio).then(
          () => latest.current.onDone(),
          (error: unknown) => fail(`The take could not be stored: ${String(error)}`),
        );
      },
    }).then(
      (running) => {
        session.current = running;
        stopFollowing.current = follow(running, live, latest, setPhase, setSaid);
      },
      (error: unknown) =>
        fail(
          error instanceof SourceProblem ? error.message : `The sound could not be started: ${String(error)}`,
        ),
    );
  }, [fail]);

  const stop = useCallback(() => session.current?.finish(), []);
  const cancel = useCallback(() => {
    stopFollowing.current();
    session.current?.cancel();
    session.current = null;
    setPhase('ready');
    setSaid(IDLE);
  }, []);
  useEffect(() => cancel, [cancel]);

  return { phase, ...said, problem, start, stop, cancel };
}

/** Live frames on their way from the worker to the eye. */
class LiveThread {
  private readonly words = new LiveWords();
  private readonly target: number;
  private waiting: { seconds: number; cents: number; levelDb: number; airinessDb: number }[] = [];
  /** Take time that the thread begins at: the first beat, or in free time the first tone. */
  private origin: number | null = null;
  private latestSeconds = 0;

  constructor(
    score: Score,
    private readonly a4: number,
    offsets: Offsets,
  ) {
    const instrument = findInstrument(score.instrumentId);
    const note = score.notes[0];
    const sounding = instrument && note ? soundingOf(instrument, note.written) : 69;
    this.target = sounding + (offsets[sounding] ?? 0) / 100;
  }

  receive(frames: Float32Array, sounding: boolean): void {
    for (let i = 0; i < frames.length; i += LIVE_STRIDE) {
      const seconds = frames[i] ?? 0;
      const cents = 100 * (hertzToMidi(frames[i + 1] ?? NaN, this.a4) - this.target);
      const levelDb = frames[i + 2] ?? -120;
      this.latestSeconds = seconds;
      this.words.push(seconds, cents, levelDb);
      this.waiting.push({ seconds, cents, levelDb, airinessDb: frames[i + 3] ?? NaN });
    }
    if (sounding) this.origin ??= this.latestSeconds - 0.1;
  }

  /** @param secondsIntoMusic where the music is now by the beat; null in free time. */
  drain(secondsIntoMusic: number | null) {
    if (secondsIntoMusic !== null) this.origin = this.latestSeconds - secondsIntoMusic;
    const { origin } = this;
    const points =
      origin === null ? [] : this.waiting.map((point) => ({ ...point, seconds: point.seconds - origin }));
    if (origin !== null) this.waiting = [];
    else this.waiting.splice(0, Math.max(0, this.waiting.length - 100));
    return points;
  }

  /** Take time of the newest frame. */
  get newest(): number {
    return this.latestSeconds;
  }

  get word() {
    return this.words.now;
  }
}

/** Paints once a screen frame until it is told to stop. */
function follow(
  session: Session,
  live: LiveThread,
  options: RefObject<StandOptions>,
  setPhase: (phase: StandPhase) => void,
  setSaid: (said: { word: string; hint: string }) => void,
): () => void {
  let request = 0;
  let nextWord = 0;
  let shown = '';
  let origin: number | null = null;
  const health = new ThreadHealth();
  let painted = 0;
  const paint = (now: number) => {
    const began = performance.now();
    const { score, thread, onBeat } = options.current;
    const beat = session.beat;
    if (beat !== null) {
      origin = (beat * 60) / (score.tempo ?? 60);
      const whole = Math.floor(beat);
      onBeat(beat - whole, ((whole % score.beatsPerBar) + score.beatsPerBar) % score.beatsPerBar === 0);
    }
    thread.current?.push(live.drain(origin));
    if (now >= nextWord || (beat !== null && beat < 0)) {
      const counting = beat !== null && beat < 0;
      const said = counting ? { word: String(Math.ceil(-beat)), hint: 'counting in' } : live.word;
      const text = said.word + said.hint;
      if (text !== shown) {
        shown = text;
        nextWord = now + WORD_MS;
        setPhase(counting ? 'counting' : 'listening');
        setSaid(said);
      }
    }
    if (live.newest > painted) {
      painted = live.newest;
      health.add(now, session.ageOf(painted), performance.now() - began);
    }
    request = requestAnimationFrame(paint);
  };
  request = requestAnimationFrame(paint);
  return () => {
    cancelAnimationFrame(request);
    performance.mark(THREAD_MARK, { detail: health.summary });
  };
}
