import { scoreBeats, type Score } from '@/core/music';
import { pagesOf, type Page } from '@/core/hearing/following';
import { findInstrument } from '@/core/instruments';
import { unfolded } from '@/core/hearing/matching';
import { Session, SourceProblem, type SessionOptions, type SourceChoice } from '@/audio';
import { beginRunning, clearRunning, refreshRunning, type Running, type Settings } from '@/store';
import { Following, type Followed } from './following';
import { keepTake } from './keepTake';
import type { StandSinks } from './standPainter';
import { sessionParts, sourceChoice } from './standSession';
import { READY, type StandState } from './standState';
import { wordNow } from './standWords';
import { Stretches } from './stretches';

export interface StandOptions {
  readonly score: Score;
  readonly settings: Settings;
  readonly running: Running | null;
  readonly onDone: () => void;
}

const WORD_MS = 220;

/** Runs one block on the stand: sessions one after the other, following, what is seen, and what is kept. */
export class StandEngine {
  readonly score: Score;
  readonly pages: readonly Page[];
  private state: StandState;
  private readonly listeners = new Set<() => void>();
  private readonly following: Following;
  private session: Session | null = null;
  private readonly stretches: Stretches;
  private readonly byBeat: boolean;
  private nextWord = 0;
  /** Seconds of playing before this stretch, for the dose. */
  private playedBefore = 0;
  private startedAt: number | null = null;
  private afterStretch: 'finish' | 'pause' | 'again' = 'finish';
  private interruption: string | null = null;
  private disposed = false;

  constructor(private readonly options: StandOptions) {
    const { settings, running } = options;
    this.score = unfolded(options.score);
    const instrument = findInstrument(this.score.instrumentId);
    if (!instrument) throw new Error(`there is no instrument "${this.score.instrumentId}"`);
    this.byBeat =
      this.score.tempo !== null &&
      (settings.metronome.mode !== 'off' || this.score.notes.length === 0) &&
      (settings.source !== 'file' || this.score.notes.length === 0);
    this.stretches = new Stretches(running?.stretches);
    const from = Math.max(0, running?.stretches.at(-1)?.place ?? 0);
    this.following = new Following({ score: this.score, instrument, settings, byBeat: this.byBeat }, from);
    this.pages = pagesOf(this.score, this.following.groups);
    const group = running ? this.following.phraseStart(from) : 0;
    const { word, hint } = running
      ? { word: 'interrupted', hint: `what was heard is kept; go on from note ${group + 1}` }
      : READY;
    this.state = {
      phase: running ? 'paused' : 'ready',
      word,
      hint,
      problem: null,
      group,
      page: this.pageOf(group),
      hidden: this.score.blind,
      metronome: settings.metronome.mode === 'sound',
      drone: this.score.drone.length > 0,
      beat: 0,
    };
    document.addEventListener('visibilitychange', this.onVisibility);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): StandState => this.state;

  attach(sinks: StandSinks): void {
    this.following.attach(sinks);
  }

  /** Begins, or goes on where it was. */
  start = (): void => {
    const { phase } = this.state;
    if (this.session || phase === 'measuring' || phase === 'opening') return;
    if (phase === 'ready') void beginRunning(this.score);
    void this.open(phase === 'paused' ? this.state.group : 0, false);
  };

  /** Ends the block; what has been heard is measured. */
  stop = (): void => {
    if (this.state.phase === 'waiting' && this.stretches.isEmpty) {
      this.cancel();
      return;
    }
    if (this.session) this.endStretch('finish', null);
    else if (!this.stretches.isEmpty) void this.complete();
  };

  /** From the beginning of this breath. */
  again = (): void => {
    const group = this.following.phraseStart(this.state.group);
    if (!this.session || this.state.phase === 'waiting') return;
    if (this.byBeat) {
      this.endStretch('again', null);
      this.show({ group, page: this.pageOf(group) });
    } else this.goTo(group);
  };

  /** Goes on: from a pause, or in free time to the next breath. */
  next = (): void => {
    if (!this.session) this.start();
    else if (this.state.phase === 'waiting') this.following.beginBeat(this.session);
    else if (!this.byBeat) this.goTo(this.following.nextPhrase(this.state.group));
  };

  toggleMetronome = (): void => {
    const metronome = !this.state.metronome;
    this.session?.setMetronomeSounding(metronome);
    this.show({ metronome });
  };

  toggleDrone = (): void => {
    const drone = !this.state.drone;
    const { session } = this;
    this.show({ drone });
    // What will sound has to be known before it is listened to, so that it can be taken out: this breath begins again.
    if (session && drone && !session.hasDrone) this.endStretch('again', null);
    else session?.setDroneSounding(drone);
  };

  toggleHidden = (): void => this.show({ hidden: !this.state.hidden });

  /** Gives up what has been played of the block. */
  cancel = (): void => {
    this.following.end();
    this.session?.cancel();
    this.session = null;
    void clearRunning();
    if (!this.disposed) this.show({ ...READY, phase: 'ready' });
  };

  /** The screen is left. What has been heard so far stays kept, to be gone on with. */
  dispose(): void {
    this.disposed = true;
    this.following.end();
    this.session?.cancel();
    this.session = null;
    if (!this.stretches.isEmpty || this.state.phase === 'playing') void refreshRunning();
    document.removeEventListener('visibilitychange', this.onVisibility);
  }

  private show(part: Partial<StandState>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }

  private pageOf(group: number): number {
    return Math.max(
      0,
      this.pages.findIndex(({ groups }) => groups.some((each) => each.index === group)),
    );
  }

  private async open(group: number, waits: boolean): Promise<void> {
    const { settings } = this.options;
    const source = sourceChoice(this.score, settings);
    if (!source) {
      this.fail(
        'The recording has to be chosen again after a reload: go back to the exercise and choose it.',
      );
      return;
    }
    this.show({
      phase: 'opening',
      problem: null,
      word: '…',
      hint: source.kind === 'microphone' ? 'opening the microphone' : 'getting ready',
    });
    this.following.restart(group);
    const first = group === 0 && this.stretches.isEmpty;
    const waiting =
      this.byBeat && source.kind === 'microphone' && (waits || (first && settings.startOn === 'sound'));
    try {
      const session = await Session.start(this.sessionOptions(source, waiting));
      if (this.disposed) {
        session.cancel();
        return;
      }
      this.session = session;
      if (waiting) this.show({ phase: 'waiting', word: 'play', hint: 'any note, and the count-in begins' });
      this.following.begin(session, waiting, this.followed);
    } catch (error) {
      this.fail(
        error instanceof SourceProblem ? error.message : `The sound could not be started: ${String(error)}`,
      );
    }
  }

  private sessionOptions(source: SourceChoice, waits: boolean): SessionOptions {
    return {
      ...sessionParts(this.score, this.following.fromBeat, this.options.settings, {
        byBeat: this.byBeat,
        metronome: this.state.metronome,
        drone: this.state.drone,
      }),
      source,
      waits,
      onLive: this.following.receive,
      onSound: (audio, beside) =>
        this.stretches.keep(audio, beside, this.following.fromBeat, this.state.group),
      onProblem: (problem) => this.fail(problem),
      onResult: (result, from, sampleRate) => {
        this.interruption ??= result.interruption;
        this.stretches.finish(result, from, sampleRate, this.following.fromBeat, this.state.group);
        this.session = null;
        this.afterResult();
      },
    };
  }

  /** In free time: from another note on. */
  private goTo(group: number): void {
    this.following.moveTo(group);
    this.show({ group, page: this.pageOf(group) });
  }

  /** Once a screen frame. */
  private readonly followed = (followed: Followed): void => {
    const { group } = followed.place;
    if (group !== this.state.group) this.show({ group, page: this.pageOf(group) });
    this.say(followed);
    this.decide(followed);
  };

  private say({ now, beat, place, live }: Followed): void {
    const counting = beat !== null && beat < this.following.fromBeat;
    if (now < this.nextWord && !counting) return;
    const said = wordNow({
      score: this.score,
      beat,
      fromBeat: this.following.fromBeat,
      place,
      hidden: this.state.hidden,
      byBeat: this.byBeat,
      live,
    });
    const phase = counting ? 'counting' : 'playing';
    const shownBeat =
      this.score.pictures.length > 0 && beat !== null ? Math.round(beat * 5) / 5 : this.state.beat;
    if (
      said.word === this.state.word &&
      said.hint === this.state.hint &&
      phase === this.state.phase &&
      shownBeat === this.state.beat
    )
      return;
    this.nextWord = now + WORD_MS;
    this.show({ ...said, phase, beat: shownBeat });
  }

  private decide({ now, beat, place }: Followed): void {
    if (this.state.phase === 'playing') this.startedAt ??= now;
    const played = this.playedBefore + (this.startedAt === null ? 0 : (now - this.startedAt) / 1000);
    const { longestSeconds } = this.score;
    if (longestSeconds !== null && played > longestSeconds)
      this.endStretch('finish', 'The dose is over: it ended by itself. Rest before the next.');
    else if (this.score.notes.length === 0) {
      if (beat !== null && beat >= scoreBeats(this.score)) this.endStretch('finish', null);
    } else if (place.state === 'over' && this.options.settings.source !== 'file')
      this.endStretch('finish', null);
    else if (place.state === 'lost' && this.options.settings.source !== 'file')
      this.endStretch('pause', null);
  }

  private endStretch(then: 'finish' | 'pause' | 'again', interruption: string | null): void {
    if (!this.session || this.state.phase === 'measuring') return;
    this.afterStretch = then;
    if (this.startedAt !== null) this.playedBefore += (performance.now() - this.startedAt) / 1000;
    this.startedAt = null;
    this.following.end();
    this.show({ phase: 'measuring', word: '…', hint: then === 'finish' ? 'measuring' : 'one moment' });
    this.session.finish(interruption);
  }

  private afterResult(): void {
    if (this.disposed) return;
    this.following.end();
    const group = this.following.phraseStart(this.state.group);
    if (this.afterStretch === 'again') void this.open(group, false);
    else if (this.afterStretch === 'pause') {
      this.show({
        phase: 'paused',
        group,
        page: this.pageOf(group),
        word: 'paused',
        hint:
          this.options.settings.source === 'microphone'
            ? 'play, or press the pedal, to go on'
            : 'press the pedal, or Go on',
      });
      // Only a microphone can wait for a note; everything else goes on by a key.
      if (!document.hidden && this.options.settings.source === 'microphone') void this.open(group, true);
    } else void this.complete();
  }

  private async complete(): Promise<void> {
    this.show({ phase: 'measuring', word: '…', hint: 'measuring' });
    try {
      await keepTake(this.score, this.options.settings, this.stretches, this.interruption);
      if (!this.disposed) this.options.onDone();
    } catch (error) {
      this.fail(`The take could not be stored: ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  private fail(problem: string): void {
    this.following.end();
    this.session = null;
    // What was heard before is still there, to be finished or gone on with.
    const phase = this.stretches.isEmpty ? 'problem' : 'paused';
    this.show({ phase, problem, word: '', hint: '' });
  }

  private readonly onVisibility = (): void => {
    if (document.hidden) {
      if (this.session) this.endStretch('pause', null);
    } else if (this.state.phase === 'paused') {
      this.show({ word: 'paused', hint: 'the page was hidden; press start to go on' });
    }
  };
}
